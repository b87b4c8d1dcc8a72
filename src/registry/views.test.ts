import { mustPerform, viewContext } from "@/kernel/operation";
import { look, type View } from "@/kernel/view";
import { findWanted } from "@/modules/booking/wanted";
import { customer } from "@/modules/customers/views/customer";
import { customers } from "@/modules/customers/views/customers";
import { find } from "@/modules/customers/views/find";
import { saveFrontDoor } from "@/modules/front-door/operations/save-front-door";
import { checkBooker, offers, servicesAt } from "@/modules/front-door/views/front-door";
import { receiveText } from "@/modules/messages/operations/receive";
import { saveZone } from "@/modules/place/operations/save-zone";
import { findAddress } from "@/modules/place/views/find-address";
import { saveSpecialDay } from "@/modules/placing/operations/opening";
import { board } from "@/modules/placing/views/board";
import { dayStrip } from "@/modules/placing/views/day-strip";
import { placementOptions } from "@/modules/placing/views/placement-options";
import { answersFor, bookableDates } from "@/modules/placing/windows";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import { repeats } from "@/modules/repeats/views/repeats";
import { makeRequest } from "@/modules/requests/operations/requests";
import { setup } from "@/modules/setup/views/setup";
import { recordTimeOff, removeTimeOff } from "@/modules/team/operations/absences";
import { ownViews } from "@/registry/modules";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { visitSheet } from "@/modules/visits/views/visit-sheet";
import { firstPage } from "@/ui/first-page";
import { office, one, smallWorld, system, visitor } from "@demo/small-world";
import type { Static, TSchema } from "@sinclair/typebox";

type World = ReturnType<typeof smallWorld>;
const see = <S extends TSchema, R>(world: World, view: View<S, R>, input: Static<S>): R => {
  const result = look(world.hogar, view, input, office);
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value;
};
const tomorrow = "2027-03-10";

describe("the front door", () => {
  it("finds an address, its zone with the terms there, and the price of each service", () => {
    const world = smallWorld();
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
        surchargeMinor: 1000,
        smallestOrderMinor: 10_000,
      },
      office,
    );
    const [address] = see(world, findAddress, { text: "MW 101" });
    const at = see(world, servicesAt, { addressId: address!.id });
    expect(at.zone).toMatchObject({ name: "Harbourside", surchargeMinor: 1000 });
    expect(at.services.find((s) => s.code === "SW")).toMatchObject({
      totalMinor: 10_000,
      lines: [{ amountMinor: 7900 }, { amountMinor: 1000 }, { amountMinor: 1100 }],
    });
  });

  it("knows an address outside the zones, and refuses one that does not exist", () => {
    const world = smallWorld();
    const outside = world.town.addresses.find((a) => a.postcode.startsWith("MW 5"))!;
    expect(see(world, servicesAt, { addressId: outside.id })).toMatchObject({ zone: null, services: [] });
    expect(look(world.hogar, servicesAt, { addressId: "forged" }, visitor)).toMatchObject({
      problem: { fields: { "/addressId": expect.any(String) } },
    });
  });

  it("says at once what is wrong about who one is, all of it together, and keeps nothing", () => {
    const world = smallWorld();
    const { frontDoor: now } = see(world, setup, {});
    mustPerform(
      world.hogar,
      saveFrontDoor,
      { ...now, fields: [{ id: "entry", words: "How do we get in?", required: true, kind: "text", most: 50 }] },
      office,
    );
    const customer = { name: "Mira Okonjo", mail: "mira@example.com", phone: "+1 555 0142", reminders: false };
    expect(look(world.hogar, checkBooker, { customer: { ...customer, phone: "12-34" } }, visitor)).toMatchObject({
      problem: {
        fields: {
          "/customer/phone": "Write a phone number, such as +1 555 0142.",
          "/fields/entry": "Please answer this.",
        },
      },
    });
    expect(look(world.hogar, checkBooker, { customer: { ...customer, mail: "mira@" } }, visitor)).toMatchObject({
      problem: { fields: { "/customer/mail": expect.stringContaining("mail address") } },
    });
    expect(look(world.hogar, checkBooker, { customer, fields: { entry: "By the side gate" } }, visitor).ok).toBe(true);
    expect(one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM customers").n).toBe(0);
  });

  it("offers the soonest days first and the later ones when asked, each window once and none left out", () => {
    const world = smallWorld();
    const asked = { addressId: world.addresses[10]!.id, items: [{ serviceId: world.services.sweep }] };
    const looks = [see(world, offers, asked)];
    while (looks.at(-1)!.next !== null) looks.push(see(world, offers, { ...asked, from: looks.at(-1)!.next! }));
    expect(looks.length).toBeGreaterThan(1);
    const context = viewContext(world.hogar, visitor);
    const all = answersFor(context, findWanted(context, asked).visit, bookableDates(context)).filter((a) => a.offered);
    expect(looks.flatMap((l) => l.windows).map(({ date, from, to }) => ({ date, from, to }))).toEqual(
      all.map(({ date, from, to }) => ({ date, from, to })),
    );
    expect(see(world, offers, { ...asked, from: "2030-01-01" })).toEqual({ windows: [], next: null });
  });

  it("offers no window on a closed day, on a day the zone is not served, or at an hour it is not", () => {
    const world = smallWorld();
    const asked = { addressId: world.addresses[10]!.id, items: [{ serviceId: world.services.sweep }] };
    const dates = () => [...new Set(see(world, offers, asked).windows.map((o) => o.date))];
    expect(dates()).toContain(tomorrow);
    mustPerform(
      world.hogar,
      saveSpecialDay,
      { id: null, name: "Harbour fair", first: tomorrow, last: tomorrow, yearly: false, spans: [] },
      office,
    );
    expect(dates()).not.toContain(tomorrow);
    mustPerform(
      world.hogar,
      saveZone,
      {
        id: 1,
        name: "Harbourside",
        postcodes: ["MW 1*"],
        weekdays: 8,
        serveFrom: 0,
        serveTo: 720,
        noticeMinutes: 0,
        surchargeMinor: 0,
        smallestOrderMinor: 0,
      },
      office,
    );
    const left = see(world, offers, asked).windows;
    expect(left.length).toBeGreaterThan(0);
    expect(new Set(left.map((o) => new Date(o.date).getUTCDay()))).toEqual(new Set([4]));
    expect(left.every((o) => o.to % 1440 <= 720)).toBe(true);
  });
});

describe("the board", () => {
  it("shows who is where, with driving, and how much of the day is promised", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const day = see(world, board, { date: tomorrow });
    const holder = day.technicians.find((t) => t.stops.length)!;
    expect(holder.stops[0]).toMatchObject({
      id: visitId,
      customer: "Mira Okonjo",
      windowFrom: 540,
      windowTo: 660,
      state: "promised",
    });
    expect(holder).toMatchObject({ workable: 480, absence: null });
    expect(holder.promised).toBe(holder.stops[0]!.leaves - holder.stops[0]!.driveFrom);
    expect(see(world, dayStrip, {}).find((d) => d.date === tomorrow)).toMatchObject({
      workable: 960,
      promised: holder.promised,
      needsPerson: 0,
    });
  });

  it("puts what an ill technician leaves into the tray, with who can take it, and needs three actions", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const { technician_id } = one<{ technician_id: number }>(world.hogar, "SELECT * FROM placements");
    const { id, freed } = mustPerform(
      world.hogar,
      recordTimeOff,
      { technicianId: technician_id, firstDate: tomorrow, lastDate: tomorrow, reason: "Ill" },
      office,
    );
    expect(freed).toBe(1);
    const day = see(world, board, { date: tomorrow });
    expect(day.technicians.find((t) => t.id === technician_id)).toMatchObject({ absence: "Ill", workable: 0 });
    expect(day.tray).toMatchObject([
      { id: visitId, best: { fits: true, technicianIds: [world.technicians.find((t) => t !== technician_id)] } },
    ]);
    expect(see(world, dayStrip, {}).find((d) => d.date === tomorrow)).toMatchObject({ needsPerson: 1, off: 1 });
    mustPerform(world.hogar, removeTimeOff, { id }, office);
    expect(see(world, board, { date: tomorrow }).technicians.every((t) => t.absence === null)).toBe(true);
  });

  it("says of every window and technician what moving there costs, or why it cannot be", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    mustPerform(
      world.hogar,
      recordTimeOff,
      { technicianId: world.technicians[1]!, firstDate: "2027-03-11", lastDate: "2027-03-11", reason: "Ill" },
      office,
    );
    const options = see(world, placementOptions, { visitId, date: "2027-03-11" });
    expect(options.map((o) => [o.from, o.to])).toEqual([
      [540, 660],
      [660, 780],
      [780, 900],
      [900, 1020],
    ]);
    expect(options[0]!.technicians).toMatchObject([
      { fits: true, extraDriving: expect.any(Number) },
      { fits: false, why: "Petra Lindqvist is off that day" },
    ]);
  });

  it("tells everything about a visit: promise, people, repeat, messages and history", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=WEEKLY;INTERVAL=2" }, office);
    const sheet = see(world, visitSheet, { visitId });
    expect(sheet).toMatchObject({
      state: "promised",
      windowFrom: 540,
      repeat: { words: "every 2 weeks on Wednesday", active: true },
      coming: expect.arrayContaining(["2027-03-24"]),
      totalMinor: 7900,
    });
    expect(sheet.messages.map((m) => m.channel)).toEqual(["mail"]);
    expect(sheet.history.map((h) => h.operation)).toEqual(["make-repeat", "book"]);
  });
});

describe("today", () => {
  it("names what needs a person: nobody placed, late, a text that came in", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    world.at(tomorrow, 670);
    mustPerform(world.hogar, receiveText, { key: "1", sender: "+1 555 0142", body: "Where are you?" }, system);
    expect(see(world, ownViews.today, {}).needs.map((n) => n.kind)).toEqual(["late", "reply"]);
    world.onTheDayOf(visitId);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
    expect(see(world, ownViews.today, {}).needs.map((n) => n.kind)).toEqual(["reply"]);
  });
});

describe("customers", () => {
  it("are listed with what is open and when we come next, and found by name, phone and street", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    expect(see(world, customers, firstPage<"customers">("name")).rows).toMatchObject([
      { name: "Mira Okonjo", nextVisit: tomorrow, openMinor: 0, zone: "Harbourside" },
    ]);
    world.onTheDayOf(visitId);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    expect(see(world, customers, firstPage<"customers">("name")).rows).toMatchObject([
      { nextVisit: null, lastVisit: tomorrow, openMinor: 7900 },
    ]);
    expect(see(world, customer, { id: 1, visits: 20, messages: 10 }).visits).toMatchObject({
      coming: [],
      past: [{ id: visitId, state: "done" }],
    });
    for (const text of ["okon", "5550142", "mira@"]) expect(see(world, find, { text }).customers).toHaveLength(1);
    expect(see(world, find, { text: "%" }).customers).toHaveLength(0);
  });

  it("come one page at a time, in the order and with the words that are asked for", () => {
    const world = smallWorld();
    for (const [i, name] of ["Mira Okonjo", "Anton Lund", "Zora Fink"].entries()) world.booked({ name, nth: 10 + i });
    const page = (more: object) => {
      const { rows, count } = see(world, customers, { ...firstPage<"customers">("name"), ...more });
      return [rows.map((r) => r.name), count];
    };
    expect(page({ size: 2 })).toEqual([["Anton Lund", "Mira Okonjo"], 3]);
    expect(page({ size: 2, page: 1 })).toEqual([["Zora Fink"], 3]);
    expect(page({ size: 1, descending: true })).toEqual([["Zora Fink"], 3]);
    expect(page({ search: "lund" })).toEqual([["Anton Lund"], 1]);
    expect(page({ search: "100%" })).toEqual([[], 0]);
  });

  it("who only asks is found too, with what waits", () => {
    const world = smallWorld();
    mustPerform(
      world.hogar,
      makeRequest,
      {
        addressId: world.addresses[20]!.id,
        items: [{ serviceId: world.services.sweep }],
        address: "",
        name: "Selma Vance",
        mail: "selma@example.com",
        phone: "+1 555 0178",
        wishes: "After five",
      },
      visitor,
    );
    for (const text of ["vance", world.addresses[20]!.line.slice(0, 9)])
      expect(see(world, find, { text })).toMatchObject({
        customers: [],
        waiting: [{ key: "request 1", name: "Selma Vance" }],
      });
    expect(see(world, find, { text: "%" }).waiting).toEqual([]);
  });

  it("come again in the order of their next date", () => {
    const world = smallWorld();
    const [first, second] = [world.booked(), world.booked({ name: "Anton Lund", nth: 20 })];
    mustPerform(world.hogar, makeRepeat, { visitId: first.visitId, rule: "FREQ=YEARLY" }, office);
    mustPerform(world.hogar, makeRepeat, { visitId: second.visitId, rule: "FREQ=WEEKLY;INTERVAL=4" }, office);
    world.at("2027-03-20", 600);
    expect(see(world, repeats, firstPage<"repeats">("next")).rows.map((r) => [r.customer, r.words, r.next])).toEqual([
      ["Anton Lund", "every 4 weeks on Wednesday", "2027-04-07"],
      ["Mira Okonjo", "every year on 10 March", "2028-03-10"],
    ]);
  });
});
