import type { Minor } from "./amounts";

/** What the rows say and what the journal says: the same money, written down twice. */
export interface Books {
  rows: {
    /** Of payments that were received, of what was applied to invoices, of refunds, and of refunds still on their way. */
    received: Minor;
    applied: Minor;
    refunded: Minor;
    refundsAsked: Minor;
    /** What is open on invoices that stand. */
    open: Minor;
    /** Payments of which more was used than came in, and invoices to which more was applied than they ask. */
    overdrawnPayments: number;
    overpaidInvoices: number;
  };
  /** Sums of the journal's accounts, debits positive. */
  journal: { received: Minor; held: Minor; receivable: Minor; all: Minor; unbalancedEvents: number };
}

/** What customers have paid and neither an invoice has used nor a refund has taken: the journal's `held`, less refunds on their way. */
export const keptCredit = ({ rows, journal }: Books): Minor => 0 - journal.held - rows.refundsAsked;

/** What does not agree, in sentences; none where every cent is accounted for. */
export function disagreements(books: Books): string[] {
  const { rows, journal } = books;
  const laws: [boolean, string][] = [
    [journal.all === 0 && journal.unbalancedEvents === 0, "The journal does not balance."],
    [rows.overdrawnPayments === 0, "More of a payment was used than came in."],
    [rows.overpaidInvoices === 0, "More was applied to an invoice than it asks."],
    [
      rows.received === rows.applied + rows.refunded + keptCredit(books),
      "What was received is not what was applied, refunded and kept.",
    ],
    [
      journal.received === rows.received - rows.refunded + rows.refundsAsked,
      "The journal’s receipts are not those of the payments.",
    ],
    [journal.receivable === rows.open, "The journal’s receivables are not what is open on invoices."],
  ];
  return laws.flatMap(([holds, sentence]) => (holds ? [] : [sentence]));
}
