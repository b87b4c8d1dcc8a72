import { Refusal } from "@/core/problems";
import { Id, input, Nothing, OneOf, OrNull } from "@/kernel/inputs";
import { openedBy } from "@/kernel/links";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { cardsOf, takesCards } from "../cards";
import { tipOf } from "../tips";
import { askCharge, leaveSteps } from "../charging";
import { InvoiceToken } from "../inputs";
import { ofStanding } from "../owed";
import { dueNow } from "../parts";

/** Given beside what is due, where the owner wants tips; typed wrongly, it is no fortune. */
const TipMinor = Type.Integer({ minimum: 0, maximum: 100_000 });
/** With a card as its form gives it, to be kept or not; without one, the card on file is charged. */
const PayByCard = input({
  purpose: OneOf(["deposit", "invoice"]),
  cardToken: OrNull(Type.String({ minLength: 1, maxLength: 80 })),
  /** Which of the cards we keep, where no other one is given; the first one where none is named. */
  cardId: Type.Optional(Id),
  keepCard: Type.Optional(Type.Boolean()),
  tipMinor: Type.Optional(TipMinor),
});

/** A customer pays from the private link: the deposit of a booking, or what is open on the invoice; with a card, or with the one we keep. */
export const payByCard = defineOperation({
  name: "pay-by-card",
  access: "link",
  about: { cardId: "shared" },
  input: PayByCard,
  run(context, { purpose, cardToken, cardId, keepCard = false, tipMinor = 0 }) {
    const { sql, actor } = context;
    if (actor.kind !== "link") throw new Refusal("not-allowed");
    const { jobId } = actor;
    if (!takesCards(context))
      throw new Refusal("not-allowed", { sentence: "Cards cannot be charged here at the moment." });
    const kept = cardsOf(context, jobId);
    const card = cardToken ?? kept.find(({ id }) => id === (cardId ?? kept[0]?.id))?.reference;
    if (!card) throw new Refusal("invalid-input", { fields: { "/cardToken": "Enter a card to pay with." } });
    const amountMinor = purpose === "deposit" ? depositDue() : invoiceDue();
    if (amountMinor <= 0) throw new Refusal("nothing-due");
    askCharge(context, {
      meant: { jobId, purpose },
      amountMinor,
      tip: tipOf(context, purpose === "invoice" ? tipMinor : 0, jobId),
      cardToken: card,
      how: cardToken === null ? "on file" : "link",
      keepsCard: cardToken !== null && keepCard,
    });

    function depositDue(): number {
      return (
        sql<{ deposit_minor: number }>(
          "SELECT deposit_minor FROM jobs WHERE id = ? AND state = 'awaiting deposit'",
        ).get(jobId)?.deposit_minor ?? 0
      );
    }
    function invoiceDue(): number {
      return (
        sql<{ open_minor: number }>("SELECT open_minor FROM invoice_balances WHERE job_id = ?").get(jobId)
          ?.open_minor ?? 0
      );
    }
  },
});

/** Whoever has the link of an invoice pays what is open on it, or the part that is due. */
export const payInvoice = defineOperation({
  name: "pay-invoice",
  access: "anybody",
  input: input({
    token: InvoiceToken,
    cardToken: Type.String({ minLength: 1, maxLength: 80 }),
    tipMinor: Type.Optional(TipMinor),
    /** All that is open, or what is due now where it is paid in parts. */
    all: Type.Optional(Type.Boolean()),
  }),
  run(context, { token, cardToken, tipMinor = 0, all = true }) {
    const { sql, hogar } = context;
    if (!takesCards(context))
      throw new Refusal("not-allowed", { sentence: "Cards cannot be charged here at the moment." });
    const id = openedBy(hogar, "invoice", token);
    if (id === null) throw new Refusal("link-ended");
    const invoice = sql<{ job_id: number | null; open_minor: number }>(
      "SELECT job_id, open_minor FROM invoice_balances WHERE invoice_id = ?",
    ).get(id)!;
    if (invoice.open_minor <= 0) throw new Refusal("nothing-due");
    askCharge(context, {
      meant:
        invoice.job_id === null
          ? { jobId: null, purpose: "account", invoiceId: id }
          : { jobId: invoice.job_id, purpose: "invoice" },
      amountMinor: all ? invoice.open_minor : dueNow(context, id, invoice.open_minor),
      tip: tipOf(context, tipMinor, invoice.job_id),
      cardToken,
      how: "link",
    });
  },
});

/** A customer whose bank asks for a second step takes another card: by the link of their visit. */
export const takeAnotherCard = defineOperation({
  name: "take-another-card",
  access: "link",
  input: Nothing,
  run(context) {
    const { actor } = context;
    if (actor.kind !== "link") throw new Refusal("not-allowed");
    leaveSteps(context, { jobId: actor.jobId });
  },
});

/** The same by the link of an invoice, or of all that is owed. */
export const takeAnotherCardFor = defineOperation({
  name: "take-another-card-for",
  access: "anybody",
  input: input({ token: InvoiceToken, of: OneOf(["invoice", "owed"]) }),
  run(context, { token, of }) {
    const id = openedBy(context.hogar, of, token);
    if (id === null) throw new Refusal("link-ended");
    leaveSteps(context, of === "invoice" ? { invoiceId: id } : { customerId: ofStanding(context, id) });
  },
});
