import type { Actor } from "@/core/people/permissions";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveCoupon } from "@/modules/catalogue/operations/save-coupon";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { setup } from "@/modules/setup/views/setup";
import { office, one, smallWorld, visitor } from "@demo/small-world";
import fc from "fast-check";
import { operationNamed, operations } from "./operations";
import { viewNamed, views } from "./views";

const allOperations = Object.keys(operations).map((name) => operationNamed(name)!);
const allViews = Object.keys(views).map((name) => viewNamed(name)!);

/** What people and programs with bad intentions send. */
const hostile: unknown[] = [
  "<script>alert(1)</script>",
  "'; DROP TABLE jobs; --",
  "x".repeat(100_000),
  "",
  " ",
  "\u0000",
  "../../etc/passwd",
  "__proto__",
  "{{my_link}}",
  -1,
  0,
  1.5,
  1e308,
  Number.MAX_SAFE_INTEGER,
  true,
  null,
  [],
  {},
  [["a"]],
  { $ne: null },
  { length: 1e9 },
];

const world = smallWorld();
const data = look(world.hogar, setup, {}, office);
mustPerform(
  world.hogar,
  saveBookingRules,
  { ...(data.ok ? data.value.rules : ({} as never)), outside: "request" },
  office,
);
mustPerform(
  world.hogar,
  saveCoupon,
  {
    id: null,
    code: "SPRING10",
    kind: "percent",
    value: 1000,
    services: [],
    first: null,
    last: null,
    most: null,
    active: true,
  },
  office,
);
const mine = world.booked({ window: world.offers().find((o) => o.date === "2027-03-12")! });
const theirs = world.booked({ name: "Jonas Lund", nth: 30 });
const window = world.offers(world.services.sweep, 20)[0]!;
const customer = { name: "Ada Brome", mail: "ada@example.com", phone: "+1 555 0149", reminders: true };
const chosen = {
  addressId: world.addresses[20]!.id,
  items: [{ serviceId: world.services.sweep, quantity: 1, answers: { nest: true }, extras: [{ id: 1, quantity: 1 }] }],
  date: window.date,
  from: window.from,
  to: window.to,
};

/** What can be done without signing in, with input that would do. */
const doors: { name: keyof typeof operations; actor: Actor; input: Record<string, unknown> }[] = [
  { name: "hold-offer", actor: visitor, input: { ...chosen, instead: "key" } },
  {
    name: "book",
    actor: visitor,
    input: {
      ...chosen,
      hold: "key",
      note: "",
      customer,
      cardToken: "tok",
      coupon: "SPRING10",
      source: "van",
      technicianId: null,
      payAll: false,
      photos: ["token"],
      fields: { parking: "yard" },
      repeat: { every: 1, unit: "year" },
      atDoor: true,
      keepCard: true,
      read: {
        totalMinor: 7900,
        nowMinor: 0,
        moveHours: 2,
        cancelHours: 2,
        items: [{ name: "Sweep", totalMinor: 7900, noAccessMinor: 0, late: { hours: 24, kind: "none", value: 0 } }],
        words: "",
      },
    },
  },
  {
    name: "make-request",
    actor: visitor,
    input: {
      addressId: null,
      items: [{ serviceId: world.services.sweep, quantity: 1, answers: {}, extras: [] }],
      address: "Far away",
      name: "Ada",
      mail: "ada@example.com",
      phone: "+1 555 0149",
      wishes: "soon",
      photos: [],
      wish: { weekdays: 31, from: 0, to: 600, until: "2027-03-30" },
    },
  },
  { name: "take-wish", actor: visitor, input: { token: "1.x" } },
  { name: "withdraw-wish", actor: visitor, input: { token: "1.x" } },
  {
    name: "accept-quote",
    actor: visitor,
    input: {
      token: "1.x",
      totalMinor: 7900,
      window: { date: window.date, from: window.from, to: window.to },
      words: "",
    },
  },
  { name: "decline-quote", actor: visitor, input: { token: "1.x", words: "" } },
  {
    name: "send-quote",
    actor: office,
    input: {
      about: { kind: "request", id: 999 },
      items: chosen.items,
      lines: [{ description: "Flues", quantity: 1, unitMinor: 7900, taxBp: 2100 }],
      minutes: 60,
      crew: 1,
      depositMinor: 0,
      words: "",
      validUntil: "2027-04-01",
    },
  },
  {
    name: "save-front-door",
    actor: office,
    input: data.ok
      ? {
          ...data.value.frontDoor,
          answers: [{ question: "Q", answer: "A" }],
          fields: [{ id: "a", words: "A", required: false, kind: "text", most: 9 }],
          sites: ["https://a.example"],
          tells: [{ way: "mail", to: "a@example.com" }],
        }
      : {},
  },
  { name: "move-by-link", actor: mine.actor, input: { date: window.date, from: window.from, to: window.to } },
  { name: "cancel-by-link", actor: mine.actor, input: { feeMinor: 999_999 } },
  { name: "add-by-link", actor: mine.actor, input: { words: "x", photos: [] } },
  { name: "pay-by-card", actor: mine.actor, input: { purpose: "invoice", cardToken: "tok", keepCard: true } },
  { name: "repeat-by-link", actor: mine.actor, input: { goesOn: false } },
  {
    name: "answer-by-link",
    actor: mine.actor,
    input: { position: 0, answers: { pets: true, seen: "a nest", photo: ["token"] } },
  },
  { name: "consent-by-link", actor: mine.actor, input: { kind: "offers", given: true } },
];

/** What can be asked without signing in, in the same way. */
const order = { addressId: chosen.addressId, items: chosen.items };
const questions: { name: keyof typeof views; input: Record<string, unknown> }[] = [
  { name: "find-address", input: { text: "4 alder" } },
  { name: "type-address", input: { line: "4 Alder Road", postcode: "MW 101" } },
  { name: "services-at", input: { addressId: order.addressId, slug: "chimney-sweep" } },
  { name: "offers", input: { ...order, technicianId: null, from: "2027-03-10" } },
  { name: "check-booker", input: { customer: { ...customer, offers: false }, fields: { parking: "yard" } } },
  { name: "check-coupon", input: { code: "SPRING10", serviceIds: [world.services.sweep] } },
  { name: "quote", input: { token: "1.x" } },
  { name: "quote-offers", input: { token: "1.x" } },
  { name: "wish", input: { token: "1.x" } },
];

/** The input with one place in it, at any depth, replaced. */
function* replaced(value: unknown, by: unknown): Generator<unknown> {
  if (typeof value !== "object" || value === null) return;
  for (const [key, inner] of Object.entries(value)) {
    yield { ...value, [key]: by };
    for (const deeper of replaced(inner, by)) yield { ...value, [key]: deeper };
  }
  yield { ...value, surprise: by };
}

const tables = () => one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM sqlite_master WHERE type = 'table'").n;

describe("hostile input", () => {
  it("is sent where good input would do: none of the doors refuses it for its shape", () => {
    for (const { name, actor, input } of doors) {
      const result = perform(world.hogar, operationNamed(name)!, input, actor);
      if (!result.ok)
        expect(JSON.stringify([name, result.problem.fields])).not.toMatch(/is not known here|expected form/);
    }
  });

  it.each(doors)(
    "to $name is refused with a sentence or does what it says, in every field",
    ({ name, actor, input }) => {
      const before = tables();
      for (const value of hostile)
        for (const sent of replaced(input, value)) {
          const result = perform(world.hogar, operationNamed(name)!, sent, actor);
          if (!result.ok)
            expect([result.problem.code, result.problem.sentence, JSON.stringify(sent).slice(0, 200)]).not.toContain(
              "unexpected",
            );
        }
      expect(tables()).toBe(before);
    },
  );

  it.each(questions)(
    "in what is asked of $name is refused with a sentence or answered, in every field",
    ({ name, input }) => {
      const would = look(world.hogar, viewNamed(name)!, input, visitor);
      if (!would.ok)
        expect(JSON.stringify([name, would.problem.fields])).not.toMatch(/is not known here|expected form/);
      for (const value of hostile)
        for (const sent of replaced(input, value)) {
          const result = look(world.hogar, viewNamed(name)!, sent, visitor);
          if (!result.ok)
            expect([result.problem.code, result.problem.sentence, JSON.stringify(sent).slice(0, 200)]).not.toContain(
              "unexpected",
            );
        }
    },
  );

  it("of any shape is refused by every operation and every view, whoever sends it", () => {
    const actors: Actor[] = [visitor, mine.actor, office];
    fc.assert(
      fc.property(fc.anything(), fc.constantFrom(...actors), (sent, actor) => {
        for (const operation of allOperations) {
          if (operation.name === "move-clock") continue;
          const result = perform(world.hogar, operation, { odd: sent }, actor);
          expect(result.ok ? "done" : result.problem.code).not.toBe("unexpected");
        }
        for (const view of allViews) {
          const result = look(world.hogar, view, { odd: sent }, actor);
          expect(result.ok ? "read" : result.problem.code).not.toBe("unexpected");
        }
      }),
      { numRuns: 15 },
    );
  });

  it("never opens what belongs to others: a link reads and changes its own job only", () => {
    for (const view of allViews) {
      if (view.access !== "link") continue;
      const read = look(world.hogar, view, {}, mine.actor);
      expect(JSON.stringify(read)).not.toContain("Jonas Lund");
    }
    expect(one(world.hogar, "SELECT state FROM visits WHERE id = ?", theirs.visitId)).toEqual({ state: "promised" });
    const closed = allOperations.filter((o) => !["anybody", "link"].includes(o.access));
    for (const actor of [visitor, mine.actor])
      for (const operation of closed)
        expect(perform(world.hogar, operation, {}, actor)).toMatchObject({
          ok: false,
          problem: { code: expect.stringMatching(/^not-(signed-in|allowed)$/) },
        });
  });
});
