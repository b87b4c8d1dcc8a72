import { addDays } from "@/core/time/dates";
import { localOf } from "@/core/time/local";
import { clockIn } from "@/core/time/local-words";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { holdOffer } from "@/modules/booking/operations/hold-offer";
import { findWanted } from "@/modules/booking/wanted";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { saveZone } from "@/modules/place/operations/save-zone";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import {
  recordErrand,
  recordTimeOff,
  removeErrand,
  removeTimeOff,
  setDayHours,
} from "@/modules/team/operations/absences";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { runDue } from "@/worker/loop";
import { office, one, serviceInput, smallWorld, visitor } from "@demo/small-world";
import fc from "fast-check";
import { saveBookingRules } from "./operations/booking-rules";
import { moveVisit } from "./operations/move-visit";
import { loadPlanning } from "./planning";
import { whyNot } from "./views/why-not";
import { answersFor } from "./windows";

type World = ReturnType<typeof smallWorld>;
const zone = "Europe/Lisbon";
const dates = ["2027-03-10", "2027-03-11", "2027-03-12"];
const noLimits = { window: null, day: null, week: null };
const usualWindows = [9, 11, 13, 15].map((from) => ({
  kind: "window" as const,
  weekdays: 31,
  from: from * 60,
  to: (from + 2) * 60,
}));
const rules = (world: World, more: object) =>
  mustPerform(
    world.hogar,
    saveBookingRules,
    { windows: usualWindows, noticeMinutes: 60, horizonDays: 30, holdMinutes: 10, ...more },
    office,
  );
const service = (world: World, more: object) =>
  mustPerform(
    world.hogar,
    saveService,
    {
      ...serviceInput,
      id: world.services.sweep,
      code: "SW",
      name: "Chimney sweep",
      priceMinor: 7900,
      minutes: 60,
      ...more,
    },
    office,
  );
const offered = (world: World, serviceId?: number) =>
  world.offers(serviceId).map((o) => `${o.date.slice(8)} ${clockIn(o.from, zone)}`);
const said = (world: World, date = dates[0]!) => {
  const view = look(
    world.hogar,
    whyNot,
    {
      addressId: world.addresses[10]!.id,
      items: [{ serviceId: world.services.sweep }],
      date,
      technicianId: null,
      only: false,
    },
    office,
  );
  if (!view.ok) throw new Error(view.problem.sentence);
  return view.value;
};
const placed = (world: World, visitId: number) =>
  world.hogar.store
    .sql<{ technician_id: number; date: string; arrives: number }>("SELECT * FROM placements WHERE visit_id = ?")
    .all(visitId);

describe("booking rules in the database", () => {
  it("hold limits per window, per day and per week, of the business and of one technician", () => {
    const world = smallWorld();
    rules(world, { limits: { window: null, day: 1, week: null } });
    world.booked();
    expect(offered(world).every((o) => !o.startsWith("10"))).toBe(true);
    rules(world, { limits: { window: 1, day: null, week: null } });
    expect(offered(world)).not.toContain("10 09:00");
    expect(offered(world)).toContain("10 11:00");
    rules(world, { limits: { window: null, day: null, week: 1 } });
    expect(offered(world)).toEqual([]);
    rules(world, { limits: noLimits });
    expect(offered(world)).toHaveLength(12);
  });

  it("take the longest notice of business, zone and service", () => {
    const world = smallWorld();
    service(world, { noticeMinutes: 2 * 1440 });
    expect(offered(world)[0]).toBe("11 09:00");
    service(world, { noticeMinutes: 0 });
    expect(offered(world)[0]).toBe("10 09:00");
  });

  it("know services with windows and hours of their own, and exact times", () => {
    const world = smallWorld();
    service(world, { windows: [{ kind: "exact", weekdays: 4, from: 540, to: 600, step: 30 }] });
    expect(offered(world)).toEqual(["10 09:00", "10 09:30", "10 10:00"]);
    const { visitId } = world.booked();
    expect(
      one<{ length: number }>(world.hogar, "SELECT window_to - window_from AS length FROM visits WHERE id = ?", visitId)
        .length,
    ).toBe(0);
    service(world, { windows: null, hours: [{ weekday: 2, opens: 780, closes: 1020 }] });
    expect(offered(world)).toEqual(["10 13:00", "10 15:00"]);
  });

  it("offer exact times right after the visit before", () => {
    const world = smallWorld();
    service(world, { windows: [{ kind: "continuous", weekdays: 127, from: 480, to: 1020 }] });
    const { visitId } = world.booked({ window: world.offers()[0]! });
    const { arrives } = placed(world, visitId)[0]!;
    const next = world.offers().find((o) => o.date === "2027-03-10" && o.from > arrives && o.from <= arrives + 90);
    expect(next).toBeDefined();
    expect(localOf(next!.from, zone).minute % 5).toBe(0);
  });

  it("limit a service and a zone to named technicians, and a skill to a level", () => {
    const world = smallWorld();
    const [bram, petra] = world.technicians as [number, number];
    service(world, { technicians: [petra] });
    expect(said(world).windows[0]!.technicians.map((t) => t.code)).toEqual(["other-services", null]);
    service(world, { technicians: [], skills: [{ name: "sweep", level: 2 }] });
    expect(offered(world)).toEqual([]);
    service(world, {});
    mustPerform(
      world.hogar,
      saveZone,
      {
        id: 1,
        name: "Harbourside",
        postcodes: ["MW 1*"],
        weekdays: 127,
        serveFrom: 0,
        serveTo: 1440,
        noticeMinutes: 0,
        surchargeMinor: 0,
        smallestOrderMinor: 0,
        technicians: [bram],
      },
      office,
    );
    expect(said(world).windows[0]!.technicians.map((t) => t.code)).toEqual([null, "other-zone"]);
  });

  it("by count, sell what nobody can reach yet: the visit waits in the tray for a person", () => {
    const world = smallWorld();
    rules(world, { capacity: "count", limits: { window: 3, day: null, week: null } });
    const nine = world.offers()[0]!;
    const booked = Array.from({ length: 3 }, (_, i) =>
      world.booked({ window: nine, nth: 10 + i, name: `Mira${i} Okonjo`, serviceId: world.services.sweep }),
    );
    expect(world.book({ window: nine, nth: 20, name: "Anton Lund" }).ok).toBe(false);
    const unplaced = booked.filter((b) => placed(world, b.visitId).length === 0);
    expect(unplaced.length).toBeLessThanOrEqual(1);
    expect(
      perform(
        world.hogar,
        saveBookingRules,
        {
          windows: usualWindows,
          noticeMinutes: 60,
          horizonDays: 30,
          holdMinutes: 10,
          capacity: "count",
          limits: noLimits,
        },
        office,
      ),
    ).toMatchObject({
      problem: { fields: { "/limits/window": expect.stringContaining("number of visits per window") } },
    });
  });

  it("ask first: no window is shown, and none can be booked past the screen", () => {
    const world = smallWorld();
    const nine = world.offers()[0]!;
    service(world, { capacity: "ask" });
    expect(offered(world)).toEqual([]);
    expect(world.book({ window: nine })).toMatchObject({ ok: false, problem: { code: "window-gone" } });
  });

  it("refuse odd patterns beside the window that is wrong", () => {
    const world = smallWorld();
    const refused = perform(
      world.hogar,
      saveBookingRules,
      {
        windows: [
          ...usualWindows,
          { kind: "stepping", weekdays: 31, from: 540, to: 600, length: 120, step: 30 },
          usualWindows[0]!,
        ],
        noticeMinutes: 0,
        horizonDays: 30,
        holdMinutes: 10,
      },
      office,
    );
    expect(refused).toMatchObject({
      problem: {
        fields: {
          "/windows/4": "Not even one window of that length fits in here.",
          "/windows/5": "This window is there twice.",
        },
      },
    });
  });
});

describe("a technician's day", () => {
  const onlyBram = (world: World) =>
    mustPerform(
      world.hogar,
      recordTimeOff,
      { technicianId: world.technicians[1]!, firstDate: "2027-03-09", lastDate: "2027-04-20", reason: "Holiday" },
      office,
    );

  it("is blocked by an errand, with the way there where it has a place", () => {
    const world = smallWorld();
    onlyBram(world);
    const errand = {
      technicianId: world.technicians[0]!,
      date: "2027-03-10",
      fromMinute: 540,
      toMinute: 720,
      title: "Van to the garage",
    };
    const { id } = mustPerform(world.hogar, recordErrand, { ...errand, addressId: null }, office);
    expect(offered(world).filter((o) => o.startsWith("10"))).toEqual(["10 11:00", "10 13:00", "10 15:00"]);
    mustPerform(world.hogar, removeErrand, { id }, office);
    mustPerform(world.hogar, recordErrand, { ...errand, addressId: world.addresses.at(-1)!.id }, office);
    const arrival = said(world).windows[1]!.technicians[0]!.fits;
    expect(arrival === null || arrival.arrives >= 780).toBe(true);
  });

  it("goes on around an errand; what no longer fits waits in the tray", () => {
    const world = smallWorld();
    onlyBram(world);
    const morning = world.booked({ window: world.offers()[0]! });
    const { arrives: before } = placed(world, morning.visitId)[0]!;
    const errand = (fromMinute: number, toMinute: number) =>
      mustPerform(
        world.hogar,
        recordErrand,
        {
          technicianId: world.technicians[0]!,
          date: "2027-03-10",
          fromMinute,
          toMinute,
          title: "Dentist",
          addressId: null,
        },
        office,
      );
    expect(errand(480, 600).freed).toBe(0);
    expect(placed(world, morning.visitId)[0]!.arrives).toBeGreaterThan(before);
    expect(errand(600, 720).freed).toBe(1);
    expect(placed(world, morning.visitId)).toEqual([]);
  });

  it("may have other hours on one date, and hours off", () => {
    const world = smallWorld();
    onlyBram(world);
    const [bram] = world.technicians as [number];
    mustPerform(
      world.hogar,
      setDayHours,
      { technicianId: bram, date: "2027-03-10", spans: [{ opens: 840, closes: 1080 }] },
      office,
    );
    expect(offered(world).filter((o) => o.startsWith("10"))).toEqual(["10 13:00", "10 15:00"]);
    mustPerform(world.hogar, setDayHours, { technicianId: bram, date: "2027-03-10", spans: null }, office);
    const { id } = mustPerform(
      world.hogar,
      recordTimeOff,
      {
        technicianId: bram,
        firstDate: "2027-03-10",
        lastDate: "2027-03-11",
        reason: "School",
        fromMinute: 480,
        toMinute: 780,
      },
      office,
    );
    expect(offered(world).slice(0, 4)).toEqual(["10 13:00", "10 15:00", "11 13:00", "11 15:00"]);
    mustPerform(world.hogar, removeTimeOff, { id }, office);
    expect(offered(world)[0]).toBe("10 09:00");
    expect(
      perform(
        world.hogar,
        setDayHours,
        {
          technicianId: bram,
          date: "2027-03-10",
          spans: [
            { opens: 840, closes: 900 },
            { opens: 850, closes: 1000 },
          ],
        },
        office,
      ).ok,
    ).toBe(false);
  });

  it("is not offered in the past: today nobody drives off before now", () => {
    const world = smallWorld();
    world.at("2027-03-10", 570);
    const today = said(world).windows[0]!.technicians[0]!;
    expect(today.fits!.arrives).toBeGreaterThan(570);
  });

  it("that runs late still takes what does no further harm", () => {
    const world = smallWorld();
    onlyBram(world);
    const { visitId } = world.booked({ window: world.offers()[0]! });
    world.at("2027-03-10", 700);
    expect(said(world).windows.map((w) => w.offered)).toEqual([false, false, true, true]);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
    expect(said(world).windows.map((w) => w.offered)).toEqual([false, false, true, true]);
  });
});

/** One technician whose forecasts fill the only window, and the date of the first of them. */
function withForecast(room: "full" | "half" | "none") {
  const world = smallWorld();
  mustPerform(
    world.hogar,
    recordTimeOff,
    { technicianId: world.technicians[1]!, firstDate: "2027-03-09", lastDate: "2027-04-20", reason: "Holiday" },
    office,
  );
  rules(world, {
    windows: [{ kind: "window", weekdays: 127, from: 480, to: 510 }],
    horizonDays: 60,
    forecastRoom: room,
  });
  const { visitId } = world.booked({ window: world.offers()[0]! });
  mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=WEEKLY;INTERVAL=3" }, office);
  return { world, date: addDays("2027-03-10", 21) };
}

describe("forecasts", () => {
  const answers = (world: World, date: string) => {
    const context = viewContext(world.hogar, visitor);
    return answersFor(
      context,
      findWanted(context, { addressId: world.addresses[12]!.id, items: [{ serviceId: world.services.sweep }] }).visit,
      [date],
    );
  };

  it("keep their room where they count", () => {
    for (const room of ["full", "half"] as const) {
      const { world, date } = withForecast(room);
      expect(answers(world, date).map((a) => a.offered)).toEqual([false]);
    }
  });

  it("give way to a booking where they do not count, and wait for a person", () => {
    const { world, date } = withForecast("none");
    const [offer] = answers(world, date);
    expect(offer!.offered).toBe(true);
    world.booked({ window: offer!, nth: 12, name: "Anton Lund" });
    const forecast = one<{ id: number; state: string }>(
      world.hogar,
      "SELECT id, state FROM visits WHERE date = ? AND repeat_id IS NOT NULL",
      date,
    );
    expect([forecast.state, placed(world, forecast.id)]).toEqual(["forecast", []]);
  });
});

describe("work of several days", () => {
  const relining = (world: World) => service(world, { days: 2, crew: 2, minutes: 150 });

  it("is booked as linked visits on working days in a row, with the same crew and a common start", () => {
    const world = smallWorld();
    relining(world);
    const offer = world.offers()[0]!;
    const { jobId } = world.booked({ window: offer });
    const days = world.hogar.store
      .sql<{ id: number; date: string; meet_at: number; crew: string }>(
        "SELECT v.id, v.date, v.meet_at, (SELECT group_concat(technician_id) FROM placements WHERE visit_id = v.id AND arrives = v.meet_at) AS crew FROM visits v WHERE job_id = ? ORDER BY date",
      )
      .all(jobId);
    expect(days.map((d) => d.date)).toEqual(["2027-03-10", "2027-03-11"]);
    expect(new Set(days.map((d) => d.crew)).size).toBe(1);
    expect(days[0]!.crew.split(",")).toHaveLength(2);
    expect(one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM promises").n).toBe(2);
    expect(one<{ body: string }>(world.hogar, "SELECT body FROM messages WHERE channel = 'mail'").body).toContain(
      "Wednesday 10 March and Thursday 11 March",
    );
  });

  it("passes over days on which the zone is not served", () => {
    const world = smallWorld();
    relining(world);
    mustPerform(
      world.hogar,
      saveZone,
      {
        id: 1,
        name: "Harbourside",
        postcodes: ["MW 1*"],
        weekdays: 4 + 16,
        serveFrom: 0,
        serveTo: 1440,
        noticeMinutes: 0,
        surchargeMinor: 0,
        smallestOrderMinor: 0,
      },
      office,
    );
    expect(world.offers()[0]).toMatchObject({ date: "2027-03-10", followingDays: [{ date: "2027-03-12" }] });
  });

  it("gives all its room back when a hold lapses, moves as one, and is invoiced when the last day is done", async () => {
    const world = smallWorld();
    relining(world);
    const first = world.offers()[0]!;
    mustPerform(
      world.hogar,
      holdOffer,
      {
        addressId: world.addresses[10]!.id,
        items: [{ serviceId: world.services.sweep }],
        date: first.date,
        from: first.from,
        to: first.to,
      },
      visitor,
    );
    world.later(11);
    await runDue(world.hogar);
    expect(one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM placements").n).toBe(0);

    const { jobId, visitId } = world.booked({ window: first });
    expect(
      mustPerform(
        world.hogar,
        moveVisit,
        { visitId, technicianIds: world.technicians, date: "2027-03-11", fromMinute: 540, toMinute: 660 },
        office,
      ).told,
    ).toBe(true);
    const days = world.hogar.store
      .sql<{ id: number; date: string }>("SELECT id, date FROM visits WHERE job_id = ? ORDER BY date")
      .all(jobId);
    expect(days.map((d) => d.date)).toEqual(["2027-03-11", "2027-03-12"]);
    expect(perform(world.hogar, makeRepeat, { visitId, rule: "FREQ=YEARLY" }, office)).toMatchObject({
      problem: { code: "repeat-of-several-days" },
    });
    const invoices = () => one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM invoices").n;
    for (const { id, date } of days) {
      expect(invoices()).toBe(0);
      world.at(date, 550);
      mustPerform(world.hogar, advanceVisit, { visitId: id, to: "on site" }, office);
      world.at(date, 840);
      mustPerform(world.hogar, advanceVisit, { visitId: id, to: "done" }, office);
    }
    expect(invoices()).toBe(1);
  });
});

describe("why not?", () => {
  it("says for each technician what stops them, between whom, and what would open it", () => {
    const world = smallWorld();
    const nine = world.offers()[0]!;
    mustPerform(
      world.hogar,
      recordTimeOff,
      { technicianId: world.technicians[1]!, firstDate: "2027-03-10", lastDate: "2027-03-10", reason: "Ill" },
      office,
    );
    service(world, { minutes: 110 });
    world.booked({ window: nine });
    const { windows, zone: zoneName } = said(world);
    expect(zoneName).toBe("Harbourside");
    const [bram, petra] = windows[0]!.technicians;
    expect(windows[0]!.offered).toBe(false);
    expect(petra).toMatchObject({ code: "off", remedy: "ending the time off" });
    expect(bram!.where).toMatch(/between (the start of the day|Mira Okonjo) and (Mira Okonjo|the way home)/);
    expect(bram!.remedy).toMatch(/min/);
  });

  it("names the neighbours that the engine saw, not forecasts that give way", () => {
    const { world, date } = withForecast("none");
    service(world, { minutes: 600 });
    const { where } = said(world, date).windows[0]!.technicians[0]!;
    expect(where).toBe("between the start of the day and the way home");
  });

  it("names the rules that stand against a window, and looks outside the zones too", () => {
    const world = smallWorld();
    expect(said(world, "2027-06-01").windows[0]!.against).toEqual([
      {
        code: "too-far-ahead",
        words: "54 days further ahead than we take bookings",
        remedy: "a horizon that is 54 days longer",
      },
    ]);
    world.booked();
    const outside = world.town.addresses.find((a) => a.postcode.startsWith("MW 4"))!;
    const view = look(
      world.hogar,
      whyNot,
      {
        addressId: outside.id,
        items: [{ serviceId: world.services.sweep }],
        date: dates[0]!,
        technicianId: null,
        only: false,
      },
      office,
    );
    expect(view).toMatchObject({ ok: true, value: { zone: null } });
    expect(view.ok && view.value.windows[0]!.against[0]!.words).toMatch(
      /^the address is outside our zones, [\d.]+ km from Harbourside$/,
    );
  });
});

describe("days kept in memory", () => {
  const step = fc.oneof(
    fc.record({ do: fc.constant("book" as const), nth: fc.nat(40), offer: fc.nat(20) }),
    fc.record({
      do: fc.constant("move" as const),
      visit: fc.nat(10),
      technician: fc.nat(1),
      day: fc.integer({ min: 10, max: 12 }),
      window: fc.nat(3),
    }),
    fc.record({ do: fc.constant("cancel" as const), visit: fc.nat(10) }),
    fc.record({
      do: fc.constant("off" as const),
      technician: fc.nat(1),
      day: fc.integer({ min: 10, max: 12 }),
      hours: fc.boolean(),
    }),
    fc.record({
      do: fc.constant("errand" as const),
      technician: fc.nat(1),
      day: fc.integer({ min: 10, max: 12 }),
      at: fc.integer({ min: 480, max: 900 }),
    }),
    fc.record({ do: fc.constant("hours" as const), technician: fc.nat(1), opens: fc.integer({ min: 400, max: 700 }) }),
    fc.record({ do: fc.constant("refused" as const), nth: fc.nat(40), offer: fc.nat(20) }),
  );

  it("never answer otherwise than the database would, whatever is done and whatever is refused", () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 4, maxLength: 14 }), (steps) => {
        const world = smallWorld();
        const { hogar } = world;
        const visits: number[] = [];
        for (const s of steps) {
          world.later(1);
          const technicianId = "technician" in s ? world.technicians[s.technician]! : 0;
          const date = "day" in s ? `2027-03-${s.day}` : "";
          const visitId = "visit" in s ? visits[s.visit % Math.max(1, visits.length)] : undefined;
          if (s.do === "book" || s.do === "refused") {
            const offers = world.offers(world.services.sweep, s.nth);
            if (offers.length === 0) continue;
            const window = offers[s.offer % offers.length]!;
            if (s.do === "book") visits.push(world.booked({ nth: s.nth, window, name: `Mira${s.nth} Okonjo` }).visitId);
            // Takes the room, writes the day, and is then refused for want of a card: all of it is rolled back.
            else
              expect(
                world.book({ nth: s.nth, serviceId: world.services.survey, window, card: "4000 0000 0000 0000" }).ok,
              ).toBe(false);
          } else if (s.do === "move" && visitId)
            perform(
              hogar,
              moveVisit,
              {
                visitId,
                technicianIds: [technicianId],
                date,
                fromMinute: 540 + s.window * 120,
                toMinute: 660 + s.window * 120,
              },
              office,
            );
          else if (s.do === "cancel" && visitId) perform(hogar, cancelVisit, { visitId, refundDeposit: true }, office);
          else if (s.do === "off")
            mustPerform(
              hogar,
              recordTimeOff,
              {
                technicianId,
                firstDate: date,
                lastDate: date,
                reason: "Ill",
                ...(s.hours && { fromMinute: 600, toMinute: 800 }),
              },
              office,
            );
          else if (s.do === "errand")
            // Refused where another one takes them elsewhere then.
            perform(
              hogar,
              recordErrand,
              {
                technicianId,
                date,
                fromMinute: s.at,
                toMinute: s.at + 60,
                title: "Dentist",
                addressId: s.at % 2 ? null : world.addresses[s.at % 50]!.id,
              },
              office,
            );
          else if (s.do === "hours")
            mustPerform(
              hogar,
              saveTechnician,
              {
                id: technicianId,
                name: ["Bram Okafor", "Petra Lindqvist"][s.technician]!,
                phone: "+1 555 0111",
                skills: [{ name: "sweep", level: 1, validUntil: null }],
                hours: [1, 2, 3, 4].map((weekday) => ({ weekday, opens: s.opens, closes: s.opens + 420 })),
              },
              office,
            );
          const answer = (of: Hogar) => {
            const context = viewContext(of, visitor);
            return answersFor(
              context,
              findWanted(context, { addressId: world.addresses[5]!.id, items: [{ serviceId: world.services.sweep }] })
                .visit,
              dates,
            );
          };
          // An application that has just been opened on the same data knows nothing yet.
          expect(answer(hogar)).toEqual(answer({ ...hogar, store: { ...hogar.store, caches: [] } }));
        }
        hogar.store.db.close();
      }),
      { numRuns: 12 },
    );
  });

  it("do not lose a day that has passed while it is looked at", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const id = placed(world, visitId)[0]!.technician_id;
    const stopsOn = (dates: string[]) =>
      loadPlanning(viewContext(world.hogar, visitor), dates).dayOf(id, "2027-03-10").day.stops.length;
    world.at("2027-03-12", 480);
    expect([stopsOn(["2027-03-10"]), stopsOn(["2027-03-10", "2027-03-12"])]).toEqual([1, 1]);
  });

  it("read again only the day that has changed", () => {
    const world = smallWorld();
    world.offers();
    const read: string[] = [];
    const { sql } = world.hogar.store;
    world.hogar.store.sql = ((text: string) => {
      if (text.includes("FROM placements p JOIN visits v ON v.id = p.visit_id")) read.push(text);
      return sql(text);
    }) as typeof sql;
    world.offers();
    expect(read).toEqual([]);
    world.booked();
    read.length = 0;
    world.offers();
    expect(read).toHaveLength(1);
    expect(read[0]).toContain("p.technician_id = @whose");
  });
});
