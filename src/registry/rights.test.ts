import { type Access, type Actor, allPermissions, may, personActor, type Role, roles } from "@/core/people/permissions";
import { localOf } from "@/core/time/local";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { office, smallWorld, visitor } from "@demo/small-world";
import { operationNamed, operations } from "./operations";
import { viewNamed, views } from "./views";

/** Everything that can be asked from outside, with what it declares. */
interface Asked {
  name: string;
  access: Access;
  about: Record<string, string> | undefined;
  input: Schema;
  ask: (world: World, input: unknown, actor: Actor) => { ok: boolean; problem?: { code: string } };
}
type World = ReturnType<typeof smallWorld>;
interface Schema {
  type?: string;
  minimum?: number;
  maximum?: number;
  anyOf?: Schema[];
  items?: Schema;
  properties?: Record<string, Schema>;
}
const asked: Asked[] = [
  ...Object.keys(operations).map((name): Asked => {
    const { access, about, input: schema } = operationNamed(name)!;
    const input = schema as Schema;
    return {
      name,
      access,
      about,
      input,
      ask: ({ hogar }, given, actor) => perform(hogar, operationNamed(name)!, given, actor),
    };
  }),
  ...Object.keys(views).map((name): Asked => {
    const { access, about, input: schema } = viewNamed(name)!;
    const input = schema as Schema;
    return {
      name,
      access,
      about,
      input,
      ask: ({ hogar }, given, actor) => look(hogar, viewNamed(name)!, given, actor),
    };
  }),
];

const person = (role: Role, more: { given?: never[]; taken?: (typeof allPermissions)[number][] } = {}): Actor =>
  personActor({ id: 1, name: "Somebody", role, technicianId: 1, ...more });
const everybody: [string, Actor][] = [
  ["a visitor", visitor],
  ["a customer by a link", { kind: "link", linkId: 1, jobId: 1, customerId: 1 }],
  ...(Object.keys(roles) as Role[]).map((role): [string, Actor] => [`a ${role}`, person(role)]),
  ...allPermissions.map((p): [string, Actor] => [`an owner without “${p}”`, person("owner", { taken: [p] })]),
  [
    "somebody who must still set up a second factor",
    { ...(person("owner") as Extract<Actor, { kind: "person" }>), mustEnrol: true, permissions: [] },
  ],
];
const refusals = new Set(["not-signed-in", "not-allowed", "as-person"]);

it.each(everybody)("%s asks everything as it is declared, and nothing else", (_, actor) => {
  const world = smallWorld();
  jest.spyOn(console, "error").mockImplementation(() => {});
  const wrong = asked.filter(({ access, ask }) => {
    // Nothing in it: whoever may is told what is missing, whoever may not is told that.
    const result = ask(world, { nothing: "of this kind" }, actor);
    return (result.ok ? false : refusals.has(result.problem!.code)) === may(actor, access);
  });
  expect(wrong.map(({ name }) => name)).toEqual([]);
});

/** Where ids of something stand in an input: whole numbers from 1 on, without an end. */
function idsIn(schema: Schema | undefined, at = ""): string[] {
  if (!schema) return [];
  const own = schema.type === "integer" && schema.minimum === 1 && schema.maximum === undefined ? [at] : [];
  const below = [
    ...(schema.anyOf ?? []).map((s) => idsIn(s, at)),
    idsIn(schema.items, at),
    ...Object.entries(schema.properties ?? {}).map(([name, s]) => idsIn(s, at ? `${at}.${name}` : name)),
  ].flat();
  return [...new Set([...own, ...below])];
}

/** Set-up and people are nobody's own; and what is “of all” is asked by those alone who see everybody's things. */
const isOfEverybody = (access: Access): boolean =>
  access === "setup.change" || access === "people.change" || access.endsWith(" of all");

it("whatever takes an id says whose thing it is", () => {
  const silent = asked
    .filter(({ access }) => !isOfEverybody(access))
    .flatMap(({ name, input, about = {} }) =>
      idsIn(input)
        .filter((path) => !(path in about))
        .map((path) => `${name}: ${path}`),
    );
  expect(silent).toEqual([]);
});

it("an operation that takes an id and says nothing would be found", () => {
  expect(
    idsIn({
      properties: {
        visitId: { type: "integer", minimum: 1 },
        list: { items: { properties: { id: { type: "integer", minimum: 1 } } } },
      },
    }),
  ).toEqual(["visitId", "list.id"]);
});

describe("somebody who sees only their own visits", () => {
  const world = smallWorld();
  const mine = world.booked({ nth: 10 });
  const theirs = world.booked({ nth: 12, name: "Anton Lund" });
  const { store } = world.hogar;
  const placed = (visitId: number) =>
    store.sql<{ id: number }>("SELECT technician_id AS id FROM placements WHERE visit_id = ?").get(visitId)!.id;
  const own = (more: (typeof allPermissions)[number][] = ["visits.all"]): Actor =>
    personActor({ id: 1, name: "Bram Okafor", role: "owner", technicianId: placed(mine.visitId), taken: more });
  const other = theirs.visitId;
  const of = (sql: string) => store.sql<{ id: number }>(sql).get()?.id ?? 9999;
  const otherTechnician = of(`SELECT id FROM technicians WHERE id <> ${placed(mine.visitId)}`);
  const [window] = world.offers(world.services.sweep, 12);
  const minute = (epoch: number) => localOf(epoch, "Europe/Lisbon").minute;
  mustPerform(
    world.hogar,
    moveVisit,
    {
      visitId: other,
      technicianIds: [otherTechnician],
      date: window!.date,
      fromMinute: minute(window!.from),
      toMinute: minute(window!.to),
    },
    office,
  );
  const ids: Record<string, number> = {
    visit: other,
    job: theirs.jobId,
    customer: of(`SELECT customer_id AS id FROM jobs WHERE id = ${theirs.jobId}`),
    technician: otherTechnician,
    repeat: 9999,
    invoice: 9999,
    payment: 9999,
    card: 9999,
    site: of(`SELECT site_id AS id FROM jobs WHERE id = ${theirs.jobId}`),
    errand: 9999,
    "time off": 9999,
  };
  /** An input that is whole, with ids of others in it. */
  const words = { occasion: "booked", channel: "text", language: "en", subject: "", body: "{{business}}" };
  const wholeInputs: Record<string, object> = {
    "customer-points": { customerId: ids.customer },
    "give-points": { customerId: ids.customer, points: 10, words: "Sorry" },
    "match-thread": { threadId: 9999, customerId: ids.customer },
    "open-thread": { customerId: ids.customer },
    "preview-message": { ...words, visitId: other },
    "settle-unkept": { visitId: other, how: "tray" },
    "read-thread": { threadId: 9999 },
    "save-language": { customerId: ids.customer, language: null, timeZone: null },
    "save-stop": { customerId: ids.customer, channel: "text", stopped: true },
    "save-withheld": { customerId: ids.customer, purpose: "offers", channel: "text", wanted: true },
    "send-test": { ...words, visitId: other, to: "+1 555 0142" },
    "settle-thread": { threadId: 9999, done: true },
    "send-now": { threadId: 9999, messageId: 1 },
    "take-as-yes": { threadId: 9999, replyId: 1 },
    "snooze-thread": { threadId: 9999, until: null },
    "tell-late": { visitId: other, minutes: 20 },
    "take-thread": { threadId: 9999, personId: null },
    thread: { threadId: 9999 },
    "visit-notes": { visitId: other },
    "write-by-hand": { threadId: 9999, channel: "text", subject: "", body: "Hello", photos: [], key: "12345678" },
    "write-note": { threadId: null, visitId: other, words: "Hello" },
    "split-invoice": { invoiceId: 9999, parts: [] },
    "match-bank-line": { lineId: 1, match: { kind: "invoices", customerId: ids.customer, invoices: [] } },
    "advance-visit": { visitId: other, to: "on the way" },
    "cancel-visit": { visitId: other, refundDeposit: true },
    "move-visit": {
      visitId: other,
      date: "2027-03-12",
      fromMinute: 600,
      toMinute: 720,
      technicianIds: [otherTechnician],
    },
    "visit-sheet": { visitId: other },
    "placement-options": { visitId: other, date: "2027-03-12" },
    "make-repeat": { visitId: other, rule: "FREQ=YEARLY" },
    "end-repeat": { repeatId: ids.repeat },
    "look-for-room": { repeatId: ids.repeat },
    "resume-repeat": { repeatId: ids.repeat },
    "change-repeat": {
      repeatId: ids.repeat,
      from: "2027-04-01",
      rule: "FREQ=WEEKLY",
      fromMinute: 540,
      toMinute: 660,
      technicianId: null,
      onClosed: "later",
    },
    "undo-repeat-change": { repeatId: ids.repeat },
    "set-repeat-work": { repeatId: ids.repeat, patternId: null, firstPatternId: null, nth: null },
    "set-repeat-ways": {
      repeatId: ids.repeat,
      comes: "ask",
      leewayDays: null,
      counted: "calendar",
      promiseDays: null,
      asks: "office",
    },
    "set-repeat-price": { repeatId: ids.repeat, per: "catalogue", minor: 0, visits: 1, review: null },
    "review-repeat-price": {
      repeatId: ids.repeat,
      review: { date: "2027-05-01", byBp: 300, noticeDays: 30 },
      batchId: 1,
    },
    "promise-date": { repeatId: ids.repeat, date: "2027-04-01" },
    "ask-now": { repeatId: ids.repeat, date: "2027-04-01" },
    "again-offers": { repeatId: ids.repeat, date: "2027-04-01" },
    "book-again": { repeatId: ids.repeat, date: "2027-04-01", window: { date: "2027-04-01", from: 1, to: 2 } },
    "leave-out-asked": { repeatId: ids.repeat, date: "2027-04-01" },
    "agree-repeat": {
      customerId: ids.customer,
      siteId: ids.site,
      items: [{ serviceId: 1 }],
      rule: "FREQ=WEEKLY",
      from: "2027-04-01",
      fromMinute: 540,
      toMinute: 660,
      technicianId: null,
      onClosed: "nearest",
      comes: "set",
      leewayDays: null,
      counted: "calendar",
    },
    "repeat-change-ahead": {
      move: {
        visitId: ids.visit,
        technicianIds: [1],
        date: "2027-04-01",
        fromMinute: 540,
        toMinute: 660,
        which: "this",
      },
    },
    "repeat-places": { siteId: ids.site, items: [{ serviceId: 1 }], rule: "FREQ=WEEKLY", from: "2027-04-01" },
    "repeats-proposal": {
      ids: [ids.repeat],
      change: { weekday: null, until: null, technician: null },
      from: "2027-04-01",
    },
    "repeat-beginning": { customerId: ids.customer },
    "repeat-calendar": { repeatId: ids.repeat },
    "set-again": { visitId: other, months: 12 },
    "move-repeat-visit": {
      visitId: other,
      date: "2027-03-12",
      fromMinute: 600,
      toMinute: 720,
      technicianIds: [otherTechnician],
      which: "this",
    },
    "agree-repeat-date": { repeatId: ids.repeat, date: "2027-04-01", skip: true },
    "pause-repeat": { repeatId: ids.repeat, first: "2027-04-01", last: "2027-04-02" },
    "end-pause": { repeatId: ids.repeat, pauseId: 1 },
    repeat: { repeatId: ids.repeat },
    "renew-link": { jobId: ids.job },
    "copy-link": { jobId: ids.job },
    "customers-page": { jobId: ids.job },
    customer: { id: ids.customer, visits: 1, messages: 1 },
    "customer-cards": { page: 0, size: 1, sort: "name", descending: false, search: "", id: ids.customer },
    "save-customer": {
      id: ids.customer,
      name: "Anton Lund",
      mail: "",
      phone: "",
      reachedBy: "any",
      tags: [],
      source: "",
      paymentDays: null,
      technicianNote: "",
      insideNote: "",
      bill: null,
      reminders: false,
      offers: false,
    },
    "archive-customer": { customerId: ids.customer, archived: true },
    "save-site": { id: null, customerId: ids.customer, addressId: null, name: "", access: "", parking: "" },
    "archive-site": { siteId: ids.site, archived: true },
    "forget-card": { cardId: ids.card },
    "record-time-off": {
      technicianId: otherTechnician,
      firstDate: "2027-03-12",
      lastDate: "2027-03-12",
      reason: "Ill",
    },
    "record-errand": {
      technicianId: otherTechnician,
      date: "2027-03-12",
      fromMinute: 600,
      toMinute: 660,
      title: "Van",
      addressId: null,
    },
    "set-day-hours": { technicianId: otherTechnician, date: "2027-03-12", spans: null },
    "remove-time-off": { id: ids["time off"] },
    "remove-errand": { id: ids.errand },
    invoice: { id: ids.invoice },
    "record-payment": {
      customerId: ids.customer,
      invoices: [{ invoiceId: ids.invoice, amountMinor: 1 }],
      method: "cash",
      amountMinor: 1,
      key: "some form's key",
    },
    "credit-invoice": { invoiceId: ids.invoice, lines: null, reason: "A mistake" },
    "answer-objection": { invoiceId: ids.invoice, reason: "Explained on the phone" },
    "charge-invoices": { customerId: ids.customer, invoiceIds: [ids.invoice], cardId: null, cardToken: "tok_x" },
    "undo-write-off": { invoiceId: ids.invoice, reason: "Found again" },
    "write-off": { invoiceId: ids.invoice, reason: "Nobody there" },
    "use-credit": { invoiceId: ids.invoice },
    "decide-charge": { paymentId: ids.payment, charged: true },
    "refund-payment": { paymentId: ids.payment, amountMinor: 1, method: "as paid", reason: "A mistake" },
    "take-back-payment": { paymentId: ids.payment, reason: "A mistake" },
    "customer-account": { customerId: ids.customer },
    "invoice-again": { jobId: ids.job },
    "make-invoice": {
      customerId: ids.customer,
      lines: [{ description: "Rope", quantity: 1, unitMinor: 100, taxBp: 0, discountBp: 0 }],
      discountBp: 0,
      before: "",
      after: "",
      dueDate: null,
      key: "some form's key",
    },
    "bill-customer": { customerId: ids.customer, until: "2027-03-12" },
    "copy-invoice-link": { invoiceId: ids.invoice },
    "take-payment": { visitId: other, method: "cash", amountMinor: 1, note: "", key: "some form's key" },
    "hand-over-cash": { technicianId: otherTechnician, paymentIds: [ids.payment], countedMinor: 1 },
    "take-card": { visitId: other, amountMinor: 1, cardToken: "a card" },
    "ask-reader": { visitId: other, amountMinor: 1, key: "some form's key" },
    "end-reader": { visitId: other },
    "pay-out-tips": { technicianId: otherTechnician, method: "cash", amountMinor: 1 },
    "set-collection": { invoiceId: ids.invoice, never: true, date: null },
    "set-customer-collection": { customerId: ids.customer, never: true },
    "record-promise": { invoiceId: ids.invoice, day: "2027-03-20" },
    "record-call": { invoiceId: ids.invoice, words: "They pay soon", day: null },
    "waive-late-fee": { invoiceId: ids.invoice, reason: "Why not" },
    "invoice-paper": { invoiceId: ids.invoice },
    "credit-note-paper": { invoiceId: ids.invoice, noteId: 1 },
    "receipt-paper": { paymentId: ids.payment },
    "statement-paper": { customerId: ids.customer, from: "2027-01-01", to: "2027-12-31" },
    "who-did-what": {
      page: 0,
      size: 1,
      sort: "at",
      descending: true,
      search: "",
      by: "anybody",
      personId: null,
      customerId: ids.customer,
      visitId: null,
      operation: null,
      from: null,
      to: null,
    },
  };
  const withSubjects = asked.filter(
    ({ access, about }) => !isOfEverybody(access) && Object.values(about ?? {}).some((subject) => subject !== "shared"),
  );

  it.each(withSubjects.filter((a) => a.name !== "book-in-office").map((a) => [a.name, a] as const))(
    "is refused others' things by %s",
    (name, { ask }) => {
      const input = wholeInputs[name];
      expect(input).toBeDefined();
      expect(ask(world, input, own())).toMatchObject({
        ok: false,
        problem: { code: expect.stringMatching(/^(not-your-visit|not-found)$/) },
      });
    },
  );

  it("is let to their own", () => {
    expect(look(world.hogar, viewNamed("visit-sheet")!, { visitId: mine.visitId }, own())).toMatchObject({ ok: true });
    expect(look(world.hogar, viewNamed("visit-sheet")!, { visitId: other }, office)).toMatchObject({ ok: true });
  });

  it("learns nothing of everybody's work: no turnover, no windows of others", () => {
    expect(look(world.hogar, viewNamed("today")!, {}, own())).toMatchObject({ value: { booked: null, needs: [] } });
    expect(look(world.hogar, viewNamed("why-not")!, {}, own())).toMatchObject({ problem: { code: "not-allowed" } });
  });
});

describe("money", () => {
  it("is told to nobody who may not see it", () => {
    const world = smallWorld();
    world.booked();
    const dispatcher = person("dispatcher");
    expect(look(world.hogar, viewNamed("today")!, {}, dispatcher)).toMatchObject({
      value: { booked: { n: 1, minor: null } },
    });
    expect(look(world.hogar, viewNamed("customer")!, { id: 1, visits: 1, messages: 1 }, dispatcher)).toMatchObject({
      value: { invoices: null },
    });
  });
});

describe("a customer by a link", () => {
  it("opens nothing of another's, whoever asks, and nothing once it has ended", () => {
    const world = smallWorld();
    const mine = world.booked();
    world.booked({ nth: 12, name: "Anton Lund" });
    const page = look(world.hogar, viewNamed("my-visit")!, {}, mine.actor);
    expect(JSON.stringify(page)).not.toContain("Anton");
    for (const { name, access, ask } of asked)
      if (access !== "link" && access !== "anybody")
        expect([name, ask(world, {}, mine.actor).problem?.code]).toEqual([name, "not-allowed"]);
  });
});
