import { inTwoPlaces } from "@demo/two-places";
import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { endRepeat, makeRepeat } from "@/modules/repeats/operations/repeats";
import { recordTimeOff } from "@/modules/team/operations/absences";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { runDue } from "@/worker/loop";
import { drainOutbox } from "@/worker/outbox";
import { office, one, smallWorld, system, visitor } from "@demo/small-world";
import fc from "fast-check";
import { visitOfHold } from "./room";
import { holdOffer } from "./operations/hold-offer";

const count = (world: ReturnType<typeof smallWorld>, query: string) => one<{ n: number }>(world.hogar, query).n;
/** Pairs of planned placements that overlap, counted without the help of the trigger. */
const overlaps = `SELECT count(*) AS n FROM (${inTwoPlaces})`;

describe("booking", () => {
  it("makes a customer, a job with its price, a promised visit on a technician, and tells the customer", async () => {
    const world = smallWorld();
    const { jobId, visitId } = world.booked();
    expect(one(world.hogar, "SELECT state, total_minor, tax_minor FROM jobs WHERE id = ?", jobId)).toEqual({
      state: "agreed",
      total_minor: 7900,
      tax_minor: 1371,
    });
    expect(one(world.hogar, "SELECT state FROM visits WHERE id = ?", visitId)).toEqual({ state: "promised" });
    expect(count(world, "SELECT count(*) AS n FROM placements")).toBe(1);
    await drainOutbox(world.hogar);
    expect(world.hogar.store.sql("SELECT channel, state FROM messages ORDER BY channel").all()).toEqual([
      { channel: "mail", state: "sent" },
    ]);
  });

  it("waits for the deposit, and is agreed when it is there", async () => {
    const world = smallWorld();
    const { jobId } = world.booked({ serviceId: world.services.survey, card: "9900000000001006" });
    expect(one(world.hogar, "SELECT state, deposit_minor FROM jobs WHERE id = ?", jobId)).toEqual({
      state: "awaiting deposit",
      deposit_minor: 4000,
    });
    await drainOutbox(world.hogar);
    expect(one(world.hogar, "SELECT state FROM jobs WHERE id = ?", jobId)).toEqual({ state: "agreed" });
  });

  it("asks for a card where a deposit is due", () => {
    const world = smallWorld();
    expect(world.book({ serviceId: world.services.survey })).toMatchObject({
      ok: false,
      problem: { code: "invalid-input", fields: { "/cardToken": expect.any(String) } },
    });
  });

  it("gives the room back when the deposit is declined and does not come", async () => {
    const world = smallWorld();
    const { jobId } = world.booked({ serviceId: world.services.survey, card: "9900000000002004" });
    await drainOutbox(world.hogar);
    expect(one(world.hogar, "SELECT state FROM jobs WHERE id = ?", jobId)).toEqual({ state: "awaiting deposit" });
    world.later(61);
    await runDue(world.hogar);
    expect(one(world.hogar, "SELECT state FROM jobs WHERE id = ?", jobId)).toEqual({ state: "cancelled" });
    expect(count(world, "SELECT count(*) AS n FROM placements")).toBe(0);
  });

  it("sells the last room once, and brings the loser the nearest offers", () => {
    const world = smallWorld();
    const window = world.offers(world.services.guard)[0]!;
    while (world.offers(world.services.guard).some((o) => o.from === window.from))
      world.booked({ serviceId: world.services.guard, window });
    const lost = world.book({ serviceId: world.services.guard, window, name: "Anton Lund" });
    expect(lost).toMatchObject({ ok: false, problem: { code: "window-gone" } });
    const { offers } = (lost as { problem: { details: { offers: { from: number }[] } } }).problem.details;
    expect(offers.length).toBeGreaterThan(0);
    expect(offers.every((o) => o.from !== window.from)).toBe(true);
    expect(count(world, "SELECT count(*) AS n FROM customers WHERE name = 'Anton Lund'")).toBe(0);
  });

  it("keeps a hold for its customer while it lasts, and for everybody else afterwards", async () => {
    const world = smallWorld();
    const { date, from, to } = world.offers()[0]!;
    const chosen = { addressId: world.addresses[10]!.id, items: [{ serviceId: world.services.sweep }], date, from, to };
    const { key } = mustPerform(world.hogar, holdOffer, chosen, visitor);
    const { visitId } = world.booked({ hold: key, window: { date, from, to } });
    // The visit is that of the hold, and the key that opens it is nowhere to be read.
    expect(visitOfHold(viewContext(world.hogar, visitor), key)?.id).toBe(visitId);
    expect(one(world.hogar, "SELECT hold_key FROM visits WHERE id = ?", visitId)).not.toEqual({ hold_key: key });

    const second = mustPerform(world.hogar, holdOffer, chosen, visitor);
    world.later(11);
    await runDue(world.hogar);
    expect(count(world, "SELECT count(*) AS n FROM visits WHERE state = 'held'")).toBe(0);
    expect(world.book({ hold: second.key, window: { date, from, to }, name: "Anton Lund" }).ok).toBe(true);
  });

  it.each([
    ["while the window is kept", 0],
    ["when its minutes are over", 11],
  ])("books once when the button is pressed twice, %s", (_, minutes) => {
    const world = smallWorld();
    const { date, from, to } = world.offers()[0]!;
    const { key } = mustPerform(
      world.hogar,
      holdOffer,
      { addressId: world.addresses[10]!.id, items: [{ serviceId: world.services.sweep }], date, from, to },
      visitor,
    );
    world.later(minutes);
    const [once, twice] = [
      world.book({ hold: key, window: { date, from, to } }),
      world.book({ hold: key, window: { date, from, to } }),
    ];
    expect(once).toEqual(twice);
    expect(count(world, "SELECT count(*) AS n FROM jobs")).toBe(1);
  });

  it("knows a returning customer by mail and name, without giving the old job to the new link", () => {
    const world = smallWorld();
    const [first, second] = [world.booked({ as: system }), world.booked({ as: system })];
    expect(count(world, "SELECT count(*) AS n FROM customers")).toBe(1);
    expect(second.actor.jobId).not.toBe(first.actor.jobId);
  });

  it("says beside which field an entry is wrong", () => {
    const world = smallWorld();
    expect(world.book({ name: "  " })).toMatchObject({
      ok: false,
      problem: {
        fields: { "/customer/name": "Please fill this in.", "/customer/mail": expect.stringContaining("mail address") },
      },
    });
  });
});

describe("moving", () => {
  it("to another technician keeps the promise and tells nobody", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const { technician_id, date } = one<{ technician_id: number; date: string }>(
      world.hogar,
      "SELECT * FROM placements",
    );
    const other = world.technicians.find((id) => id !== technician_id)!;
    const before = count(world, "SELECT count(*) AS n FROM messages");
    expect(
      mustPerform(
        world.hogar,
        moveVisit,
        { visitId, technicianIds: [other], date, fromMinute: 540, toMinute: 660 },
        office,
      ),
    ).toEqual({ told: false });
    expect(one(world.hogar, "SELECT technician_id FROM placements")).toEqual({ technician_id: other });
    expect(count(world, "SELECT count(*) AS n FROM messages")).toBe(before);
  });

  it("to another window tells the customer, and the old promise stays in the history", () => {
    const world = smallWorld();
    const { visitId } = world.booked({ as: system });
    mustPerform(
      world.hogar,
      moveVisit,
      { visitId, technicianIds: [world.technicians[0]!], date: "2027-03-12", fromMinute: 780, toMinute: 900 },
      office,
    );
    expect(count(world, "SELECT count(*) AS n FROM promises")).toBe(2);
    expect(count(world, "SELECT count(*) AS n FROM promises WHERE ended_at IS NULL")).toBe(1);
    expect(count(world, "SELECT count(*) AS n FROM messages WHERE occasion LIKE 'moved%'")).toBe(2);
  });

  it("is refused with the reason, and changes nothing, where it cannot be kept", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    mustPerform(
      world.hogar,
      recordTimeOff,
      { technicianId: world.technicians[1]!, firstDate: "2027-03-12", lastDate: "2027-03-12", reason: "Ill" },
      office,
    );
    const before = one(world.hogar, "SELECT * FROM placements");
    const result = perform(
      world.hogar,
      moveVisit,
      { visitId, technicianIds: [world.technicians[1]!], date: "2027-03-12", fromMinute: 540, toMinute: 660 },
      office,
    );
    expect(result).toMatchObject({
      ok: false,
      problem: { code: "cannot-be-kept", sentence: "This cannot be kept: Petra Lindqvist is off that day." },
    });
    expect(one(world.hogar, "SELECT * FROM placements")).toEqual(before);
  });

  it("of a crew of two takes both, who begin together", () => {
    const world = smallWorld();
    world.booked({ serviceId: world.services.guard });
    const placed = world.hogar.store.sql<{ arrives: number }>("SELECT arrives FROM placements").all();
    expect(placed).toHaveLength(2);
    expect(placed[0]!.arrives).toBe(placed[1]!.arrives);
  });
});

describe("whatever is booked, moved and cancelled", () => {
  const step = fc.oneof(
    fc.record({
      do: fc.constant("book" as const),
      nth: fc.integer({ min: 0, max: 60 }),
      offer: fc.nat(20),
      service: fc.constantFrom("sweep" as const, "guard" as const),
    }),
    fc.record({
      do: fc.constant("move" as const),
      visit: fc.nat(30),
      technician: fc.nat(1),
      day: fc.integer({ min: 10, max: 12 }),
      window: fc.integer({ min: 0, max: 3 }),
    }),
    fc.record({ do: fc.constant("cancel" as const), visit: fc.nat(30) }),
  );

  it("nobody is ever in two places, and every promised window is kept", () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 5, maxLength: 25 }), (steps) => {
        const world = smallWorld();
        const visits: number[] = [];
        for (const s of steps) {
          world.later(1);
          const visitId = "visit" in s ? visits[s.visit % Math.max(1, visits.length)] : undefined;
          if (s.do === "book") {
            const offers = world.offers(world.services[s.service], s.nth);
            if (offers.length)
              visits.push(
                world.booked({
                  serviceId: world.services[s.service],
                  nth: s.nth,
                  window: offers[s.offer % offers.length]!,
                }).visitId,
              );
          } else if (visitId === undefined) continue;
          else if (s.do === "move")
            perform(
              world.hogar,
              moveVisit,
              {
                visitId,
                technicianIds: [world.technicians[s.technician]!],
                date: `2027-03-${s.day}`,
                fromMinute: 540 + s.window * 120,
                toMinute: 660 + s.window * 120,
              },
              office,
            );
          else perform(world.hogar, cancelVisit, { visitId, refundDeposit: true }, office);
        }
        expect(count(world, overlaps)).toBe(0);
        expect(
          count(
            world,
            "SELECT count(*) AS n FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.arrives NOT BETWEEN v.window_from AND v.window_to OR v.state = 'cancelled'",
          ),
        ).toBe(0);
        expect(
          count(
            world,
            "SELECT count(*) AS n FROM visits v WHERE v.state = 'promised' AND (SELECT count(*) FROM placements WHERE visit_id = v.id) <> v.crew",
          ),
        ).toBe(0);
        world.hogar.store.db.close();
      }),
      { numRuns: 20 },
    );
  });
});

describe("a repeat", () => {
  it("that comes every day comes once on each day on which somebody works", async () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=DAILY;UNTIL=20270326" }, office);
    for (let day = 1; day <= 8; day++) {
      world.later(24 * 60);
      await runDue(world.hogar);
    }
    const dates = world.hogar.store
      .sql<{ date: string }>("SELECT date FROM visits WHERE repeat_id IS NOT NULL ORDER BY date")
      .all()
      .map((v) => v.date);
    expect(new Set(dates).size).toBe(dates.length);
    expect(dates.slice(0, 8)).toEqual([
      "2027-03-10",
      "2027-03-11",
      "2027-03-12",
      "2027-03-15",
      "2027-03-16",
      "2027-03-17",
      "2027-03-18",
      "2027-03-19",
    ]);
  });

  it("puts its dates on the board as forecasts that keep room, and takes them off when it ends", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const { repeatId, forecasts } = mustPerform(
      world.hogar,
      makeRepeat,
      { visitId, rule: "FREQ=WEEKLY;INTERVAL=2" },
      office,
    );
    // The visit itself, and every second week of a year; the first dozen of them at once, the rest by the worker.
    expect(forecasts).toBe(31);
    expect(
      count(
        world,
        "SELECT count(*) AS n FROM visits v JOIN placements p ON p.visit_id = v.id WHERE v.state = 'forecast'",
      ),
    ).toBe(16);
    mustPerform(world.hogar, endRepeat, { repeatId }, office);
    expect(count(world, "SELECT count(*) AS n FROM visits WHERE state = 'forecast'")).toBe(0);
    expect(count(world, "SELECT count(*) AS n FROM visits WHERE state = 'promised'")).toBe(1);
  });

  it("becomes a promised visit two weeks ahead, at today's price, and the customer is told once", async () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=WEEKLY;INTERVAL=4" }, office);
    world.at("2027-03-25", 600);
    for (let i = 0; i < 2; i++) await runDue(world.hogar);
    expect(count(world, "SELECT count(*) AS n FROM visits WHERE state = 'promised' AND date = '2027-04-07'")).toBe(1);
    expect(count(world, "SELECT count(*) AS n FROM messages WHERE occasion LIKE 'coming again%'")).toBe(1);
  });
});
