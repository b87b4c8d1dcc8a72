import { invoicesShown, type InvoicesShown, paymentsShown, type PaymentsShown } from "@/core/money/applying";

/** A list of Money, and which part of it. */
export type MoneyList = { list: "invoices"; show: InvoicesShown } | { list: "payments"; show: PaymentsShown };

/** What an address of Money shows; all invoices where it says nothing that there is. */
export function moneyListOf({ list, show }: { list?: string; show?: string }): MoneyList {
  if (list === "payments") return { list, show: paymentsShown.find((s) => s === show) ?? "all" };
  return { list: "invoices", show: invoicesShown.find((s) => s === show) ?? "all" };
}
