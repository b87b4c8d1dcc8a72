import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { disagreements } from "@/core/money/balance";
import { readBooks } from "@/modules/money/books";
import { addCard, chargeFirst, removeCard } from "@/modules/money/operations/cards";
import { payInvoice } from "@/modules/money/operations/pay-by-card";
import { splitByLink, splitInvoice } from "@/modules/money/operations/parts";
import { payOutNow } from "@/modules/money/operations/payouts";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { creditInvoiceByHand, refundPayment } from "@/modules/money/operations/corrections";
import { paperOfInvoice } from "@/modules/money/papers";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { payouts } from "@/modules/money/views/payouts";
import { myInvoice } from "@/modules/money/views/papers";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { myVisit } from "@/modules/my-visit/views/my-visit";
import { firstBroken } from "@/registry/laws";
import { ownViews } from "@/registry/modules";
import { firstPage } from "@/ui/first-page";
import { runDue } from "@/worker/loop";
import { collectionRules, declined, good, lost, owing } from "@demo/owing";
import { businessInput, office, one, saidOf } from "@demo/small-world";
import {
  answerObjection,
  beginRun,
  objectToCharge,
  promiseDay,
  recordCall,
  saveCollection,
  setCollection,
} from "./operations/choices";
import { collection } from "./views/collection";

const visitor = { kind: "visitor" } as const;
type World = ReturnType<typeof owing>;

const holds = ({ hogar }: World) => [firstBroken(hogar.store.sql), disagreements(readBooks(hogar.store.sql))];
const inParts = (w: World, parts: [string, number][]) =>
  perform(
    w.hogar,
    splitInvoice,
    { invoiceId: 1, parts: parts.map(([due, amountMinor]) => ({ due, amountMinor })) },
    office,
  );
const needs = ({ hogar }: World) => {
  const view = look(hogar, ownViews.today, {}, office);
  return view.ok ? view.value.needs.map(({ kind }) => kind) : [];
};

describe("an invoice in parts", () => {
  const twoParts: [string, number][] = [
    ["2027-03-24", 3_000],
    ["2027-04-14", 4_900],
  ];

  it("is told of and charged part by part, each on its own day", async () => {
    const w = owing();
    expect(inParts(w, twoParts).ok).toBe(true);
    expect(look(w.hogar, collection, {}, office)).toMatchObject({
      value: {
        runs: [{ date: "2027-03-24", sumMinor: 3_000, invoices: [{ label: expect.stringContaining("part 1 of 2") }] }],
      },
    });
    await w.until("2027-04-12");
    expect([w.charged(), w.open(), w.said("charge tomorrow")]).toEqual([[3_000], 4_900, 1]);
    await w.until("2027-04-15");
    expect([w.charged().toSorted(), w.open(), ...holds(w)]).toEqual([[3_000, 4_900], 0, null, []]);
  });

  it("asks for what is left of each part after a credit, on its paper too", () => {
    const w = owing([]);
    inParts(w, twoParts);
    const line = { position: 0, amountMinor: 4_000 };
    mustPerform(w.hogar, creditInvoiceByHand, { invoiceId: 1, lines: [line], reason: "Half of it" }, office);
    expect(paperOfInvoice(viewContext(w.hogar, office), 1).parts).toEqual([{ due: "2027-04-14", amountMinor: 3_900 }]);
  });

  it("is due by its next part that is open, and is reminded of each", async () => {
    const w = owing([]);
    inParts(w, twoParts);
    const due = () => one<{ due: string }>(w.hogar, "SELECT due_date AS due FROM invoices").due;
    await w.until("2027-03-28");
    expect([due(), w.said("invoice reminder")]).toEqual(["2027-03-24", 1]);
    mustPerform(
      w.hogar,
      payInvoice,
      { token: w.token, cardToken: w.hogar.standins!.cards.tokenFor(good)!, all: false },
      visitor,
    );
    await runDue(w.hogar);
    expect([w.charged(), due()]).toEqual([[3_000], "2027-04-14"]);
    await w.until("2027-04-18");
    expect(w.said("invoice reminder")).toBe(2);
  });

  it("is refused where the parts do not come to what is open, and is a whole again when one says so", () => {
    const w = owing();
    expect(
      saidOf(
        inParts(w, [
          ["2027-03-24", 3_000],
          ["2027-04-14", 4_000],
        ]),
      ),
    ).toContain("€79.00 is open");
    inParts(w, twoParts);
    expect(inParts(w, []).ok).toBe(true);
    expect(one(w.hogar, "SELECT count(*) AS n FROM invoice_parts")).toEqual({ n: 0 });
  });

  it("is chosen by the customer as the owner offers it, and no further", () => {
    const w = owing();
    const split = (parts: number) => perform(w.hogar, splitByLink, { token: w.token, parts }, visitor);
    expect(split(2).ok).toBe(false);
    const billing = {
      invoicePrefix: "",
      creditPrefix: "C",
      bankAccount: "",
      exemptWords: "",
      paymentFrom: "invoice",
      by: "job",
      partsMost: 3,
      partsFromMinor: 5_000,
    } as const;
    mustPerform(w.hogar, saveBusiness, { ...businessInput, billing }, office);
    expect(look(w.hogar, myInvoice, { token: w.token }, visitor)).toMatchObject({ value: { partsOffered: 3 } });
    expect(split(4).ok).toBe(false);
    expect(split(3).ok).toBe(true);
    expect(look(w.hogar, myInvoice, { token: w.token }, visitor)).toMatchObject({
      value: {
        partsOffered: 1,
        dueMinor: 2_634,
        parts: [{ due: "2027-03-24" }, { due: "2027-04-24" }, { due: "2027-05-24" }],
      },
    });
    expect(split(2).ok).toBe(false);
  });
});

describe("a run", () => {
  it("is begun before its time with those who were told, and with nobody else", async () => {
    const w = owing([good], { at: 18 * 60 });
    const begin = () => perform(w.hogar, beginRun, {}, office);
    w.at("2027-03-23", 18 * 60 + 1);
    await runDue(w.hogar);
    expect(saidOf(begin())).toContain("Nobody was told");
    w.at("2027-03-24", 600);
    await runDue(w.hogar);
    expect([w.charged(), look(w.hogar, collection, {}, office)]).toMatchObject([
      [],
      { value: { todaysRun: { n: 1, sumMinor: 7_900 } } },
    ]);
    expect(begin().ok).toBe(true);
    for (let turn = 0; turn < 3; turn++) await runDue(w.hogar);
    expect([w.charged(), w.open()]).toEqual([[7_900], 0]);
    await w.until("2027-03-25");
    expect(w.charged()).toEqual([7_900]);
  });

  it("leaves out what was put off to another day after its customer was told", async () => {
    const w = owing();
    await w.until("2027-03-23");
    mustPerform(w.hogar, setCollection, { invoiceId: 1, never: false, date: "2027-03-31" }, office);
    await w.until("2027-03-25");
    expect([w.charged(), w.report("2027-03-24")]).toMatchObject([
      [],
      [{ leftOut: "it has changed since they were told" }],
    ]);
    await w.until("2027-04-01");
    expect(w.charged()).toEqual([7_900]);
  });

  it("takes no more than the card service does, and says so", async () => {
    const w = owing();
    const limits = { mostMinor: 7_000, dayMinor: null };
    mustPerform(w.hogar, saveCollection, { ...collectionRules, ...limits }, office);
    await w.until("2027-03-26");
    expect([w.charged(), w.said("charge tomorrow")]).toEqual([[], 0]);
    expect(look(w.hogar, collection, {}, office)).toMatchObject({
      value: { left: [{ why: expect.stringContaining("card service") }] },
    });
    const card = w.hogar.standins!.cards.tokenFor(good)!;
    expect(saidOf(perform(w.hogar, payInvoice, { token: w.token, cardToken: card }, visitor))).toContain(
      "€70.00 at most",
    );
    mustPerform(w.hogar, saveCollection, { ...collectionRules, mostMinor: null, dayMinor: 7_900 }, office);
    await w.until("2027-03-30");
    expect(w.charged()).toEqual([7_900]);
  });
});

it("charges the card that the office has chosen for an invoice first", async () => {
  const w = owing([good, good]);
  const choose = (cardId: number) =>
    perform(w.hogar, setCollection, { invoiceId: 1, never: false, date: null, cardId }, office);
  expect(choose(9_999).ok).toBe(false);
  expect(choose(2).ok).toBe(true);
  await w.until("2027-03-25");
  expect(w.report("2027-03-24")).toMatchObject([{ state: "received", card: "card 2" }]);
});

it("expects what visits to come will bring, on the day that follows theirs when they move", () => {
  const w = owing();
  const { jobId, visitId, actor } = w.booked({ nth: 14 });
  w.changed(() => w.hogar.store.sql("UPDATE cards SET job_id = ?, customer_id = ?").run(jobId, actor.customerId));
  const expected = () => {
    const view = look(w.hogar, collection, {}, office);
    return view.ok ? view.value.expected.map(({ date, sumMinor }) => [date, sumMinor]) : [];
  };
  const before = expected();
  expect(before).toEqual([[expect.any(String), 7_900]]);
  mustPerform(
    w.hogar,
    moveVisit,
    { visitId, date: "2027-03-17", fromMinute: 540, toMinute: 660, technicianIds: [w.technicians[0]!] },
    office,
  );
  // A fortnight after the visit, on the next workday.
  expect(expected()).toEqual([["2027-03-31", 7_900]]);
  expect(expected()).not.toEqual(before);
});

it("leaves new customers alone where the owner wants to say so for each", () => {
  const w = owing();
  mustPerform(w.hogar, saveCollection, { ...collectionRules, newCustomers: false }, office);
  const { actor } = w.booked({ name: "Ada Ash", nth: 15 });
  expect(one(w.hogar, "SELECT collect_never AS never FROM customers WHERE id = ?", actor.customerId)).toEqual({
    never: 1,
  });
});

it.each([
  ["later", declined, "2027-03-27"],
  ["another", lost, null],
])("shows declined cards by what helps, as long as nothing has paid: %s", async (kind, number, again) => {
  const w = owing([number]);
  await w.until("2027-03-25");
  const shown = () => {
    const view = look(w.hogar, collection, {}, office);
    return view.ok ? view.value.declined : [];
  };
  expect(shown()).toMatchObject([{ invoiceId: 1, kind, again, card: "card 1" }]);
  mustPerform(w.hogar, payInvoice, { token: w.token, cardToken: w.hogar.standins!.cards.tokenFor(good)! }, visitor);
  await runDue(w.hogar);
  expect(shown()).toEqual([]);
});

describe("cards of one link", () => {
  const cardsOf = ({ hogar, actor }: World) => {
    const view = look(hogar, myVisit, {}, actor);
    return view.ok ? view.value.cards.map(({ id, label }) => ({ id, label })) : [];
  };

  it("are added behind the others, put first, taken away, and charged in their order", async () => {
    const w = owing([declined]);
    mustPerform(w.hogar, addCard, { cardToken: w.hogar.standins!.cards.tokenFor(good)! }, w.actor);
    await runDue(w.hogar);
    expect(cardsOf(w).map(({ label }) => label)).toEqual(["card 1", "card ending 1006"]);
    mustPerform(w.hogar, chargeFirst, { cardId: cardsOf(w)[1]!.id }, w.actor);
    expect(cardsOf(w).map(({ label }) => label)).toEqual(["card ending 1006", "card 1"]);
    await w.until("2027-03-25");
    expect(w.report("2027-03-24")).toMatchObject([{ state: "received", card: "card ending 1006" }]);
    mustPerform(w.hogar, removeCard, { cardId: cardsOf(w)[0]!.id }, w.actor);
    expect(cardsOf(w)).toHaveLength(1);
    expect(perform(w.hogar, removeCard, { cardId: 9_999 }, w.actor).ok).toBe(false);
  });

  it("hold no card twice, and none that somebody made up", async () => {
    const w = owing([]);
    for (const token of [
      w.hogar.standins!.cards.tokenFor(good)!,
      w.hogar.standins!.cards.tokenFor(good)!,
      "tok_madeup",
    ])
      mustPerform(w.hogar, addCard, { cardToken: token }, w.actor);
    await runDue(w.hogar);
    expect(cardsOf(w)).toHaveLength(1);
    expect(one(w.hogar, "SELECT count(*) AS n FROM outbox WHERE state = 'given up'")).toEqual({ n: 0 });
  });

  it("are not tried out by leaving one after the other, however often each is taken away", async () => {
    const w = owing([]);
    const left: boolean[] = [];
    for (let n = 0; n < 9; n++) {
      left.push(perform(w.hogar, addCard, { cardToken: w.hogar.standins!.cards.tokenFor(good)! }, w.actor).ok);
      await runDue(w.hogar);
      for (const { id } of cardsOf(w)) perform(w.hogar, removeCard, { cardId: id }, w.actor);
    }
    expect(left.filter(Boolean)).toHaveLength(6);
  });

  it("are asked for anew before the only one expires, once", async () => {
    const w = owing([good]);
    w.changed(() => w.hogar.store.sql("UPDATE cards SET expires = '2027-04'").run());
    await w.until("2027-03-25");
    await w.until("2027-04-05");
    expect(w.said("card expires")).toBe(1);
  });

  it("are asked for anew only where no other one is good for longer", async () => {
    const w = owing([good, good]);
    w.changed(() => w.hogar.store.sql("UPDATE cards SET expires = '2027-04' WHERE id = 1").run());
    await w.until("2027-04-05");
    expect(w.said("card expires")).toBe(0);
  });
});

it("is paid out at once for what that costs", async () => {
  const w = owing();
  await w.until("2027-03-24");
  const shown = () => {
    const view = look(w.hogar, payouts, firstPage<"payouts">("at", true), office);
    return view.ok ? { held: view.value.heldMinor, n: view.value.count } : null;
  };
  expect(shown()).toEqual({ held: 7_900, n: 0 });
  mustPerform(w.hogar, payOutNow, {}, office);
  await runDue(w.hogar);
  // 1.4% and 25 cents for the charge, 1% of the rest for paying it out at once.
  expect(one(w.hogar, "SELECT amount_minor, fee_minor FROM payouts")).toEqual({
    amount_minor: 7_764 - 78,
    fee_minor: 78,
  });
  expect([shown(), ...holds(w)]).toEqual([{ held: 0, n: 1 }, null, []]);
  expect(saidOf(perform(w.hogar, payOutNow, {}, office))).toContain("holds nothing");
});

describe("Today", () => {
  it("names a promise that was not kept, until somebody has phoned", async () => {
    const w = owing([]);
    mustPerform(w.hogar, promiseDay, { token: w.token, day: "2027-03-25" }, visitor);
    await w.until("2027-03-26");
    expect(needs(w)).toContain("broken promise");
    mustPerform(w.hogar, recordCall, { invoiceId: 1, words: "Pays tomorrow", day: null }, office);
    expect(needs(w)).not.toContain("broken promise");
  });

  it("names what no card has paid, until it is paid", async () => {
    const w = owing([lost]);
    await w.until("2027-03-25");
    expect(needs(w)).toContain("not collected");
    mustPerform(w.hogar, payInvoice, { token: w.token, cardToken: w.hogar.standins!.cards.tokenFor(good)! }, visitor);
    await runDue(w.hogar);
    expect(needs(w)).not.toContain("not collected");
  });
});

describe("a customer who objects to a charge", () => {
  it("stands on Today with their words, and is neither reminded nor charged until somebody has answered", async () => {
    const w = owing();
    await w.until("2027-03-23");
    const words = "The chimney was not swept.";
    mustPerform(w.hogar, objectToCharge, { token: w.token, words }, visitor);
    const shown = look(w.hogar, ownViews.today, {}, office);
    if (!shown.ok) throw new Error(shown.problem.sentence);
    expect(shown.value.needs).toMatchObject([{ kind: "objection", detail: expect.stringContaining(words) }]);
    await w.until("2027-04-20");
    expect([w.charged(), w.said("invoice reminder") + w.said("last reminder"), w.open()]).toEqual([[], 0, 7_900]);
    mustPerform(w.hogar, answerObjection, { invoiceId: 1, reason: "Swept again, agreed" }, office);
    expect(needs(w)).not.toContain("objection");
    await w.until("2027-04-25");
    expect([w.charged(), w.said("invoice reminder") + w.said("last reminder")]).toEqual([[], 1]);
  });
});

it("says that an invoice was paid twice, until what is over has gone back", async () => {
  const w = owing([]);
  mustPerform(
    w.hogar,
    payInvoice,
    { token: w.token, cardToken: w.hogar.standins!.cards.tokenFor(good)!, all: true },
    visitor,
  );
  // The office takes a transfer down while the card is being charged.
  mustPerform(
    w.hogar,
    recordPayment,
    { customerId: w.actor.customerId, method: "cash", amountMinor: 7_900, invoices: null, key: "in cash 1" },
    office,
  );
  await runDue(w.hogar);
  expect(needs(w)).toContain("paid twice");
  const { id } = one<{ id: number }>(w.hogar, "SELECT payment_id AS id FROM payment_balances WHERE left_minor > 0");
  mustPerform(
    w.hogar,
    refundPayment,
    { paymentId: id, amountMinor: 7_900, method: "as paid", reason: "Twice" },
    office,
  );
  expect([needs(w).includes("paid twice"), ...holds(w)]).toEqual([false, null, []]);
});
