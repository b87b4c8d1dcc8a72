import type { ViewOutput } from "@/api/client";
import { type Age, ages } from "@/core/money/ages";
import { invoicesShown, type InvoicesShown, paymentsShown, type PaymentsShown } from "@/core/money/applying";

/** What the sheet of an invoice reads. */
export type Invoice = ViewOutput<"invoice">;

/** Which lines of the bank. */
export const bankShown = ["open", "matched", "posted", "set aside", "all"] as const;
export type BankShown = (typeof bankShown)[number];

/** A part of Money: where it opens, a list and which part of it, or what is to be billed. */
export type MoneyPart =
  | { list: "overview" }
  | { list: "invoices"; show: InvoicesShown; age: Age | null }
  | { list: "payments"; show: PaymentsShown }
  | { list: "credits" }
  | { list: "payouts" }
  | { list: "collection" }
  | { list: "bank"; show: BankShown }
  | { list: "to-bill" }
  | { list: "reports" };

/** What an address of Money shows; where it opens, where it says nothing that there is. */
export function moneyPartOf({ list, show, age }: { list?: string; show?: string; age?: string }): MoneyPart {
  if (list === "invoices")
    return {
      list,
      show: invoicesShown.find((s) => s === show) ?? "all",
      age: ages.find((one) => one === age) ?? null,
    };
  if (list === "payments") return { list, show: paymentsShown.find((s) => s === show) ?? "all" };
  if (list === "bank") return { list, show: bankShown.find((s) => s === show) ?? "open" };
  const plain = ["to-bill", "reports", "credits", "payouts", "collection"] as const;
  return { list: plain.find((one) => one === list) ?? "overview" };
}

/** The address of a part of Money, and of an invoice that is open over it. */
export function moneyAddress(part: MoneyPart, id: number | null): string {
  const query = new URLSearchParams({ list: part.list });
  if ("show" in part) query.set("show", part.show);
  if ("age" in part && part.age) query.set("age", part.age);
  if (id) query.set("id", String(id));
  return `/money?${query.toString()}`;
}
