import { lookOf } from "@/core/look/front-door";
import { Refusal } from "@/core/problems";
import { openedBy, sealedToken } from "@/kernel/links";
import { sum } from "@/core/money/amounts";
import { addDays } from "@/core/time/dates";
import { DateText, Id, input } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { readFrontDoor } from "@/store/front-door";
import { ofStanding } from "../owed";
import { takesCards } from "../cards";
import { openParts } from "@/core/money/instalments";
import { InvoiceToken } from "../inputs";
import { paperOfInvoice, paperOfNote, paperOfPayment, statementOf } from "../papers";
import { dueNow, partsOffered } from "../parts";
import { entriesOfAccount } from "./customer-account";

/** An invoice as a paper: for its page, its PDF and its XML. */
export const invoicePaper = defineView({
  name: "invoice-paper",
  access: "money.see",
  about: { invoiceId: "invoice" },
  input: input({ invoiceId: Id }),
  read: (context, { invoiceId }) => paperOfInvoice(context, invoiceId),
});

export const creditNotePaper = defineView({
  name: "credit-note-paper",
  access: "money.see",
  about: { invoiceId: "invoice", noteId: "shared" },
  input: input({ invoiceId: Id, noteId: Id }),
  read: (context, { invoiceId, noteId }) => noteOf(context, invoiceId, noteId),
});

export const receiptPaper = defineView({
  name: "receipt-paper",
  access: "money.see",
  about: { paymentId: "payment" },
  input: input({ paymentId: Id }),
  read: (context, { paymentId }) => paperOfPayment(context, paymentId),
});

/** A customer's account between two days, both included, oldest first. */
export const statementPaper = defineView({
  name: "statement-paper",
  access: "money.see",
  about: { customerId: "customer" },
  input: input({ customerId: Id, from: DateText, to: DateText }),
  read: (context, asked) =>
    statementOf(context, { ...asked, entries: entriesOfAccount(context, asked.customerId).toReversed() }),
});

/** What the link of an invoice opens: the paper, what was taken back of it, and how it is paid. */
export const myInvoice = defineView({
  name: "my-invoice",
  access: "anybody",
  input: input({ token: InvoiceToken }),
  read(context, { token }) {
    const { sql, business, hogar } = context;
    const id = invoiceOf(context, token);
    const paper = paperOfInvoice(context, id);
    return {
      paper,
      /** What is open of each part, and what is to be paid by the next date. */
      parts: openParts(paper.parts ?? [], paper.openMinor),
      dueMinor: dueNow(context, id, paper.openMinor),
      /** In so many parts it may be paid, where that is offered and was not chosen yet. */
      partsOffered: paper.parts?.length || paper.openMinor <= 0 ? 1 : partsOffered(context, paper.openMinor),
      look: lookOf(readFrontDoor(hogar.store)),
      phone: business.phone,
      takesCards: takesCards(context),
      tips: context.business.tips === 1,
      today: context.today,
      notes: sql<{ id: number; label: string; totalMinor: number }>(
        "SELECT id, label, total_minor AS totalMinor FROM credit_notes WHERE invoice_id = ? ORDER BY id",
      ).all(id),
      /** The card that is being charged, or that was declined. */
      payment:
        sql<{ id: number; state: string; problem: string | null; stepAddress: string | null }>(
          `SELECT p.id, p.state, p.problem, p.step_address AS stepAddress
            FROM payments p JOIN invoices i ON i.id = @id
            WHERE p.method = 'card' AND (p.invoice_id = i.id OR (p.job_id = i.job_id AND p.purpose = 'invoice'))
            ORDER BY p.id DESC LIMIT 1`,
        ).get({ id }) ?? null,
    };
  },
});

/** What a customer's account link opens: all that is open, each with its own link, and the statement since the oldest of it. */
export const myAccount = defineView({
  name: "my-account",
  access: "anybody",
  input: input({ token: InvoiceToken }),
  read(context, { token }) {
    const { sql, hogar, business, today } = context;
    const opened = openedBy(hogar, "owed", token);
    if (opened === null) throw new Refusal("link-ended");
    const customerId = ofStanding(context, opened);
    const open = sql<{ id: number; label: string; issued: string; due: string; openMinor: number }>(
      `SELECT i.id, i.label, date(i.issued_at / 1000, 'unixepoch') AS issued, i.due_date AS due, b.open_minor AS openMinor
        FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id
        WHERE i.customer_id = ? AND b.open_minor > 0 ORDER BY i.due_date, i.id LIMIT 100`,
    ).all(customerId);
    const yearAgo = addDays(today, -365);
    const oldest = open.map(({ issued }) => issued).sort()[0] ?? yearAgo;
    return {
      today,
      look: lookOf(readFrontDoor(hogar.store)),
      currency: business.currency,
      takesCards: takesCards(context),
      /** The last charge for several of them at once. */
      payment:
        sql<{ state: string; problem: string | null; stepAddress: string | null }>(
          `SELECT state, problem, step_address AS stepAddress FROM payments
            WHERE customer_id = ? AND method = 'card' AND pays <> '[]' ORDER BY id DESC LIMIT 1`,
        ).get(customerId) ?? null,
      open: open.map(({ id, label, due, openMinor }) => ({
        id,
        label,
        due,
        openMinor,
        token: sealedToken(hogar, { kind: "invoice", id }),
      })),
      openMinor: sum(open.map(({ openMinor }) => openMinor)),
      statement: statementOf(context, {
        customerId,
        entries: entriesOfAccount(context, customerId).toReversed(),
        from: oldest < yearAgo ? oldest : yearAgo,
        to: today,
      }),
    };
  },
});

/** A credit note of the invoice that a link opens. */
export const myCreditNote = defineView({
  name: "my-credit-note",
  access: "anybody",
  input: input({ token: InvoiceToken, noteId: Id }),
  about: { noteId: "shared" },
  read: (context, { token, noteId }) => noteOf(context, invoiceOf(context, token), noteId),
});

function noteOf(context: ViewContext, invoiceId: number, noteId: number) {
  const known = context.sql("SELECT 1 FROM credit_notes WHERE id = ? AND invoice_id = ?").get(noteId, invoiceId);
  if (!known) throw new Refusal("not-found");
  return paperOfNote(context, noteId);
}

function invoiceOf({ hogar }: ViewContext, token: string): number {
  const id = openedBy(hogar, "invoice", token);
  if (id === null) throw new Refusal("link-ended");
  return id;
}
