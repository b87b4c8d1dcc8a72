import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { moveByLink } from "@/modules/my-visit/operations/by-link";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { board } from "@/modules/placing/views/board";
import { dayStrip } from "@/modules/placing/views/day-strip";
import { whyNot } from "@/modules/placing/views/why-not";
import { answersFor } from "@/modules/placing/windows";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import { recordTimeOff } from "@/modules/team/operations/absences";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { fieldDay } from "@/modules/visits/views/field";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import { runDue } from "@/worker/loop";
import { personActor } from "@/core/people/permissions";
import { office, one, saidOf, serviceInput, visitor, worldWithPost } from "@demo/small-world";
import type { WindowAnswer } from "@/core/windows/offer";
import fc from "fast-check";
import { findWanted } from "./wanted";

const day = "2027-03-10";
const evening = {
  ...serviceInput,
  id: null,
  code: "DE",
  name: "Demonstration evening",
  priceMinor: 3000,
  minutes: 90,
  workPlace: "ours" as const,
  seats: 8,
};

/** A business that shows stoves to eight people at a time. */
function world() {
  const small = worldWithPost();
  const serviceId = mustPerform(small.hogar, saveService, evening, office).id;
  const answers = (quantity = 1) => {
    const context = viewContext(small.hogar, visitor);
    const { visit } = findWanted(context, {
      addressId: small.addresses[10]!.id,
      items: [{ serviceId, quantity }],
    });
    return answersFor(context, visit, [day]);
  };
  const [first, second] = answers() as [WindowAnswer, WindowAnswer];
  const taking = (name: string, quantity: number, window = first) =>
    small.book({ serviceId, name, window, items: [{ serviceId, quantity }] });
  const taken = (name: string, quantity: number, window = first) =>
    small.booked({ serviceId, name, window, items: [{ serviceId, quantity }] });
  return { ...small, serviceId, answers, first, second, taking, taken };
}
type World = ReturnType<typeof world>;

interface Placed {
  visit: number;
  technician: number;
  arrives: number;
  window: number;
  time: number;
}
const placements = ({ hogar }: World) =>
  hogar.store
    .sql<Placed>(
      `SELECT p.visit_id AS visit, p.technician_id AS technician, p.arrives, v.window_from AS window, v.shared_id AS time
        FROM placements p JOIN visits v ON v.id = p.visit_id ORDER BY visit`,
    )
    .all();
const stateOf = ({ hogar }: World, visitId: number) =>
  one<{ state: string }>(hogar, "SELECT state FROM visits WHERE id = ?", visitId).state;

describe("a time with several seats", () => {
  it("is filled by customers who each book and pay their own, until it is full", () => {
    const w = world();
    for (const [name, seats] of [
      ["Ada Ash", 3],
      ["Ben Birch", 3],
      ["Cleo Cedar", 2],
    ] as const)
      w.taken(name, seats);
    expect(w.hogar.store.sql<{ total: number }>("SELECT total_minor AS total FROM jobs ORDER BY id").all()).toEqual([
      { total: 9000 },
      { total: 9000 },
      { total: 6000 },
    ]);
    expect(new Set(placements(w).map((p) => `${p.technician} ${p.arrives}`)).size).toBe(1);
    expect(saidOf(w.taking("Dan Dove", 1))).toBe(
      "Somebody was faster: this window has just been taken. The nearest ones that are still free are below.",
    );
    expect(w.answers()[0]).toMatchObject({ offered: false, reasons: [{ code: "seats-full", left: 0, of: 8 }] });
  });

  it("says how many seats are left, and is offered to no more people than that", () => {
    const w = world();
    w.taken("Ada Ash", 6);
    expect(w.answers(2)[0]).toMatchObject({ offered: true, seats: { left: 2 } });
    expect(w.answers(3)[0]).toMatchObject({ offered: false, reasons: [{ code: "seats-full", left: 2, of: 8 }] });
    expect(saidOf(w.taking("Ben Birch", 9))).toBe("Demonstration evening has 8 seats at a time.");
    const said = look(
      w.hogar,
      whyNot,
      {
        addressId: w.addresses[10]!.id,
        items: [{ serviceId: w.serviceId }],
        date: day,
        technicianId: null,
        only: false,
      },
      office,
    );
    expect(said).toMatchObject({ ok: true, value: { windows: [{ offered: true }, {}, {}, {}] } });
  });

  it("is one piece of work of its technician, however many come", () => {
    const w = world();
    w.taken("Ada Ash", 1);
    const promised = () => {
      const strip = look(w.hogar, dayStrip, {}, office);
      return strip.ok && strip.value.find((d) => d.date === day)!.promised;
    };
    const alone = promised();
    w.taken("Ben Birch", 1);
    expect(promised()).toBe(alone);
    const seen = look(w.hogar, board, { date: day }, office);
    expect(seen.ok && seen.value.technicians.flatMap((t) => t.stops.map((s) => s.customer))).toEqual([
      "2 customers, 2 seats",
    ]);
  });

  it("goes on for the others when whoever opened it cancels, and their seats are free again", () => {
    const w = world();
    const [ada, ben] = [w.taken("Ada Ash", 4), w.taken("Ben Birch", 4)];
    mustPerform(w.hogar, cancelVisit, { visitId: ada.visitId, refundDeposit: true }, office);
    expect(placements(w).map((p) => p.visit)).toEqual([ben.visitId]);
    expect(w.answers(4)[0]).toMatchObject({ offered: true, seats: { left: 4 } });
    const cleo = w.taken("Cleo Cedar", 4);
    expect(placements(w).map((p) => [p.visit, p.arrives])).toEqual(
      [ben, cleo].map(({ visitId }) => [visitId, placements(w)[0]!.arrives]),
    );
  });

  it("is left by one customer who moves, and taken along as a whole by the office, which tells everybody", async () => {
    const w = world();
    const [ada, ben, cleo] = [w.taken("Ada Ash", 2), w.taken("Ben Birch", 2), w.taken("Cleo Cedar", 2)];
    mustPerform(w.hogar, moveByLink, { date: day, from: w.second.from, to: w.second.to }, cleo.actor);
    const windows = () => placements(w).map((p) => p.window);
    expect(windows()).toEqual([w.first.from, w.first.from, w.second.from]);
    await runDue(w.hogar);
    w.sent.length = 0;
    const technicianId = placements(w)[0]!.technician;
    mustPerform(
      w.hogar,
      moveVisit,
      { visitId: ben.visitId, technicianIds: [technicianId], date: day, fromMinute: 660, toMinute: 780 },
      office,
    );
    // They join who is there already.
    expect(windows()).toEqual([w.second.from, w.second.from, w.second.from]);
    expect(new Set(placements(w).map((p) => `${p.time} ${p.technician} ${p.arrives}`)).size).toBe(1);
    w.later(1);
    await runDue(w.hogar);
    expect(w.sent.filter((m) => m.way === "mail").map((m) => m.to)).toEqual(["ada@example.com", "ben@example.com"]);
    mustPerform(
      w.hogar,
      moveVisit,
      {
        visitId: ada.visitId,
        technicianIds: [technicianId],
        date: day,
        fromMinute: 540,
        toMinute: 660,
        alone: true,
      },
      office,
    );
    expect(windows()).toEqual([w.first.from, w.second.from, w.second.from]);
  });

  it("is left by the one who opened it, and goes on for those who stay", () => {
    const w = world();
    const [ada, ben] = [w.taken("Ada Ash", 2), w.taken("Ben Birch", 2)];
    mustPerform(w.hogar, moveByLink, { date: day, from: w.second.from, to: w.second.to }, ada.actor);
    const [adas, bens] = placements(w) as [Placed, Placed];
    expect([adas.window, bens.window, adas.time === bens.time]).toEqual([w.second.from, w.first.from, false]);
    expect(w.answers()).toMatchObject([{ seats: { left: 6 } }, { seats: { left: 6 } }, {}, {}]);
    mustPerform(w.hogar, cancelVisit, { visitId: ben.visitId, refundDeposit: true, all: true }, office);
    expect(stateOf(w, ada.visitId)).toBe("promised");
  });

  it("begins and ends for all who came; whoever did not come is not billed", () => {
    const w = world();
    const [ada, ben, cleo] = [w.taken("Ada Ash", 1), w.taken("Ben Birch", 1), w.taken("Cleo Cedar", 1)];
    w.onTheDayOf(ada.visitId);
    const technicianId = placements(w)[0]!.technician;
    const technician = personActor({ id: 9, name: "Bram Okafor", role: "technician", technicianId });
    const step = (visitId: number, to: "on site" | "done" | "no access") =>
      mustPerform(w.hogar, advanceVisit, { visitId, to }, technician);
    step(ada.visitId, "on site");
    w.later(5);
    step(ben.visitId, "no access");
    expect(look(w.hogar, fieldDay, {}, technician)).toMatchObject({
      value: {
        stops: [{ comes: [{ state: "on site" }, { customer: "Ben Birch", state: "no access" }, { seats: 1 }] }],
      },
    });
    w.later(80);
    step(ada.visitId, "done");
    expect([ada, ben, cleo].map((b) => stateOf(w, b.visitId))).toEqual(["done", "no access", "done"]);
    expect(w.hogar.store.sql<{ job: number }>("SELECT job_id AS job FROM invoices ORDER BY job_id").all()).toEqual([
      { job: ada.jobId },
      { job: cleo.jobId },
    ]);
  });

  it("waits for a person as one card where its technician is away, and is placed again whole", () => {
    const w = world();
    const those = [w.taken("Ada Ash", 1), w.taken("Ben Birch", 3)];
    const { technician } = placements(w)[0]!;
    const { freed } = mustPerform(
      w.hogar,
      recordTimeOff,
      { technicianId: technician, firstDate: day, lastDate: day, reason: "Ill" },
      office,
    );
    expect([freed, placements(w)]).toEqual([2, []]);
    const seen = look(w.hogar, board, { date: day }, office);
    const tray = seen.ok ? seen.value.tray : [];
    expect(tray).toMatchObject([{ customer: "2 customers, 4 seats", best: { fits: true } }]);
    mustPerform(
      w.hogar,
      moveVisit,
      { visitId: tray[0]!.id, technicianIds: tray[0]!.best.technicianIds, date: day, fromMinute: 540, toMinute: 660 },
      office,
    );
    expect(placements(w).map((p) => p.visit)).toEqual(those.map((b) => b.visitId));
  });

  it("is cancelled for all of them at once where the office says so", () => {
    const w = world();
    const those = [w.taken("Ada Ash", 1), w.taken("Ben Birch", 1)];
    mustPerform(w.hogar, cancelVisit, { visitId: those[1]!.visitId, refundDeposit: true, all: true }, office);
    expect(those.map((b) => stateOf(w, b.visitId))).toEqual(["cancelled", "cancelled"]);
  });

  it("tells the office who comes, with what each of them said", () => {
    const w = world();
    w.taken("Ada Ash", 1);
    const ben = w.taken("Ben Birch", 2);
    expect(look(w.hogar, visitSheet, { visitId: ben.visitId }, office)).toMatchObject({
      value: {
        comes: {
          seats: 8,
          who: [
            { customer: "Ada Ash", seats: 1 },
            { customer: "Ben Birch", seats: 2 },
          ],
        },
      },
    });
  });

  it("is at our place or by phone, on one day, with one technician, and does not repeat", () => {
    const w = world();
    const said = (more: object) => saidOf(perform(w.hogar, saveService, { ...evening, code: "XX", ...more }, office));
    expect(said({ workPlace: "site" })).toContain("come to our place");
    expect([said({ crew: 2 }), said({ days: 2 })]).toEqual([
      "A time with several seats has one technician.",
      "A time with several seats is on one day.",
    ]);
    const { visitId } = w.taken("Ada Ash", 1);
    expect(saidOf(perform(w.hogar, makeRepeat, { visitId, rule: "FREQ=WEEKLY" }, office))).toContain(
      "A seat is booked once",
    );
  });

  it("never sells a seat twice and keeps everybody of a time together, whatever is booked, cancelled and moved", () => {
    const acts = fc.array(
      fc.record({
        act: fc.constantFrom("book", "book", "book", "cancel", "move", "leave", "sweep"),
        nth: fc.nat(20),
        seats: fc.integer({ min: 1, max: 5 }),
        late: fc.boolean(),
      }),
      { maxLength: 14 },
    );
    fc.assert(
      fc.property(acts, (steps) => {
        const w = world();
        for (const { act, nth, seats, late } of steps) {
          const window = late ? w.second : w.first;
          const promised = w.hogar.store
            .sql<{ id: number }>("SELECT id FROM visits WHERE state = 'promised' ORDER BY id")
            .all();
          const visitId = promised[nth % Math.max(1, promised.length)]?.id;
          w.later(1);
          if (act === "book") w.taking(`Guest ${nth}`, seats, window);
          else if (act === "sweep") w.book({ nth, window });
          else if (visitId && act === "cancel") perform(w.hogar, cancelVisit, { visitId, refundDeposit: true }, office);
          else if (visitId) {
            const [fromMinute, toMinute] = late ? [660, 780] : [540, 660];
            const technicianIds = [w.technicians[nth % 2]!];
            perform(
              w.hogar,
              moveVisit,
              { visitId, technicianIds, date: day, fromMinute, toMinute, alone: act === "leave" },
              office,
            );
          }
        }
        const sold = w.hogar.store
          .sql<{ sold: number }>(
            "SELECT sum(seats) AS sold FROM visits WHERE shared_id IS NOT NULL AND state <> 'cancelled' GROUP BY shared_id",
          )
          .all();
        expect(sold.every((time) => time.sold <= 8)).toBe(true);
        const where = new Map<number, string>();
        for (const p of placements(w).filter((row) => row.time !== null)) {
          const at = `${p.technician} ${p.arrives} ${p.window}`;
          expect(where.get(p.time) ?? at).toBe(at);
          where.set(p.time, at);
        }
      }),
      { numRuns: 25 },
    );
  });
});
