import { Refusal } from "@/core/problems";
import { Id, input, OrNull } from "@/kernel/inputs";
import { openedBy } from "@/kernel/links";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { sum } from "@/core/money/amounts";
import { takesCards } from "../cards";
import { askCharge } from "../charging";
import { InvoiceToken } from "../inputs";
import { ofStanding } from "../owed";

const Invoices = Type.Array(Id, { minItems: 1, maxItems: 40, uniqueItems: true });
const CardToken = Type.String({ minLength: 1, maxLength: 80 });

/** The office charges what is open of one invoice or several to a card of their customer: one that we keep, or one that is typed, as they have said. */
export const chargeInvoices = defineOperation({
  name: "charge-invoices",
  access: "money.change",
  about: { customerId: "customer", invoiceIds: "invoice", cardId: "card" },
  input: input({ customerId: Id, invoiceIds: Invoices, cardId: OrNull(Id), cardToken: OrNull(CardToken) }),
  run(context, { customerId, invoiceIds, cardId, cardToken }) {
    const kept = context
      .sql<{ reference: string }>("SELECT reference FROM cards WHERE id = ? AND customer_id = ? AND removed_at IS NULL")
      .get(cardId, customerId);
    const card = cardToken ?? kept?.reference;
    if (!card) throw new Refusal("invalid-input", { fields: { "/cardId": "Choose a card, or type one." } });
    return charge(context, customerId, invoiceIds, { cardToken: card, how: cardToken === null ? "on file" : "typed" });
  },
});

/** A customer pays all that is open, or some of it, by the link of their account. */
export const payOwed = defineOperation({
  name: "pay-owed",
  access: "anybody",
  about: { invoiceIds: "shared" },
  input: input({ token: InvoiceToken, invoiceIds: Invoices, cardToken: CardToken }),
  run(context, { token, invoiceIds, cardToken }) {
    const opened = openedBy(context.hogar, "owed", token);
    if (opened === null) throw new Refusal("link-ended");
    return charge(context, ofStanding(context, opened), invoiceIds, { cardToken, how: "link" });
  },
});

/** One charge for what is open of these invoices, which are all of this customer. */
function charge(
  context: OperationContext,
  customerId: number,
  invoiceIds: readonly number[],
  card: { cardToken: string; how: "on file" | "typed" | "link" },
): { amountMinor: number } {
  if (!takesCards(context))
    throw new Refusal("not-allowed", { sentence: "Cards cannot be charged here at the moment." });
  const open = context
    .sql<{ invoiceId: number; jobId: number | null; amountMinor: number }>(
      `SELECT invoice_id AS invoiceId, job_id AS jobId, open_minor AS amountMinor FROM invoice_balances
        WHERE customer_id = ? AND invoice_id IN (SELECT value FROM json_each(?)) AND open_minor > 0 ORDER BY due_date, invoice_id`,
    )
    .all(customerId, JSON.stringify(invoiceIds));
  if (open.length < invoiceIds.length)
    throw new Refusal("nothing-due", { sentence: "Something of this has been paid meanwhile: look again." });
  const [first] = open;
  const amountMinor = sum(open.map((one) => one.amountMinor));
  const meant =
    open.length > 1
      ? ({ jobId: null, purpose: "account", customerId, invoices: open } as const)
      : first!.jobId === null
        ? ({ jobId: null, purpose: "account", invoiceId: first!.invoiceId } as const)
        : ({ jobId: first!.jobId, purpose: "invoice" } as const);
  askCharge(context, { meant, amountMinor, ...card });
  return { amountMinor };
}
