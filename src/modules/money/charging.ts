import { moneyWords } from "@/core/money/amounts";
import { applyReceived, type OpenAmount } from "@/core/money/applying";
import { type JournalEntry, paymentApplied, paymentReceived } from "@/core/money/journal";
import { paymentStates } from "@/core/money/states";
import { Refusal } from "@/core/problems";
import type { ChargeOutcome } from "@/gateways/types";
import { hourMs } from "@/core/horizons";
import { actorWords, type OperationContext } from "@/kernel/operation";
import { tellCustomer } from "@/modules/messages/messaging";
import { tellBooked } from "@/modules/messages/tell-booked";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { keepCard } from "./cards";

interface Charge {
  jobId: number;
  purpose: "deposit" | "invoice";
  amountMinor: number;
  cardToken: string;
  /** Kept for later payments when it has paid. */
  keepsCard?: boolean;
}

/** Writes down that a card is to be charged; the worker does it after the commit, once per key. */
export function askCharge(
  context: OperationContext,
  { jobId, purpose, amountMinor, cardToken, keepsCard = false }: Charge,
): number {
  const { sql, now, business } = context;
  if (
    sql(`SELECT 1 FROM payments WHERE job_id = ? AND purpose = ? AND state IN ${paymentStates.sql("under way")}`).get(
      jobId,
      purpose,
    )
  )
    throw new Refusal("charge-under-way");
  const tries = sql<{ n: number }>("SELECT count(*) AS n FROM payments WHERE job_id = ? AND purpose = ?").get(
    jobId,
    purpose,
  )!.n;
  mustNotTest(context, jobId);
  const key = `${purpose} of job ${jobId}, try ${tries + 1}`;
  const { id } = sql<{ id: number }>(
    `INSERT INTO payments (customer_id, job_id, purpose, method, amount_minor, state, charge_key, asked_at, keep_token, from_address)
      SELECT customer_id, id, ?, 'card', ?, 'asked', ?, ?, ?, ? FROM jobs WHERE id = ? RETURNING id`,
  ).get(purpose, amountMinor, key, now, keepsCard ? cardToken : null, context.origin.address, jobId)!;
  context.later({
    kind: "charge",
    key: `charge ${key}`,
    payload: {
      chargeKey: key,
      token: cardToken,
      amountMinor,
      currency: business.currency,
      description: `${business.name}, job ${jobId}`,
    },
  });
  return id;
}

type PaymentRow = Rows["payments"];

/** Declined cards for one job, and from one network address, within an hour; then a person helps. */
const mostDeclined = 5;

/** Refuses whoever tries cards, one after the other. */
function mustNotTest({ sql, now, origin, business, actor }: OperationContext, jobId: number): void {
  const { ofJob, fromHere } = sql<{ ofJob: number; fromHere: number }>(
    `SELECT count(*) FILTER (WHERE job_id = @jobId) AS ofJob, count(*) FILTER (WHERE from_address = @address) AS fromHere
      FROM payments WHERE state = 'declined' AND settled_at > @since`,
  ).get({ jobId, address: origin.address, since: now - hourMs })!;
  if (ofJob < mostDeclined && fromHere < mostDeclined) return;
  throw new Refusal("too-many-cards", {
    sentence: `Several cards were declined. Call us on ${business.phone}, and we will find a way.`,
    security: {
      kind: "card refused",
      who: actorWords(actor),
      words: `after ${Math.max(ofJob, fromHere)} declined cards`,
    },
  });
}

/** Takes down how a charge ended. The same news twice changes nothing. */
export function settleCharge(context: OperationContext, chargeKey: string, outcome: ChargeOutcome): void {
  const { sql, now } = context;
  const payment = sql<PaymentRow>("SELECT * FROM payments WHERE charge_key = ?").get(chargeKey);
  if (!payment) throw new Refusal("not-found");
  if (paymentStates.allows("settled", payment.state)) return;
  if (outcome.state === "second step") {
    sql("UPDATE payments SET state = 'second step', gateway_reference = ?, step_address = ? WHERE id = ?").run(
      outcome.reference,
      outcome.address,
      payment.id,
    );
    return;
  }
  if (outcome.state === "unknown card") return settleUnknown(context, payment);
  if (outcome.state === "declined") {
    sql(
      `UPDATE payments
        SET state = 'declined', gateway_reference = ?, problem = ?, step_address = NULL, settled_at = ?,
          keep_token = NULL
        WHERE id = ?`,
    ).run(outcome.reference, outcome.reason, now, payment.id);
    return;
  }
  sql(
    `UPDATE payments
      SET state = 'received', gateway_reference = ?, step_address = NULL, settled_at = ?, keep_token = NULL
      WHERE id = ?`,
  ).run(outcome.reference, now, payment.id);
  enterJournal(context, `payment ${payment.id}`, paymentReceived("card", payment.amount_minor));
  if (payment.keep_token) keepCard(context, payment.job_id, payment.keep_token);
  afterReceipt(context, payment);
}

/** A card that nobody has given out: it is no try of a customer's, and a booking made with it keeps no room. */
function settleUnknown({ sql, now }: OperationContext, payment: PaymentRow): void {
  sql(
    `UPDATE payments SET state = 'declined', problem = 'There is no such card', settled_at = ?, keep_token = NULL
      WHERE id = ?`,
  ).run(now, payment.id);
  if (payment.purpose === "deposit")
    sql("UPDATE jobs SET lapses_at = ? WHERE id = ? AND state = 'awaiting deposit'").run(now, payment.job_id);
}

function afterReceipt(context: OperationContext, payment: PaymentRow): void {
  const { sql, business } = context;
  const job = sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?").get(payment.job_id)!;
  if (job.state === "cancelled") {
    // The money came when the booking had already lapsed or been cancelled: what no fee asks for goes back.
    applyToInvoice(context, payment.job_id);
    payBackTheRest(context, payment.job_id, "The booking was cancelled");
    return;
  }
  if (payment.purpose === "deposit" && job.state === "awaiting deposit") {
    sql("UPDATE jobs SET state = 'agreed', proof = iif(proof = 'none', 'paid', proof) WHERE id = ?").run(
      payment.job_id,
    );
    tellBooked(context, payment.job_id);
  }
  applyToInvoice(context, payment.job_id);
  if (payment.purpose === "invoice")
    tellCustomer(context, {
      jobId: payment.job_id,
      occasion: "receipt",
      about: `payment ${payment.id}`,
      answer: true,
      fields: { amount: moneyWords(payment.amount_minor, business.currency) },
    });
}

/** Applies what was received for a job to its invoice, as far as both go. */
export function applyToInvoice(context: OperationContext, jobId: number): void {
  const { sql, now } = context;
  const received = sql<OpenAmount>(
    `SELECT payment_id AS id, left_minor AS openMinor
      FROM payment_balances WHERE job_id = ? AND state = 'received' ORDER BY payment_id`,
  ).all(jobId);
  const due = sql<OpenAmount>(
    "SELECT invoice_id AS id, open_minor AS openMinor FROM invoice_balances WHERE job_id = ?",
  ).all(jobId);
  for (const { paymentId, invoiceId, amountMinor } of applyReceived(received, due)) {
    // A later receipt may top up an application of the same two; the primary key asks for one row each.
    insertRow(sql, "applications", {
      payment_id: paymentId,
      invoice_id: invoiceId,
      amount_minor: amountMinor,
      applied_at: now,
    });
    enterJournal(context, `application of payment ${paymentId} to invoice ${invoiceId}`, paymentApplied(amountMinor));
  }
}

/** Writes down that money goes back to a card; the worker sends it. */
export function payBack(context: OperationContext, paymentId: number, amountMinor: number, reason: string): void {
  const key = `refund of payment ${paymentId}`;
  const { sql, now } = context;
  insertRow(sql, "refunds", {
    payment_id: paymentId,
    amount_minor: amountMinor,
    refund_key: key,
    state: "asked",
    asked_at: now,
    reason,
  });
  const { gateway_reference: reference } = sql<{ gateway_reference: string }>(
    "SELECT gateway_reference FROM payments WHERE id = ?",
  ).get(paymentId)!;
  context.later({ kind: "refund", key, payload: { refundKey: key, reference, amountMinor } });
}

/** What was received by card for a job and no invoice has used goes back to the cards it came from. */
export function payBackTheRest(context: OperationContext, jobId: number, reason: string): void {
  const left = context
    .sql<{ id: number; rest: number }>(
      `SELECT payment_id AS id, left_minor AS rest
        FROM payment_balances WHERE job_id = ? AND state = 'received' AND method = 'card' ORDER BY payment_id`,
    )
    .all(jobId);
  for (const { id, rest } of left) if (rest > 0) payBack(context, id, rest, reason);
}

export function enterJournal({ sql, now }: OperationContext, event: string, entries: JournalEntry[]): void {
  for (const { account, amountMinor } of entries)
    insertRow(sql, "journal", { event, at: now, account, amount_minor: amountMinor });
}
