import { cardCollectionWords } from "@/core/money/collection-words";
import { Refusal } from "@/core/problems";
import { DateText, Id, input, Money, Nothing, OrNull, Weekdays } from "@/kernel/inputs";
import { openedBy } from "@/kernel/links";
import { actorWords, defineOperation } from "@/kernel/operation";
import { cardsOf } from "@/modules/money/cards";
import { InvoiceToken, Reason } from "@/modules/money/inputs";
import { remindAgain } from "@/modules/money/parts";
import { insertOnce, insertRow } from "@/store/insert";
import { daysColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { promisePayment } from "../promises";
import { nextRun } from "../rules";
import { saveSettings } from "@/kernel/settings";
import { changeCustomer } from "@/modules/customers/customers";
import {
  endObjection,
  noteObjection,
  setCardCollects,
  setCollectionTerms,
  tellOfAllAnew,
} from "@/modules/money/collection-terms";

const Limit = OrNull(Type.Integer({ minimum: 1, maximum: 1_000_000_000 }));

/** When and what is collected by itself. */
export const saveCollection = defineOperation({
  name: "save-collection",
  access: "money.change of all",
  input: input({
    on: Type.Boolean(),
    weekdays: Weekdays,
    at: Type.Integer({ minimum: 0, maximum: 1439 }),
    daysPastDue: Type.Integer({ minimum: 0, maximum: 365 }),
    smallestMinor: Money,
    cards: Type.Integer({ minimum: 1, maximum: 3 }),
    /** Days after the due date on which is reminded, in order; below nothing before it. */
    reminders: Type.Optional(
      Type.Array(Type.Integer({ minimum: -30, maximum: 365 }), { maxItems: 8, uniqueItems: true }),
    ),
    again: Type.Array(Type.Integer({ minimum: 1, maximum: 60 }), { maxItems: 6 }),
    /** What the card service takes at most, of one payment and on one day; null where it says nothing. */
    mostMinor: Type.Optional(Limit),
    dayMinor: Type.Optional(Limit),
    /** Of new customers too, once they have agreed; otherwise the office says so for each. */
    newCustomers: Type.Optional(Type.Boolean()),
  }),
  run(
    context,
    {
      on,
      weekdays,
      at,
      daysPastDue,
      smallestMinor,
      cards,
      again,
      reminders,
      mostMinor = context.business.card_most_minor,
      dayMinor = context.business.card_day_minor,
      newCustomers = context.business.collect_new === 1,
    },
  ) {
    if (on && context.hogar.gateways.cards === null)
      throw new Refusal("not-allowed", { sentence: "Cards cannot be charged here: connect a card service first." });
    saveSettings(context, {
      collects: on ? 1 : 0,
      collect_weekdays: weekdays,
      collect_at: at,
      collect_days: daysPastDue,
      collect_smallest_minor: smallestMinor,
      collect_cards: cards,
      collect_again: daysColumn.write(again),
      card_most_minor: mostMinor,
      card_day_minor: dayMinor,
      collect_new: newCustomers ? 1 : 0,
      reminder_days: reminders && daysColumn.write(reminders.toSorted((a, b) => a - b)),
    });
  },
});

/** Begins today's run before its time, with those who were told of it. */
export const beginRun = defineOperation({
  name: "begin-collection-run",
  access: "money.change of all",
  input: Nothing,
  run(context) {
    const { sql, today, now, business, hogar } = context;
    const told = sql("SELECT 1 FROM collection_notices WHERE run_date = ? AND objected_at IS NULL").get(today);
    if (business.collects === 0 || !told)
      throw new Refusal("nothing-due", {
        sentence: "Nobody was told that a card is charged today. Who is told today is charged by the next run.",
      });
    insertOnce(sql, "collection_runs", { run_date: today, begun_at: now });
    hogar.wake();
  },
});

/** An invoice is not collected by itself, on a day of its own, or from another card. */
export const setCollection = defineOperation({
  name: "set-collection",
  access: "money.change",
  about: { invoiceId: "invoice", cardId: "card" },
  input: input({
    invoiceId: Id,
    never: Type.Boolean(),
    date: OrNull(DateText),
    /** Of their cards the one that is charged first for it; null is the first of theirs. */
    cardId: Type.Optional(OrNull(Id)),
  }),
  run(context, { invoiceId, never, date, cardId = null }) {
    const { sql, today } = context;
    if (date !== null && date < today)
      throw new Refusal("invalid-input", { fields: { "/date": "This day is over. Choose a later one." } });
    const isTheirs =
      "SELECT 1 FROM cards k JOIN invoices i ON i.customer_id = k.customer_id WHERE k.id = ? AND i.id = ? AND k.removed_at IS NULL";
    if (cardId !== null && !sql(isTheirs).get(cardId, invoiceId)) throw new Refusal("not-found");
    if (!sql("SELECT 1 FROM invoices WHERE id = ?").get(invoiceId)) throw new Refusal("not-found");
    setCollectionTerms(context, invoiceId, { never, on: date, cardId });
  },
});

/** Nothing of a customer is collected by itself. */
export const setCustomerCollection = defineOperation({
  name: "set-customer-collection",
  access: "money.change",
  about: { customerId: "customer" },
  input: input({ customerId: Id, never: Type.Boolean() }),
  run: (context, { customerId, never }) => changeCustomer(context, customerId, { collect_never: never ? 1 : 0 }),
});

/** A customer agrees that what is due is charged to the cards of their link by themselves, or takes that back. */
export const agreeCollection = defineOperation({
  name: "agree-collection",
  access: "link",
  input: input({ agreed: Type.Boolean() }),
  run(context, { agreed }) {
    const { actor, business } = context;
    if (actor.kind !== "link") throw new Refusal("link-ended");
    const cards = cardsOf(context, actor.jobId);
    if (cards.length === 0) throw new Refusal("not-found");
    for (const { id } of cards) setCardCollects(context, id, agreed, agreed ? cardCollectionWords(business.name) : "");
    // What is open stands anew: it is told of before it is taken.
    tellOfAllAnew(context, actor.customerId);
  },
});

const ByInvoice = input({
  token: InvoiceToken,
  /** What they say against it, where they say something. */
  words: Type.Optional(Type.String({ maxLength: 600 })),
});

/** A customer does not want the next run to take an invoice: nobody reminds, charges or adds a fee until the office has answered. */
export const objectToCharge = defineOperation({
  name: "object-to-charge",
  access: "anybody",
  input: ByInvoice,
  run(context, { token, words = "" }) {
    const { sql, now, hogar } = context;
    const invoiceId = openedBy(hogar, "invoice", token);
    const run = nextRun(context);
    if (invoiceId === null) throw new Refusal("link-ended");
    const notice = run
      ? sql<Rows["collection_notices"]>("SELECT * FROM collection_notices WHERE invoice_id = ? AND run_date = ?").get(
          invoiceId,
          run.date,
        )
      : undefined;
    if (!notice)
      throw new Refusal("not-found", { sentence: "No card is about to be charged: there is nothing to object to." });
    sql("UPDATE collection_notices SET objected_at = ? WHERE invoice_id = ? AND run_date = ?").run(
      now,
      invoiceId,
      notice.run_date,
    );
    noteObjection(context, invoiceId, words.trim());
  },
});

/** The office has answered what a customer said against an invoice: it is reminded of again, and kept with what was said on the phone. */
export const answerObjection = defineOperation({
  name: "answer-objection",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: input({ invoiceId: Id, reason: Reason }),
  run(context, { invoiceId, reason }) {
    const { sql, now, actor } = context;
    if (!endObjection(context, invoiceId))
      throw new Refusal("nothing-due", { sentence: "Nobody objects to this invoice." });
    insertRow(sql, "money_calls", { invoice_id: invoiceId, at: now, said_by: actorWords(actor), words: reason.trim() });
    remindAgain(context, invoiceId);
  },
});

/** A customer promises a day by the link of an invoice. */
export const promiseDay = defineOperation({
  name: "promise-payment",
  access: "anybody",
  input: input({ token: InvoiceToken, day: DateText }),
  run(context, { token, day }) {
    const invoiceId = openedBy(context.hogar, "invoice", token);
    if (invoiceId === null) throw new Refusal("link-ended");
    promisePayment(context, invoiceId, day, "customer");
  },
});

/** The office takes a promise down, as it was given on the phone. */
export const takeDownPromise = defineOperation({
  name: "record-promise",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: input({ invoiceId: Id, day: DateText }),
  run: (context, { invoiceId, day }) => promisePayment(context, invoiceId, day, actorWords(context.actor), 180),
});

/** What was said on the phone about an invoice that no reminder has helped; with a day, where one was promised. */
export const recordCall = defineOperation({
  name: "record-call",
  access: "money.change",
  about: { invoiceId: "invoice" },
  input: input({
    invoiceId: Id,
    words: Type.String({ minLength: 2, maxLength: 600, pattern: "\\S", patternSentence: "Write what was said." }),
    day: OrNull(DateText),
  }),
  run(context, { invoiceId, words, day }) {
    const { sql, now, actor } = context;
    if (!sql("SELECT 1 FROM invoices WHERE id = ?").get(invoiceId)) throw new Refusal("not-found");
    insertRow(sql, "money_calls", { invoice_id: invoiceId, at: now, said_by: actorWords(actor), words: words.trim() });
    if (day !== null) promisePayment(context, invoiceId, day, actorWords(actor), 180);
  },
});
