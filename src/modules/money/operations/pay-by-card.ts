import { PayByCard } from "@/schemas/money";
import { Refusal } from "@/core/problems";
import { cardOf } from "./cards";
import { askCharge } from "./charging";
import { defineOperation } from "./door";

/** A customer pays from the private link: the deposit of a booking, or what is open on the invoice; with a card, or with the one we keep. */
export const payByCard = defineOperation({
  name: "pay-by-card",
  access: "link",
  input: PayByCard,
  run(context, { purpose, cardToken, keepCard = false }) {
    const { sql, actor } = context;
    if (actor.kind !== "link") throw new Refusal("not-allowed");
    const { jobId } = actor;
    const card = cardToken ?? cardOf(context, jobId)?.reference;
    if (!card) throw new Refusal("invalid-input", { fields: { "/cardToken": "Enter a card to pay with." } });
    const amountMinor = purpose === "deposit" ? depositDue() : invoiceDue();
    if (amountMinor <= 0) throw new Refusal("nothing-due");
    askCharge(context, { jobId, purpose, amountMinor, cardToken: card, keepsCard: cardToken !== null && keepCard });

    function depositDue(): number {
      return (
        sql<{ deposit_minor: number }>(
          "SELECT deposit_minor FROM jobs WHERE id = ? AND state = 'awaiting deposit'",
        ).get(jobId)?.deposit_minor ?? 0
      );
    }
    function invoiceDue(): number {
      return (
        sql<{ due: number }>(
          `SELECT i.total_minor - coalesce((SELECT sum(amount_minor) FROM applications WHERE invoice_id = i.id), 0) AS due
         FROM invoices i WHERE i.job_id = ? AND i.cancelled_at IS NULL`,
        ).get(jobId)?.due ?? 0
      );
    }
  },
});
