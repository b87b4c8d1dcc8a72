import type { OpenAmount } from "@/core/money/applying";
import { type Method, paymentReceived, refundAsked, refundSent, type Source } from "@/core/money/ledger";
import { paymentStates } from "@/core/money/states";
import { Refusal } from "@/core/problems";
import type { CardHow, ChargeOutcome } from "@/gateways/types";
import { hourMs } from "@/core/horizons";
import { actorWords, type OperationContext } from "@/kernel/operation";
import { tellAboutInvoice, tellCustomer } from "@/modules/messages/messaging";
import { tellBooked } from "@/modules/messages/tell-booked";
import { insertRow } from "@/store/insert";
import { paysColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { keepCard } from "./cards";
import { overLimit } from "./limits";
import { isChargeUnderWay } from "./under-way";
import { allocate, post, sourceOfPayment, unusedOfJob } from "./ledger";
import { agreePaid, lapseNow } from "@/modules/jobs/work";

interface Charge {
  /** What it is for: the deposit or the invoice of a job, an invoice that is about several or none, or several invoices of one customer. */
  meant: { jobId: number; purpose: "deposit" | "invoice" } | MeantInvoice | MeantInvoices;
  amountMinor: number;
  /** What is given for whoever came, beside it. */
  tip?: Tip;
  cardToken: string;
  how: CardHow;
  /** Kept for later payments when it has paid. */
  keepsCard?: boolean;
}

interface MeantInvoice {
  jobId: null;
  purpose: "account";
  invoiceId: number;
}
interface MeantInvoices {
  jobId: null;
  purpose: "account";
  customerId: number;
  invoices: readonly { invoiceId: number; amountMinor: number }[];
}

/** What a customer gives for whoever came. */
export interface Tip {
  minor: number;
  technicianId: number | null;
}

/** Writes down that a card is to be charged; the worker does it after the commit, once per key. */
export function askCharge(
  context: OperationContext,
  { meant, amountMinor, tip, cardToken, how, keepsCard = false }: Charge,
): number {
  const { sql, now, business } = context;
  const { jobId, purpose } = meant;
  const invoiceId = "invoiceId" in meant ? meant.invoiceId : null;
  const pays =
    "invoices" in meant
      ? meant.invoices.map(({ invoiceId: id, amountMinor: minor }) => ({ invoiceId: id, amountMinor: minor }))
      : [];
  const about =
    jobId !== null
      ? `job ${jobId}`
      : invoiceId !== null
        ? `invoice ${invoiceId}`
        : `invoices ${pays.map((one) => one.invoiceId).join(", ")}`;
  const same = { jobId, purpose, invoiceId, about: `${about}, try ` };
  const { tries, underWay } = sql<{ tries: number; underWay: number }>(
    `SELECT count(*) AS tries, count(*) FILTER (WHERE state IN ${paymentStates.sql("under way")}) AS underWay
      FROM payments WHERE (job_id = @jobId AND purpose = @purpose) OR invoice_id = @invoiceId
        -- Of several invoices by their numbers, whatever was open of them: a colon comes after all figures.
        OR (pays <> '[]' AND charge_key > @about AND charge_key < @about || ':')`,
  ).get(same)!;
  const alsoFor = jobId !== null && purpose === "invoice" ? invoicesOfJob(context, jobId) : [];
  const ids = [...alsoFor, ...pays.map((one) => one.invoiceId), ...(invoiceId === null ? [] : [invoiceId])];
  if (underWay > 0 || isChargeUnderWay(context, ids)) throw new Refusal("charge-under-way");
  const over = overLimit(context, amountMinor + (tip?.minor ?? 0));
  if (over)
    throw new Refusal("not-allowed", { sentence: `We cannot take this now: ${over}. Call us on ${business.phone}.` });
  // One of us types what a customer says, and charges what we keep.
  if (context.actor.kind !== "person") mustNotTest(context, same);
  const key = `${jobId === null ? about : `${purpose} of ${about}`}, try ${tries + 1}`;
  const customerId = "customerId" in meant ? meant.customerId : customerOf(context, jobId, invoiceId);
  const id = insertRow(sql, "payments", {
    customer_id: customerId,
    job_id: jobId,
    purpose,
    method: "card",
    amount_minor: amountMinor,
    state: "asked",
    charge_key: key,
    asked_at: now,
    keep_token: keepsCard ? cardToken : null,
    from_address: context.origin.address,
    invoice_id: invoiceId,
    pays: paysColumn.write(pays),
    tip_minor: tip?.minor ?? 0,
    tip_for_id: tip?.technicianId ?? null,
    card_how: how,
  });
  context.later({
    kind: "charge",
    lane: "cards",
    key: `charge ${key}`,
    payload: {
      chargeKey: key,
      token: cardToken,
      amountMinor: amountMinor + (tip?.minor ?? 0),
      currency: business.currency,
      how,
      description: `${business.name}, ${about}`,
    },
  });
  return id;
}

const invoicesOfJob = ({ sql }: OperationContext, jobId: number): number[] =>
  sql<{ id: number }>("SELECT id FROM invoices WHERE job_id = ?")
    .all(jobId)
    .map(({ id }) => id);

const customerOf = ({ sql }: OperationContext, jobId: number | null, invoiceId: number | null): number =>
  sql<{ customerId: number }>(
    `SELECT customer_id AS customerId FROM jobs WHERE id = @jobId
      UNION ALL SELECT customer_id FROM invoices WHERE id = @invoiceId`,
  ).get({ jobId, invoiceId })!.customerId;

type PaymentRow = Rows["payments"];

/** Cards that were declined or are being tried for one job, and from one network address, within an hour; then a person helps. */
const mostDeclined = 5;

/** Refuses whoever tries cards, one after the other. */
function mustNotTest(
  { sql, now, origin, business, actor }: OperationContext,
  { jobId, invoiceId }: { jobId: number | null; invoiceId: number | null },
): void {
  const { ofJob, fromHere } = sql<{ ofJob: number; fromHere: number }>(
    `SELECT count(*) FILTER (WHERE job_id = @jobId OR invoice_id = @invoiceId) AS ofJob, count(*) FILTER (WHERE from_address = @address) AS fromHere
      FROM payments WHERE asked_at > @since AND (state = 'declined' OR state IN ${paymentStates.sql("under way")})`,
  ).get({ jobId, invoiceId, address: origin.address, since: now - hourMs })!;
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
        SET state = 'declined', gateway_reference = ?, problem = ?, decline_kind = ?, step_address = NULL, settled_at = ?,
          keep_token = NULL
        WHERE id = ?`,
    ).run(outcome.reference, outcome.reason, outcome.kind ?? "later", now, payment.id);
    return;
  }
  sql(
    `UPDATE payments
      SET state = 'received', gateway_reference = ?, step_address = NULL, settled_at = ?, keep_token = NULL
      WHERE id = ?`,
  ).run(outcome.reference, now, payment.id);
  receive(context, payment);
  const jobId = payment.job_id;
  if (jobId === null) return payTheInvoice(context, payment);
  if (payment.keep_token) keepCard(context, jobId, payment.keep_token, true);
  afterReceipt(context, { ...payment, job_id: jobId });
}

/**
 * A bank's second step is left: no page sends anybody there any more, and the card service is asked to end it, and how it
 * ended. What was confirmed in that very moment has paid. Of a job, of an invoice, or of several invoices of a customer.
 */
export function leaveSteps(
  { sql, later }: OperationContext,
  {
    jobId = null,
    invoiceId = null,
    customerId = null,
  }: { jobId?: number | null; invoiceId?: number | null; customerId?: number | null },
): void {
  for (const { id, chargeKey, reference } of sql<{ id: number; chargeKey: string; reference: string }>(
    `SELECT id, charge_key AS chargeKey, gateway_reference AS reference FROM payments
      WHERE state = 'second step' AND (job_id = @jobId OR invoice_id = @invoiceId
        OR (purpose = 'invoice' AND job_id = (SELECT job_id FROM invoices WHERE id = @invoiceId))
        OR (pays <> '[]' AND customer_id = @customerId))`,
  ).all({ jobId, invoiceId, customerId })) {
    sql("UPDATE payments SET state = 'asked', step_address = NULL WHERE id = ?").run(id);
    later({ kind: "end step", lane: "cards", key: `end ${chargeKey}`, payload: { chargeKey, reference } });
  }
}

/** A card has paid an invoice that is about several jobs or none, or several invoices. What was paid of them meanwhile stays with the customer. */
function payTheInvoice(context: OperationContext, payment: PaymentRow): void {
  const open = context.sql<OpenAmount>(
    "SELECT invoice_id AS id, open_minor AS openMinor FROM invoice_balances WHERE invoice_id = ? AND open_minor > 0",
  );
  const several = paysColumn.read(payment.pays);
  const wanted = several.length ? several : [{ invoiceId: payment.invoice_id!, amountMinor: payment.amount_minor }];
  for (const { invoiceId, amountMinor } of wanted)
    allocate(context, [{ source: sourceOfPayment(payment), leftMinor: amountMinor }], open.all(invoiceId));
  tellAboutInvoice(context, wanted[0]!.invoiceId, {
    occasion: "receipt",
    about: `payment ${payment.id}`,
    answer: true,
    fields: { amount: { minor: payment.amount_minor + payment.tip_minor, currency: context.business.currency } },
  });
}

/** Posts that a payment has come: it is the customer's until an invoice takes it. */
export const receive = (
  context: OperationContext,
  payment: Pick<PaymentRow, "id" | "method" | "amount_minor" | "purpose" | "technician_id"> &
    Partial<Pick<PaymentRow, "tip_minor" | "tip_for_id">>,
  at = context.now,
): number =>
  post(
    context,
    { kind: "payment", key: `payment ${payment.id}`, at },
    paymentReceived({
      id: payment.id,
      method: payment.method,
      amountMinor: payment.amount_minor,
      into: payment.purpose === "deposit" ? "deposits" : "credit",
      technicianId: payment.technician_id,
      tip: { minor: payment.tip_minor ?? 0, technicianId: payment.tip_for_id ?? null },
    }),
  );

/** A card that nobody has given out: it is no try of a customer's, and a booking made with it keeps no room. */
function settleUnknown(context: OperationContext, payment: PaymentRow): void {
  const { sql, now } = context;
  sql(
    `UPDATE payments SET state = 'declined', problem = 'There is no such card', settled_at = ?, keep_token = NULL
      WHERE id = ?`,
  ).run(now, payment.id);
  if (payment.purpose === "deposit") lapseNow(context, payment.job_id!);
}

function afterReceipt(context: OperationContext, payment: PaymentRow & { job_id: number }): void {
  const { sql, business } = context;
  const job = sql<{ state: string }>("SELECT state FROM jobs WHERE id = ?").get(payment.job_id)!;
  if (job.state === "cancelled") {
    // The money came when the booking had already lapsed or been cancelled: what no fee asks for goes back.
    applyToInvoice(context, payment.job_id);
    payBackTheRest(context, payment.job_id, "The booking was cancelled");
    return;
  }
  if (payment.purpose === "deposit" && job.state === "awaiting deposit") {
    agreePaid(context, payment.job_id);
    tellBooked(context, payment.job_id);
  }
  applyToInvoice(context, payment.job_id);
  if (payment.purpose === "invoice")
    tellCustomer(context, {
      jobId: payment.job_id,
      occasion: "receipt",
      about: `payment ${payment.id}`,
      answer: true,
      fields: { amount: { minor: payment.amount_minor + payment.tip_minor, currency: business.currency } },
    });
}

/** Pays a job's invoice, or the one that it stands on with others, with what was received for the job, as far as both go. */
export function applyToInvoice(context: OperationContext, jobId: number): void {
  const due = context
    .sql<OpenAmount>(
      `SELECT b.invoice_id AS id, b.open_minor AS openMinor
        FROM job_bills o JOIN invoice_balances b ON b.invoice_id = o.invoice_id WHERE o.job_id = ?`,
    )
    .all(jobId);
  allocate(context, unusedOfJob(context, jobId), due);
}

/** Writes down that money of a payment goes back to where it came from: to a card by the worker, else it is noted as handed back. */
export function payBack(context: OperationContext, paymentId: number, amountMinor: number, reason: string): number {
  const payment = context
    .sql<Pick<PaymentRow, "id" | "purpose" | "method" | "gateway_reference">>(
      "SELECT id, purpose, method, gateway_reference FROM payments WHERE id = ?",
    )
    .get(paymentId)!;
  return refund(context, { source: sourceOfPayment(payment), ...payment, amountMinor, reason });
}

interface Refund {
  source: Source;
  method: Method;
  /** Of the charge, where it goes back to a card. */
  gateway_reference: string | null;
  amountMinor: number;
  reason: string;
}

/** Money goes back: asked first, and sent when it has gone. What is handed back has gone already. Answers the refund's id. */
export function refund(
  context: OperationContext,
  { source, method, gateway_reference: reference, amountMinor, reason }: Refund,
): number {
  const { sql, now } = context;
  const { n } = sql<{ n: number }>("SELECT count(*) AS n FROM refunds WHERE payment_id = ?").get(source.paymentId)!;
  const key = `refund of payment ${source.paymentId}${n === 0 ? "" : `, ${n + 1}`}`;
  const id = insertRow(sql, "refunds", {
    payment_id: source.paymentId,
    method,
    amount_minor: amountMinor,
    refund_key: key,
    state: "asked",
    asked_at: now,
    reason,
  });
  post(context, { kind: "refund asked", key: `refund ${id} asked`, reason }, refundAsked(source, amountMinor));
  if (method === "card")
    context.later({
      kind: "refund",
      lane: "cards",
      key,
      payload: { refundKey: key, reference: reference!, amountMinor },
    });
  else settleRefund(context, id);
  return id;
}

/** A refund has gone out. The same news twice changes nothing. */
export function settleRefund(context: OperationContext, refundId: number): void {
  const { sql } = context;
  const row = sql<Rows["refunds"]>("SELECT * FROM refunds WHERE id = ?").get(refundId)!;
  if (row.state === "refunded") return;
  sql("UPDATE refunds SET state = 'refunded' WHERE id = ?").run(refundId);
  post(
    context,
    { kind: "refund", key: `refund ${refundId}` },
    refundSent(row.payment_id, row.method, row.amount_minor),
  );
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
