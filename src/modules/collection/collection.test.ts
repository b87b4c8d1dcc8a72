import { disagreements } from "@/core/money/balance";
import { addDays } from "@/core/time/dates";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { eraseCustomer } from "@/modules/customers/operations/archive-customer";
import { readBooks } from "@/modules/money/books";
import { makeInvoice } from "@/modules/money/operations/billing";
import { myAccount } from "@/modules/money/views/papers";
import { payInvoice } from "@/modules/money/operations/pay-by-card";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { recordCharge } from "@/modules/money/operations/record-outcomes";
import { creditInvoiceByHand, refundPayment } from "@/modules/money/operations/corrections";
import { splitInvoice } from "@/modules/money/operations/parts";
import { recordDispute } from "@/modules/money/operations/disputes";
import { payoutIsThere, recordPayout } from "@/modules/money/operations/payouts";
import { firstBroken } from "@/registry/laws";
import { runDue } from "@/worker/loop";
import { drainOutbox } from "@/worker/outbox";
import { asks, collectionRules as rules, declined, good, lost, owing } from "@demo/owing";
import { office, one, saidOf, system, worldWithPost } from "@demo/small-world";
import fc from "fast-check";
import {
  agreeCollection,
  objectToCharge,
  promiseDay,
  recordCall,
  saveCollection,
  setCollection,
  setCustomerCollection,
  takeDownPromise,
} from "./operations/choices";
import { collectDue, followCharge } from "./operations/runs";
import { collection } from "./views/collection";

it("tells the day before, and charges the card on the day, once", async () => {
  const w = owing();
  expect(w.due).toBe("2027-03-24");
  await w.until("2027-03-22");
  expect([w.said("charge tomorrow"), w.open()]).toEqual([0, 7_900]);
  await w.until("2027-03-23");
  expect([w.said("charge tomorrow"), w.open()]).toEqual([1, 7_900]);
  await w.until("2027-03-26");
  expect([w.said("charge tomorrow"), w.open(), w.charged()]).toEqual([1, 0, [7_900]]);
  expect(w.report("2027-03-24")).toMatchObject([{ state: "received", card: "card 1", minor: 7_900 }]);
  expect(w.said("receipt")).toBe(1);
});

it("charges whoever was told by a text that has been delivered since, and has no email", async () => {
  const w = owing();
  w.changed(() => {
    w.hogar.store.sql("UPDATE customers SET mail = ''").run();
    w.hogar.store.sql("UPDATE jobs SET mail = ''").run();
  });
  await w.until("2027-03-26");
  expect(w.hogar.store.sql("SELECT channel, state FROM messages WHERE kind = 'charge tomorrow'").all()).toEqual([
    { channel: "text", state: "delivered" },
  ]);
  expect([w.open(), w.charged()]).toEqual([0, [7_900]]);
});

it("says before each run what it will take, and what is left out and why", async () => {
  const w = owing();
  await w.until("2027-03-22");
  expect(look(w.hogar, collection, {}, office)).toMatchObject({
    value: { runs: [{ date: "2027-03-24", n: 1, sumMinor: 7_900 }], leftCount: 0 },
  });
  mustPerform(w.hogar, setCustomerCollection, { customerId: w.actor.customerId, never: true }, office);
  expect(look(w.hogar, collection, {}, office)).toMatchObject({
    value: { runs: [], left: [{ invoiceId: 1, why: "not collected by itself" }] },
  });
});

const visitor = { kind: "visitor" } as const;

describe("nothing is charged", () => {
  const acts: [string, (w: ReturnType<typeof owing>) => void, RegExp][] = [
    [
      "that its customer objects to",
      (w) => mustPerform(w.hogar, objectToCharge, { token: w.token }, visitor),
      /objected/,
    ],
    [
      "that its customer promises to pay",
      (w) => mustPerform(w.hogar, promiseDay, { token: w.token, day: "2027-03-30" }, visitor),
      /promised/,
    ],
    [
      "that the office sets aside",
      (w) => mustPerform(w.hogar, setCollection, { invoiceId: 1, never: true, date: null }, office),
      /not collected by itself any more/,
    ],
    [
      "whose notice did not go out",
      (w) =>
        w.changed(() => w.hogar.store.sql("UPDATE messages SET state = 'bounced' WHERE occasion LIKE 'charge%'").run()),
      /did not go out/,
    ],
    [
      "once its owner takes the agreement back",
      (w) => mustPerform(w.hogar, agreeCollection, { agreed: false }, w.actor),
      /no card may be charged/,
    ],
  ];
  it.each(acts)("%s", async (_, act, why) => {
    const w = owing();
    await w.until("2027-03-23");
    act(w);
    await w.until("2027-03-24");
    expect([w.open(), w.charged()]).toEqual([7_900, []]);
    expect(w.report("2027-03-24")).toMatchObject([{ leftOut: expect.stringMatching(why) }]);
  });

  it("where nobody has agreed, or nothing is collected by itself", async () => {
    const w = owing([]);
    await w.until("2027-03-26");
    const off = owing([good], { on: false });
    await off.until("2027-03-26");
    expect([w.said("charge tomorrow"), off.said("charge tomorrow"), off.charged()]).toEqual([0, 0, []]);
  });
});

it("is charged with what is still open, and not with more than was told", async () => {
  const w = owing();
  await w.until("2027-03-23");
  mustPerform(
    w.hogar,
    recordPayment,
    { customerId: w.actor.customerId, method: "bank", amountMinor: 3_000, invoices: null, key: "a part of it" },
    office,
  );
  await w.until("2027-03-24");
  expect([w.open(), w.charged()]).toEqual([0, [4_900]]);
});

describe("a card that is declined", () => {
  it("is followed by the next one, in their order", async () => {
    const w = owing([declined, good]);
    await w.until("2027-03-24");
    expect([w.open(), w.charged()]).toEqual([0, [7_900]]);
    expect(w.report("2027-03-24").map(({ state, card }) => [state, card])).toEqual([
      ["declined", "card 1"],
      ["received", "card 2"],
    ]);
  });

  it("is tried again some days later, after a notice of its own; then the customer is asked", async () => {
    const w = owing([declined]);
    await w.until("2027-03-24");
    expect([w.said("charge failed"), w.report("2027-03-24")[0]?.next]).toEqual([0, "2027-03-27"]);
    // The 27th is a Saturday: the next run is on Monday.
    await w.until("2027-03-29");
    expect([w.said("charge tomorrow"), w.said("charge failed")]).toEqual([2, 1]);
    await w.until("2027-04-09");
    expect(w.hogar.standins!.cards.charges()).toHaveLength(2);
  });

  it("is not tried again where another one is needed: its owner is asked at once", async () => {
    const w = owing([lost]);
    await w.until("2027-04-02");
    expect([w.said("charge failed"), w.hogar.standins!.cards.charges().length]).toEqual([1, 1]);
  });

  it("no more cards are tried than the owner wants", async () => {
    const w = owing([declined, good], { cards: 1, again: [] });
    await w.until("2027-03-26");
    expect([w.charged(), w.said("charge failed")]).toEqual([[], 1]);
  });
});

it("asks for the bank's second step by a link, once, and is paid when that is done", async () => {
  const w = owing([asks]);
  await w.until("2027-03-25");
  expect([w.said("charge step"), w.open()]).toEqual([1, 7_900]);
  const { key, ref } = one<{ key: string; ref: string }>(
    w.hogar,
    "SELECT charge_key AS key, gateway_reference AS ref FROM payments WHERE card_how = 'on file'",
  );
  w.hogar.standins!.cards.settleStep(ref, true);
  mustPerform(w.hogar, recordCharge, { chargeKey: key, outcome: { state: "received", reference: ref } }, system);
  await w.until("2027-03-26");
  expect([w.open(), one(w.hogar, "SELECT ended_at IS NULL AS open FROM collection_runs")]).toEqual([0, { open: 0 }]);
});

describe("a promise", () => {
  it("keeps reminders and cards away until its day, and is kept when it is paid", async () => {
    const w = owing();
    mustPerform(w.hogar, takeDownPromise, { invoiceId: 1, day: "2027-03-29" }, office);
    await w.until("2027-03-28");
    expect([w.said("charge tomorrow"), w.said("invoice reminder")]).toEqual([0, 0]);
    mustPerform(
      w.hogar,
      recordPayment,
      { customerId: w.actor.customerId, method: "bank", amountMinor: 7_900, invoices: null, key: "as promised" },
      office,
    );
    await w.until("2027-03-30");
    expect(one(w.hogar, "SELECT ended FROM pay_promises")).toEqual({ ended: "kept" });
  });

  it.each([
    ["stands on the list of whom to phone", []],
    ["is followed by the card, after a notice", [good]],
  ])("that is not kept %s", async (_, cards: string[]) => {
    const w = owing(cards);
    mustPerform(w.hogar, promiseDay, { token: w.token, day: "2027-03-29" }, visitor);
    await w.until("2027-03-31");
    expect(one(w.hogar, "SELECT ended FROM pay_promises")).toEqual({ ended: "broken" });
    expect([w.said("charge tomorrow"), w.charged().length]).toEqual([cards.length, cards.length]);
    expect(look(w.hogar, collection, {}, office)).toMatchObject({
      value: { toPhone: cards.length ? [] : [{ invoiceId: 1, promised: "2027-03-29" }] },
    });
  });

  it("is for one of the next thirty days", () => {
    const w = owing();
    expect(saidOf(perform(w.hogar, promiseDay, { token: w.token, day: "2027-06-01" }, visitor))).toMatch(/until/);
  });
});

describe("the ladder of reminders", () => {
  it("speaks ahead, after the due date and a last time, then it is a person’s; what was said on the phone stands there", async () => {
    const w = owing([]);
    mustPerform(w.hogar, saveCollection, { ...rules, on: false, reminders: [7, -2, 14] }, office);
    w.changed(() => w.hogar.store.sql("UPDATE invoices SET remind_on = '2027-03-22'").run());
    const heard = () => ["invoice coming", "invoice reminder", "last reminder"].map(w.said);
    await w.until("2027-03-22");
    expect(heard()).toEqual([1, 0, 0]);
    await w.until("2027-03-31");
    expect(heard()).toEqual([1, 1, 0]);
    await w.until("2027-04-07");
    expect(heard()).toEqual([1, 1, 1]);
    const list = () => {
      const view = look(w.hogar, collection, {}, office);
      return view.ok ? view.value.toPhone : [];
    };
    expect(list()).toEqual([]);
    await w.until("2027-04-08");
    expect(list()).toMatchObject([{ invoiceId: 1, said: null }]);
    const call = { invoiceId: 1, words: "Was on holiday" };
    mustPerform(w.hogar, recordCall, { ...call, day: null }, office);
    expect(list()).toMatchObject([{ said: "Was on holiday", saidOn: "2027-04-08" }]);
    mustPerform(w.hogar, recordCall, { ...call, day: "2027-04-15" }, office);
    expect(list()).toEqual([]);
  });
});

describe("several open invoices", () => {
  const another = {
    lines: [{ description: "Stove rope", quantity: 1, unitMinor: 2_000, taxBp: 0, discountBp: 0 }],
    discountBp: 0,
    before: "",
    after: "",
    dueDate: null,
    key: "another one",
  };
  const owingMore = () => owing([], {}, worldWithPost());
  const reminded = async (w: ReturnType<typeof owingMore>) => {
    mustPerform(w.hogar, makeInvoice, { customerId: w.actor.customerId, ...another }, office);
    mustPerform(w.hogar, saveCollection, { ...rules, on: false, reminders: [3] }, office);
    w.changed(() => w.hogar.store.sql("UPDATE invoices SET remind_on = due_date WHERE id = 1").run());
    await w.until("2027-03-28");
    return w.sent.find(({ subject }) => /^Reminder: invoice/.test(subject))!.body;
  };

  it("are named together, with a link to all of them and the statement", async () => {
    const w = owingMore();
    const link = /\/owed\/(\S+)/.exec(await reminded(w));
    const account = look(w.hogar, myAccount, { token: link![1]! }, visitor);
    expect(account).toMatchObject({
      value: {
        openMinor: 9_900,
        open: [{ label: "2027-0001" }, { label: "2027-0002" }],
        statement: { kind: "statement" },
      },
    });
    expect(look(w.hogar, myAccount, { token: `${link![1]!}x` }, visitor)).toMatchObject({
      problem: { code: "link-ended" },
    });
  });

  it("are shown to nobody who has booked in their name with another address", async () => {
    const w = owingMore();
    w.changed(() => w.hogar.store.sql("UPDATE jobs SET mail = 'somebody.else@quay.example'").run());
    const body = await reminded(w);
    expect(body).toContain("€99.00 is unpaid in all");
    expect(body).not.toContain("/owed/");
  });
});

describe("a bank that asks its customer", () => {
  const asked = async () => {
    const w = owing([asks]);
    await w.until("2027-03-24");
    const { reference } = w.hogar.standins!.cards.charges()[0]!;
    return { ...w, reference };
  };

  it("has been answered, though no notice of it came", async () => {
    const w = await asked();
    w.hogar.standins!.cards.settleStep(w.reference, true);
    expect(w.open()).toBe(7_900);
    w.later(11);
    await runDue(w.hogar);
    expect([w.open(), w.charged()]).toEqual([0, [7_900]]);
  });

  it("is not answered for a day: then the card is declined, and the invoice can be paid in another way", async () => {
    const w = await asked();
    const pay = () =>
      perform(w.hogar, payInvoice, { token: w.token, cardToken: w.hogar.standins!.cards.tokenFor(good)! }, visitor);
    expect(pay().ok).toBe(false);
    w.later(25 * 60);
    await runDue(w.hogar);
    expect(pay().ok).toBe(true);
    await runDue(w.hogar);
    expect([w.open(), w.charged()]).toEqual([0, [7_900]]);
  });
});

/** What the card service says of charges: what was paid once more and late, or how a second step ended, lost, once or twice. */
function hearOf({ hogar }: ReturnType<typeof owing>, what: "notice" | "step", n: number): void {
  const { cards } = hogar.standins!;
  const hear = (chargeKey: string, outcome: Parameters<typeof recordCharge.run>[1]["outcome"]) =>
    expect(perform(hogar, recordCharge, { chargeKey, outcome }, system).ok).toBe(true);
  if (what === "notice") {
    for (const { key, reference, state } of cards.charges())
      if (state === "received") hear(key, { state: "received", reference });
    return;
  }
  const waiting = cards.charges().find(({ state }) => state === "second step");
  const said = waiting && cards.settleStep(waiting.reference, n % 2 === 0);
  if (!said) return;
  const { key, outcome } = JSON.parse(said.body) as { key: string; outcome: never };
  for (let times = n % 3; times > 0; times--) hear(key, outcome);
}

it("is charged once at most and with nothing that was not told, whatever happens in which order, and however often a step is taken", async () => {
  const step = fc.record({
    act: fc.constantFrom(
      "day",
      "day",
      "day",
      "turn",
      "collect",
      "follow",
      "object",
      "promise",
      "never",
      "again",
      "agree",
      "disagree",
      "transfer",
      "split",
      "notice",
      "step",
    ),
    n: fc.integer({ min: 1, max: 9_000 }),
  });
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.constantFrom(good, declined, lost, asks), { maxLength: 3 }),
      fc.array(step, { maxLength: 16 }),
      async (numbers, steps) => {
        const w = owing(numbers);
        const { hogar, token } = w;
        let day = "2027-03-21";
        for (const [i, { act, n }] of steps.entries()) {
          if (act === "day") await w.until((day = addDays(day, 1)));
          else if (act === "turn") await runDue(hogar);
          else if (act === "collect") perform(hogar, collectDue, { invoiceId: 1 }, system);
          else if (act === "follow") perform(hogar, followCharge, { invoiceId: 1 }, system);
          else if (act === "object") perform(hogar, objectToCharge, { token }, visitor);
          else if (act === "promise") perform(hogar, promiseDay, { token, day: addDays(day, n % 9) }, visitor);
          else if (act === "never" || act === "again")
            perform(hogar, setCollection, { invoiceId: 1, never: act === "never", date: null }, office);
          else if (act === "agree" || act === "disagree")
            perform(hogar, agreeCollection, { agreed: act === "agree" }, w.actor);
          else if (act === "split")
            perform(
              hogar,
              splitInvoice,
              {
                invoiceId: 1,
                parts: [
                  { due: addDays(day, n % 5), amountMinor: Math.max(1, w.open() - n) },
                  { due: addDays(day, 9), amountMinor: n },
                ],
              },
              office,
            );
          else if (act === "notice" || act === "step") hearOf(w, act, n);
          else
            perform(
              hogar,
              recordPayment,
              { customerId: w.actor.customerId, method: "bank", amountMinor: n, invoices: null, key: `transfer ${i}` },
              office,
            );
        }
        await drainOutbox(hogar);
        const { parts } = one<{ parts: number }>(
          hogar,
          "SELECT count(*) AS parts FROM audit WHERE operation = 'split-invoice'",
        );
        expect(w.charged().length).toBeLessThanOrEqual(1 + parts);
        expect(w.charged().reduce((all, minor) => all + minor, 0)).toBeLessThanOrEqual(7_900);
        const { told } = one<{ told: number }>(hogar, "SELECT count(*) AS told FROM collection_notices");
        if (told === 0) expect(hogar.standins!.cards.charges()).toEqual([]);
        expect([firstBroken(hogar.store.sql), disagreements(readBooks(hogar.store.sql))]).toEqual([null, []]);
        expect(one(hogar, "SELECT count(*) AS n FROM failed_work")).toEqual({ n: 0 });
      },
    ),
    { numRuns: 25 },
  );
});

describe("payouts", () => {
  it("bring what was charged less what the card service keeps, once; then they are in the bank", async () => {
    const w = owing();
    await w.until("2027-03-26");
    const [payout] = (await w.hogar.standins!.cards.payouts(null)) as [Parameters<typeof recordPayout.run>[1]];
    // 1.4% and 25 cents.
    expect(payout).toMatchObject({ amountMinor: 7_900 - 136, items: [{ grossMinor: 7_900, feeMinor: 136 }] });
    mustPerform(w.hogar, recordPayout, payout, system);
    const on = () =>
      Object.fromEntries(
        w.hogar.store
          .sql<{ account: string; n: number }>(
            "SELECT account, sum(amount_minor) AS n FROM ledger_entries WHERE account IN ('card', 'on the way', 'gateway fees', 'bank') GROUP BY account",
          )
          .all()
          .map(({ account, n }) => [account, n]),
      );
    expect(on()).toEqual({ card: 0, "on the way": 7_764, "gateway fees": 136 });
    const there = () => perform(w.hogar, payoutIsThere, { payoutId: 1, date: "2027-03-26" }, office);
    there();
    expect(there().ok).toBe(true);
    expect(on()).toEqual({ card: 0, "on the way": 0, "gateway fees": 136, bank: 7_764 });
    expect([firstBroken(w.hogar.store.sql), disagreements(readBooks(w.hogar.store.sql))]).toEqual([null, []]);
  });
});

describe("a payment that a customer’s bank asks back", () => {
  const disputed = async () => {
    const w = owing();
    await w.until("2027-03-25");
    const charge = w.hogar.standins!.cards.charges()[0]!.reference;
    const hear = (state: "open" | "won" | "lost") =>
      perform(
        w.hogar,
        recordDispute,
        JSON.parse(w.hogar.standins!.cards.dispute(charge, state)!.body) as Parameters<typeof recordDispute.run>[1],
        system,
      );
    const on = () =>
      one<{ card: number; held: number }>(
        w.hogar,
        `SELECT coalesce(sum(amount_minor) FILTER (WHERE account = 'card'), 0) AS card,
          coalesce(sum(amount_minor) FILTER (WHERE account = 'disputed'), 0) AS held FROM ledger_entries`,
      );
    const holds = () => [firstBroken(w.hogar.store.sql), disagreements(readBooks(w.hogar.store.sql))];
    return { ...w, hear, on, holds };
  };

  it("is held until it is decided; doubled news counts once", async () => {
    const w = await disputed();
    w.hear("open");
    expect(w.hear("open").ok).toBe(true);
    // It was paid out before: the card service takes it from what comes next.
    expect([w.on(), w.open(), ...w.holds()]).toEqual([{ card: -7_900, held: 7_900 }, 0, null, []]);
    w.hear("won");
    w.hear("lost");
    expect([w.on(), w.open(), ...w.holds()]).toEqual([{ card: 0, held: 0 }, 0, null, []]);
  });

  it("is taken by the next payout with its fee, and leaves nothing on the card service’s account", async () => {
    const w = await disputed();
    w.hear("open");
    w.hear("lost");
    mustPerform(
      w.hogar,
      recordPayout,
      {
        reference: "po_next",
        amountMinor: 10_000 - 7_900 - 1_500,
        feeMinor: 0,
        at: Date.parse("2027-03-28"),
        items: [
          { kind: "charge", reference: "ch_of_somebody", grossMinor: 10_000, feeMinor: 0 },
          { kind: "dispute", reference: "dp_x", grossMinor: -7_900, feeMinor: 1_500 },
        ],
      },
      system,
    );
    // The charge of somebody else is not in these books: only what the dispute took is compared.
    expect([w.on().card + 10_000, w.on().held]).toEqual([0, 0]);
    expect(firstBroken(w.hogar.store.sql)).toBeNull();
  });

  it("is lost as far as it was not given back before", async () => {
    const w = await disputed();
    mustPerform(w.hogar, creditInvoiceByHand, { invoiceId: 1, lines: null, reason: "We came too late" }, office);
    mustPerform(
      w.hogar,
      refundPayment,
      { paymentId: 1, amountMinor: 5_000, method: "as paid", reason: "We came too late" },
      office,
    );
    await runDue(w.hogar);
    w.hear("open");
    expect(w.hear("lost").ok).toBe(true);
    expect(w.holds()).toEqual([null, []]);
    expect(one(w.hogar, "SELECT lost_minor FROM disputes")).toEqual({ lost_minor: 2_900 });
  });

  it("is open again where it is lost, even when the end is heard of first, and nobody charges it by itself", async () => {
    const w = await disputed();
    w.hear("lost");
    w.hear("open");
    expect([w.on(), w.open(), ...w.holds()]).toEqual([{ card: -7_900, held: 0 }, 7_900, null, []]);
    await w.until("2027-04-09");
    expect([w.open(), w.charged()]).toEqual([7_900, [7_900]]);
    expect(
      one(w.hogar, "SELECT count(*) > 0 AS n FROM messages WHERE kind IN ('invoice reminder', 'last reminder')"),
    ).toEqual({ n: 1 });
  });
});

it("leaves nothing of a customer who is erased: no notice, no word from the phone, and the books as they were", async () => {
  const w = owing();
  mustPerform(w.hogar, recordCall, { invoiceId: 1, words: "Asks for patience", day: null }, office);
  await w.until("2027-03-26");
  const erased = perform(w.hogar, eraseCustomer, { customerId: w.actor.customerId }, office);
  expect(erased).toMatchObject({ ok: true });
  for (const table of ["cards", "collection_notices", "money_calls"])
    expect(one(w.hogar, `SELECT count(*) AS n FROM ${table}`)).toEqual({ n: 0 });
  expect(one(w.hogar, "SELECT count(*) AS n FROM audit_changes WHERE after LIKE '%patience%'")).toEqual({ n: 0 });
  expect([firstBroken(w.hogar.store.sql), disagreements(readBooks(w.hogar.store.sql))]).toEqual([null, []]);
});
