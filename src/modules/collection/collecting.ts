import { channels } from "@/core/messages/purposes";
import { messageStates } from "@/core/messages/states";
import { type DeclineKind, nextTry, runOn, type Run } from "@/core/money/collecting";
import { type Minor } from "@/core/money/amounts";
import { addDays, type LocalDate } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { tellAboutInvoice } from "@/modules/messages/messaging";
import { askCharge } from "@/modules/money/charging";
import { isChargeUnderWay } from "@/modules/money/under-way";
import { insertOnce, insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { overLimit } from "@/modules/money/limits";
import { againDays, type Due, dueOfInvoice, nextRun, rulesOf, runOfToday, type Taken, takenBy, takenOf } from "./rules";
import { setCardCollects, setCollectionTerms } from "@/modules/money/collection-terms";

type Notice = Rows["collection_notices"];

/** Invoices that the next run takes and whose customers are to be told so now; as many as the card service takes on one day. */
export function noticesDue(context: ViewContext): number[] {
  const run = nextRun(context);
  if (!run || !isTimeOfNotice(context, run)) return [];
  let toldMinor = toldOf(context, run);
  const told = toldIds(context, run);
  return takenBy(context, run).flatMap(({ invoiceId, openMinor }) => {
    if (told.has(invoiceId) || !hasRoom(context, toldMinor, openMinor)) return [];
    if (isBeingCollected(context, invoiceId)) return [];
    toldMinor += openMinor;
    return [invoiceId];
  });
}

/** Of invoices that were found before, those whose customers have not been told yet. */
export function stillToTell(context: ViewContext, ids: readonly number[]): number[] {
  const run = nextRun(context);
  if (!run || !isTimeOfNotice(context, run)) return [];
  const told = toldIds(context, run);
  return ids.filter((id) => !told.has(id));
}

const toldIds = ({ sql }: ViewContext, { date }: Run): Set<number> =>
  new Set(
    sql<{ id: number }>("SELECT invoice_id AS id FROM collection_notices WHERE run_date = ?")
      .all(date)
      .map(({ id }) => id),
  );

/** What customers were told that a run takes. */
const toldOf = ({ sql }: ViewContext, { date }: Run): Minor =>
  sql<{ n: Minor }>(
    "SELECT coalesce(sum(amount_minor), 0) AS n FROM collection_notices WHERE run_date = ? AND objected_at IS NULL",
  ).get(date)!.n;
const hasRoom = ({ business }: ViewContext, told: Minor, more: Minor): boolean =>
  told + more <= (business.card_day_minor ?? Infinity);

/** A notice that is half a day late is none: the invoice waits for the next run. */
const latestNoticeMinutes = 12 * 60;
const isTimeOfNotice = ({ minute }: ViewContext, { noticeAt }: Run): boolean =>
  minute >= noticeAt && minute < noticeAt + latestNoticeMinutes;

/** A run is about to take it, or a charge is under way: nothing is said of a later run before that has ended. */
const isBeingCollected = (context: ViewContext, invoiceId: number): boolean =>
  isUnderWay(context, invoiceId) ||
  context
    .sql(
      `SELECT 1 FROM collection_notices n WHERE n.invoice_id = @invoiceId AND n.run_date = @today AND n.objected_at IS NULL
        AND NOT EXISTS (SELECT 1 FROM collection_items i WHERE i.invoice_id = n.invoice_id AND i.run_date = n.run_date AND i.followed = 1)`,
    )
    .get({ invoiceId, today: context.today }) !== undefined;

/** Tells a customer what the next run will take, once. */
export function giveNotice(context: OperationContext, invoiceId: number): void {
  const { sql, now, business } = context;
  const run = nextRun(context);
  if (!run || !isTimeOfNotice(context, run) || isBeingCollected(context, invoiceId)) return;
  const due = takenOf(context, run, invoiceId);
  if (!due || !hasRoom(context, toldOf(context, run), due.openMinor)) return;
  const card = cardsOf(context, due)[0];
  if (!card) return;
  const given = insertOnce(sql, "collection_notices", {
    invoice_id: invoiceId,
    run_date: run.date,
    amount_minor: due.openMinor,
    card_id: card.id,
    told_at: now,
  });
  if (given === null) return;
  tellAboutInvoice(context, invoiceId, {
    occasion: "charge tomorrow",
    about: noticeOf(invoiceId, run.date),
    fields: {
      invoice: due.label,
      amount: { minor: due.openMinor, currency: business.currency },
      card: card.label,
      day: { days: [run.date] },
    },
  });
}

const noticeOf = (invoiceId: number, date: LocalDate): string => `invoice ${invoiceId} on ${date}`;

type Card = Pick<Rows["cards"], "id" | "reference" | "label">;

/** Cards that may be charged by themselves: the one that was chosen for the invoice, then in their owner's order. */
const cardsOf = (
  { sql, today }: ViewContext,
  { customerId, invoiceId }: Pick<Due, "customerId" | "invoiceId">,
): Card[] =>
  sql<Card>(
    `SELECT id, reference, label FROM cards
      WHERE customer_id = ? AND collects = 1 AND removed_at IS NULL AND coalesce(expires, '9999-12') >= ?
      ORDER BY id = coalesce((SELECT collect_card_id FROM invoices WHERE id = ?), 0) DESC, position, id`,
  ).all(customerId, today.slice(0, 7), invoiceId);

/** Invoices of today's run that nothing was done about yet. */
export function toCollect(context: ViewContext): number[] {
  const run = runOfToday(context);
  if (!run) return [];
  return context
    .sql<{ id: number }>(
      `SELECT n.invoice_id AS id FROM collection_notices n
        WHERE n.run_date = ? AND NOT EXISTS (SELECT 1 FROM collection_items i WHERE i.run_date = n.run_date AND i.invoice_id = n.invoice_id)
        ORDER BY n.invoice_id`,
    )
    .all(run.date)
    .map(({ id }) => id);
}

/** Charges the first card for an invoice of today's run, or writes down why not. Once, whatever begins it twice. */
export function collectInvoice(context: OperationContext, invoiceId: number): void {
  const { sql, now } = context;
  const run = runOfToday(context);
  const notice = run && noticeFor(context, invoiceId, run.date);
  if (!run || !notice) return;
  insertOnce(sql, "collection_runs", { run_date: run.date, begun_at: now });
  if (sql("SELECT 1 FROM collection_items WHERE run_date = ? AND invoice_id = ?").get(run.date, invoiceId)) return;
  const due = takenOf(context, run, invoiceId);
  const leftOut = whyLeftOut(context, notice, due);
  if (leftOut !== null)
    return void insertRow(sql, "collection_items", {
      run_date: run.date,
      invoice_id: invoiceId,
      attempt: 1,
      left_out: leftOut,
      followed: 1,
    });
  chargeCard(context, notice, due!.openMinor, cardsOf(context, due!)[0]!, 1);
}

const noticeFor = ({ sql }: ViewContext, invoiceId: number, date: LocalDate): Notice | undefined =>
  sql<Notice>("SELECT * FROM collection_notices WHERE invoice_id = ? AND run_date = ?").get(invoiceId, date);

/** Why nothing is charged after all; null where it is. `taken` is what the run would take. */
function whyLeftOut(context: ViewContext, notice: Notice, taken: Taken | null): string | null {
  if (notice.objected_at !== null) return "they objected";
  const [due] = dueOfInvoice(context, notice.invoice_id);
  if (!due) return "it is paid, or no card may be charged any more";
  if (due.never) return "it is not collected by itself any more";
  if (due.promised !== null) return `they promised to pay on ${dayWords(due.promised)}`;
  if (!taken) return "it has changed since they were told";
  if (taken.openMinor > notice.amount_minor) return "more is open than they were told";
  if (!wasTold(context, notice)) return "the notice did not go out";
  if (cardsOf(context, due).length === 0) return "the card has expired";
  return isUnderWay(context, notice.invoice_id) ? "a payment is under way" : overLimit(context, taken.openMinor);
}

/** The notice has gone out one way at least. */
const wasTold = ({ sql }: ViewContext, { invoice_id, run_date }: Notice): boolean =>
  sql(
    `SELECT 1 FROM messages WHERE occasion IN (SELECT @notice || ' ' || value FROM json_each(@channels))
      AND state IN ${messageStates.sql("gone")}`,
  ).get({
    notice: `charge tomorrow ${noticeOf(invoice_id, run_date)}`,
    channels: JSON.stringify(channels),
  }) !== undefined;

const isUnderWay = (context: ViewContext, invoiceId: number): boolean => isChargeUnderWay(context, [invoiceId]);

function chargeCard(context: OperationContext, notice: Notice, openMinor: number, card: Card, attempt: number): void {
  const { sql } = context;
  const { job_id: jobId } = sql<{ job_id: number | null }>("SELECT job_id FROM invoices WHERE id = ?").get(
    notice.invoice_id,
  )!;
  const paymentId = askCharge(context, {
    meant:
      jobId === null
        ? { jobId: null, purpose: "account", invoiceId: notice.invoice_id }
        : { jobId, purpose: "invoice" },
    amountMinor: openMinor,
    cardToken: card.reference,
    how: "on file",
  });
  insertRow(sql, "collection_items", {
    run_date: notice.run_date,
    invoice_id: notice.invoice_id,
    attempt,
    payment_id: paymentId,
    card_id: card.id,
  });
}

/** Invoices of runs whose charge has ended, or asks the customer for a second step, and about which nothing was done yet. */
export const toFollow = ({ sql }: ViewContext): number[] =>
  sql<{ id: number }>(
    `SELECT i.invoice_id AS id FROM collection_items i JOIN payments p ON p.id = i.payment_id
      WHERE i.followed = 0 AND p.state IN ('received', 'declined', 'second step') ORDER BY i.invoice_id`,
  )
    .all()
    .map(({ id }) => id);

type Item = Rows["collection_items"] & {
  state: string;
  amount_minor: number;
  decline_kind: DeclineKind | null;
  problem: string | null;
  card: string;
};

/** What follows from how a charge ended: the next card, another day, or a word to the customer. */
export function followItem(context: OperationContext, invoiceId: number): void {
  const { sql, business } = context;
  const item = sql<Item>(
    `SELECT i.*, p.state, p.amount_minor, p.decline_kind, p.problem, coalesce(k.label, 'card') AS card
      FROM collection_items i JOIN payments p ON p.id = i.payment_id LEFT JOIN cards k ON k.id = i.card_id
      WHERE i.invoice_id = ? AND i.followed = 0 ORDER BY i.run_date, i.attempt LIMIT 1`,
  ).get(invoiceId);
  if (!item) return;
  const done = () =>
    sql("UPDATE collection_items SET followed = 1 WHERE run_date = ? AND invoice_id = ? AND attempt = ?").run(
      item.run_date,
      invoiceId,
      item.attempt,
    );
  const tell = (occasion: "charge step" | "charge failed") =>
    tellAboutInvoice(context, invoiceId, {
      occasion,
      about: `payment ${item.payment_id}`,
      fields: { amount: { minor: item.amount_minor, currency: business.currency }, card: item.card },
    });
  // It waits for the customer, who is told once, and is looked at again when that has ended.
  if (item.state === "second step") return tell("charge step");
  if (item.state === "received") return void done();
  if (item.state !== "declined") return;
  done();
  const declined = item.decline_kind ?? "later";
  if (declined !== "later") setCardCollects(context, item.card_id!, false);
  const notice = noticeFor(context, invoiceId, item.run_date)!;
  const due = takenOf(context, runOn(rulesOf(context), item.run_date), invoiceId);
  const isAsTold = due !== null && due.openMinor <= notice.amount_minor && overLimit(context, due.openMinor) === null;
  const cards = isAsTold ? cardsOf(context, due) : [];
  const next = nextTry({
    declined,
    cards: cards.map(({ id }) => id),
    tried: sql<{ id: number }>(
      "SELECT card_id AS id FROM collection_items WHERE run_date = ? AND invoice_id = ? AND card_id IS NOT NULL",
    )
      .all(item.run_date, invoiceId)
      .map(({ id }) => id),
    mostCards: business.collect_cards,
    runs: sql<{ n: number }>(
      "SELECT count(DISTINCT run_date) AS n FROM collection_items WHERE invoice_id = ? AND payment_id IS NOT NULL",
    ).get(invoiceId)!.n,
    againDays: againDays(context),
  });
  if (next && "card" in next) {
    const card = cards.find(({ id }) => id === next.card)!;
    return chargeCard(context, notice, due!.openMinor, card, item.attempt + 1);
  }
  if (next === null) {
    // From now on it is the customer's to pay; nobody tries the same cards day after day.
    setCollectionTerms(context, invoiceId, { never: true });
    return tell("charge failed");
  }
  setCollectionTerms(context, invoiceId, { on: addDays(item.run_date, next.days) });
}

/** Runs of which everything is done, or whose day is over. */
export const runsToEnd = ({ sql, today }: ViewContext): string[] =>
  sql<{ date: string }>(
    `SELECT r.run_date AS date FROM collection_runs r
      WHERE r.ended_at IS NULL AND NOT EXISTS (SELECT 1 FROM collection_items i WHERE i.run_date = r.run_date AND i.followed = 0)
        AND (r.run_date < @today OR NOT EXISTS (
          SELECT 1 FROM collection_notices n WHERE n.run_date = r.run_date
            AND NOT EXISTS (SELECT 1 FROM collection_items i WHERE i.run_date = n.run_date AND i.invoice_id = n.invoice_id)))`,
  )
    .all({ today })
    .map(({ date }) => date);
