import { moneyWords } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { insertOnce } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { takesCards } from "../cards";
import { askCharge } from "../charging";

const atTheDoor = {
  visitId: Id,
  amountMinor: Type.Integer({ minimum: 1, maximum: 100_000_000 }),
  tipMinor: Type.Optional(Type.Integer({ minimum: 0, maximum: 100_000 })),
};
const key = Type.String({ minLength: 8, maxLength: 60 });

/** A card is typed in at the door, in the card service's own form. */
export const takeCard = defineOperation({
  name: "take-card",
  access: "field.work",
  about: { visitId: "visit" },
  input: input({ ...atTheDoor, cardToken: Type.String({ minLength: 1, maxLength: 80 }) }),
  run(context, { visitId, amountMinor, tipMinor = 0, cardToken }) {
    const { jobId, technicianId } = dueAtTheDoor(context, visitId, amountMinor, tipMinor);
    const tip = { minor: tipMinor, technicianId };
    return {
      paymentId: askCharge(context, {
        meant: { jobId, purpose: "invoice" },
        amountMinor,
        tip,
        cardToken,
        how: "typed",
      }),
    };
  },
});

/** The reader shows a sum and waits for a card. The same key asks once; what it waited for before is over. */
export const askReader = defineOperation({
  name: "ask-reader",
  access: "field.work",
  about: { visitId: "visit" },
  input: input({ ...atTheDoor, key }),
  run(context, { visitId, amountMinor, tipMinor = 0, key }) {
    const { sql, now, hogar } = context;
    if (hogar.gateways.readers === null)
      throw new Refusal("not-allowed", { sentence: "There is no card reader. Type the card in." });
    const { technicianId } = dueAtTheDoor(context, visitId, amountMinor, tipMinor);
    const asked = insertOnce(sql, "reader_asks", {
      key,
      visit_id: visitId,
      technician_id: technicianId,
      amount_minor: amountMinor,
      tip_minor: tipMinor,
      asked_at: now,
    });
    if (asked === null) return;
    sql("UPDATE reader_asks SET ended_at = ? WHERE technician_id = ? AND ended_at IS NULL AND key <> ?").run(
      now,
      technicianId,
      key,
    );
    context.later({
      lane: "cards",
      kind: "reader",
      key: `reader ${key}`,
      payload: { key, amountMinor: amountMinor + tipMinor, currency: context.business.currency },
    });
  },
});

/** Nobody holds a card to it: the reader waits no more. */
export const endReader = defineOperation({
  name: "end-reader",
  access: "field.work",
  about: { visitId: "visit" },
  input: input({ visitId: Id }),
  run: ({ sql, now }, { visitId }) =>
    void sql("UPDATE reader_asks SET ended_at = ? WHERE visit_id = ? AND ended_at IS NULL").run(now, visitId),
});

/** A card was held to a reader: it is charged, once, unless nobody waits for it any more. */
export const chargeHeldCard = defineOperation({
  name: "charge-held-card",
  access: "system",
  input: input({ key, cardToken: Type.String({ minLength: 1, maxLength: 80 }) }),
  run(context, { key, cardToken }) {
    const { sql, now } = context;
    const ask = sql<Rows["reader_asks"]>("SELECT * FROM reader_asks WHERE key = ?").get(key);
    if (!ask) throw new Refusal("not-found");
    if (ask.ended_at !== null) return;
    const { jobId } = jobAtTheDoor(context, ask.visit_id);
    const paymentId = askCharge(context, {
      meant: { jobId, purpose: "invoice" },
      amountMinor: ask.amount_minor,
      tip: { minor: ask.tip_minor, technicianId: ask.technician_id },
      cardToken,
      how: "reader",
    });
    sql("UPDATE reader_asks SET ended_at = ?, payment_id = ? WHERE key = ?").run(now, paymentId, key);
  },
});

function jobAtTheDoor({ sql }: OperationContext, visitId: number): { jobId: number; due: number } {
  const job = sql<{ jobId: number; due: number }>(
    `SELECT v.job_id AS jobId, b.due_minor AS due
      FROM visits v JOIN job_balances b ON b.job_id = v.job_id WHERE v.id = ?`,
  ).get(visitId);
  if (!job) throw new Refusal("not-found");
  return job;
}

/** The job that is paid at the door and who takes it; refused where less is due, or no card can be charged. */
function dueAtTheDoor(context: OperationContext, visitId: number, amountMinor: number, tipMinor: number) {
  const { actor, business } = context;
  const technicianId = actor.kind === "person" ? actor.technicianId : null;
  if (technicianId === null)
    throw new Refusal("not-allowed", { sentence: "Nobody’s day belongs to this sign-in: take it in the office." });
  if (!takesCards(context))
    throw new Refusal("not-allowed", { sentence: "Cards cannot be charged here at the moment." });
  if (tipMinor > 0 && business.tips === 0) throw new Refusal("not-allowed", { sentence: "Tips are not taken here." });
  const { jobId, due } = jobAtTheDoor(context, visitId);
  if (amountMinor > due)
    throw new Refusal("amount-too-large", {
      fields: { "/amountMinor": `${moneyWords(due, business.currency)} is due here.` },
    });
  return { jobId, technicianId };
}
