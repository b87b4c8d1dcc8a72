import type { Minor } from "./amounts";

/** A receipt with money left on it, or an invoice with money due, oldest first. */
export interface OpenAmount {
  id: number;
  openMinor: Minor;
}

export interface Application {
  paymentId: number;
  invoiceId: number;
  amountMinor: Minor;
}

/** A sum given to invoices in their order, as far as it goes: those that get a part, each with it. */
export function giveTo<I extends OpenAmount>(
  amountMinor: Minor,
  due: readonly I[],
): { invoice: I; amountMinor: Minor }[] {
  let left = amountMinor;
  return due.flatMap((invoice) => {
    const part = Math.min(left, invoice.openMinor);
    left -= Math.max(0, part);
    return part > 0 ? [{ invoice, amountMinor: part }] : [];
  });
}

/** Applies what was received to what is due, oldest to oldest, never more than is left on either. */
export function applyReceived(received: readonly OpenAmount[], due: readonly OpenAmount[]): Application[] {
  const applications: Application[] = [];
  const left = received.map((payment) => ({ ...payment }));
  for (const invoice of due) {
    let open = invoice.openMinor;
    for (const payment of left) {
      const amountMinor = Math.min(open, payment.openMinor);
      if (amountMinor <= 0) continue;
      applications.push({ paymentId: payment.id, invoiceId: invoice.id, amountMinor });
      payment.openMinor -= amountMinor;
      open -= amountMinor;
    }
  }
  return applications;
}

export type InvoiceState = "paid" | "part paid" | "open" | "overdue" | "credited" | "written off";

/** An invoice by the ledger: what it asks, what is open on it, and what of it payments have paid and credit notes have taken back. */
export interface InvoiceStanding {
  totalMinor: Minor;
  openMinor: Minor;
  appliedMinor: Minor;
  creditedMinor: Minor;
  dueDate: string;
}

/** How an invoice stands on `today`. */
export function invoiceState(
  { totalMinor, openMinor, appliedMinor, creditedMinor, dueDate }: InvoiceStanding,
  today: string,
): InvoiceState {
  if (openMinor > 0) return dueDate < today ? "overdue" : openMinor < totalMinor ? "part paid" : "open";
  if (totalMinor > 0 && creditedMinor >= totalMinor) return "credited";
  return appliedMinor + creditedMinor < totalMinor ? "written off" : "paid";
}

/** The invoices one looks at together. */
export const invoicesShown = ["all", "open", "overdue", "part paid", "paid"] as const;
export type InvoicesShown = (typeof invoicesShown)[number];

/** The payments one looks at together. */
export const paymentsShown = ["all", "not used up", "under way", "declined"] as const;
export type PaymentsShown = (typeof paymentsShown)[number];
