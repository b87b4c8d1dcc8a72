import { moneyWords, sum } from "@/core/money/amounts";
import { cashHandedOver, tipsPaidOut } from "@/core/money/ledger";
import { Refusal } from "@/core/problems";
import { Id, input, Money, OneOf, OrNull, Signed } from "@/kernel/inputs";
import { actorWords, defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { applyToInvoice, receive } from "../charging";
import { keyOnce, post } from "../ledger";

const TakePayment = input({
  visitId: Id,
  method: OneOf(["cash", "cheque"]),
  amountMinor: Type.Integer({ minimum: 1, maximum: 100_000_000 }),
  /** Kept by the technician's own wish of the customer, beside what is due. */
  tipMinor: Type.Optional(Type.Integer({ minimum: 0, maximum: 100_000 })),
  /** A cheque's number. */
  note: Type.String({ maxLength: 140 }),
  /** Given once per payment, so that sending it twice records it once. */
  key: Type.String({ minLength: 8, maxLength: 60 }),
});

/** A technician takes cash or a cheque at the door: it stands under them until it is handed over. The same key is recorded once. */
export const takePayment = defineOperation({
  name: "take-payment",
  access: "field.work",
  about: { visitId: "visit" },
  input: TakePayment,
  run(context, { visitId, method, amountMinor, tipMinor = 0, note, key }) {
    const { sql, actor, now, business } = context;
    const technicianId = actor.kind === "person" ? actor.technicianId : null;
    if (technicianId === null)
      throw new Refusal("not-allowed", { sentence: "Nobody’s day belongs to this sign-in: record it in the office." });
    const chargeKey = `door ${key}`;
    const known = sql<{ id: number }>("SELECT id FROM payments WHERE charge_key = ?").get(chargeKey);
    if (known) return { paymentId: known.id };
    const job = sql<{ id: number; customer_id: number; due: number }>(
      `SELECT j.id, j.customer_id, b.due_minor AS due
        FROM visits v JOIN jobs j ON j.id = v.job_id JOIN job_balances b ON b.job_id = j.id WHERE v.id = ?`,
    ).get(visitId);
    if (!job) throw new Refusal("not-found");
    if (amountMinor > job.due)
      throw new Refusal("amount-too-large", {
        fields: {
          "/amountMinor": `${moneyWords(job.due, business.currency)} is due here. Give the rest back as change.`,
        },
      });
    if (tipMinor > 0 && business.tips === 0)
      throw new Refusal("not-allowed", { sentence: "Tips are not taken here. Give it back as change." });
    const payment = {
      customer_id: job.customer_id,
      job_id: job.id,
      purpose: "invoice",
      method,
      amount_minor: amountMinor,
      technician_id: technicianId,
      tip_minor: tipMinor,
      tip_for_id: technicianId,
    } as const;
    const id = insertRow(sql, "payments", {
      ...payment,
      state: "received",
      charge_key: chargeKey,
      asked_at: now,
      settled_at: now,
      note: note.trim(),
    });
    receive(context, { id, ...payment });
    applyToInvoice(context, job.id);
    return { paymentId: id };
  },
});

const HandOver = input({
  technicianId: Id,
  paymentIds: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }),
  /** What was counted on the table. */
  countedMinor: Money,
  /** Why it is more or less than it should be: then it counts as it is. */
  difference: Type.Optional(Type.String({ maxLength: 200 })),
  /** Whoever hands it over signs for it, where they are there. */
  signed: Type.Optional(OrNull(Signed)),
});

/** What a technician has taken is counted, and is theirs no more. It comes to what they took, or it is said why not. */
export const handOverCash = defineOperation({
  name: "hand-over-cash",
  access: "money.change",
  about: { technicianId: "technician", paymentIds: "payment" },
  input: HandOver,
  run(context, { technicianId, paymentIds, countedMinor, difference = "", signed = null }) {
    const { sql, now, actor, business } = context;
    const payments = sql<Pick<Rows["payments"], "id" | "method"> & { amountMinor: number }>(
      `SELECT id, method, amount_minor + tip_minor AS amountMinor FROM payments
        WHERE technician_id = @technicianId AND handover_id IS NULL AND state = 'received'
          AND id IN (SELECT value FROM json_each(@ids)) ORDER BY id`,
    ).all({ technicianId, ids: JSON.stringify(paymentIds) });
    if (payments.length !== paymentIds.length)
      throw new Refusal("not-found", { sentence: "Some of it was handed over already: look again." });
    const amountMinor = sum(payments.map((payment) => payment.amountMinor));
    const differenceMinor = countedMinor - amountMinor;
    const why = difference.trim();
    if (differenceMinor !== 0 && !why)
      throw new Refusal("invalid-input", {
        fields: {
          "/countedMinor": `It should come to ${moneyWords(amountMinor, business.currency)}. Count again, leave a payment out until it is found, or say why it differs.`,
        },
      });
    const id = insertRow(sql, "handovers", {
      technician_id: technicianId,
      amount_minor: amountMinor,
      counted_at: now,
      counted_by: actorWords(actor),
      difference_minor: differenceMinor,
      difference_reason: differenceMinor === 0 ? "" : why,
      signature: signed?.drawing ?? null,
    });
    for (const payment of payments) sql("UPDATE payments SET handover_id = ? WHERE id = ?").run(id, payment.id);
    post(
      context,
      { kind: "cash handed over", key: `handover ${id}` },
      cashHandedOver(technicianId, payments, differenceMinor),
    );
    return { handoverId: id };
  },
});

const PayOutTips = input({
  /** Null: those that are nobody's in particular. */
  technicianId: OrNull(Id),
  method: OneOf(["cash", "bank"]),
  amountMinor: Type.Integer({ minimum: 1, maximum: 100_000_000 }),
});

/** A technician is given the tips that came for them, in cash or with the pay. */
export const payOutTips = defineOperation({
  name: "pay-out-tips",
  access: "money.change",
  about: { technicianId: "technician" },
  input: PayOutTips,
  run(context, { technicianId, method, amountMinor }) {
    const { sql, business } = context;
    const { left } = sql<{ left: number }>(
      "SELECT coalesce(-sum(amount_minor), 0) AS left FROM ledger_entries WHERE account = 'tips' AND technician_id IS ?",
    ).get(technicianId)!;
    if (amountMinor > left)
      throw new Refusal("amount-too-large", {
        fields: {
          "/amountMinor": `${moneyWords(Math.max(0, left), business.currency)} came for them and was not paid out.`,
        },
      });
    post(
      context,
      { kind: "tips paid", key: keyOnce(context, `tips of technician ${technicianId ?? "all"}`) },
      tipsPaidOut(technicianId, method, amountMinor),
    );
  },
});
