import { type Minor, sum } from "./amounts";

/**
 * The double-entry journal: each event of money as entries that add up to nothing. Debits are
 * positive, credits negative. `held` is what customers have paid and no invoice has used yet:
 * deposits and credit.
 */
type Account = "card" | "cash" | "bank" | "receivable" | "held" | "sales" | "tax";

export interface JournalEntry {
  account: Account;
  amountMinor: Minor;
}

export const invoiceIssued = (totalMinor: Minor, taxMinor: Minor): JournalEntry[] =>
  balanced([
    { account: "receivable", amountMinor: totalMinor },
    { account: "sales", amountMinor: taxMinor - totalMinor },
    { account: "tax", amountMinor: -taxMinor },
  ]);

export const paymentReceived = (method: "card" | "cash" | "bank", amountMinor: Minor): JournalEntry[] =>
  balanced([
    { account: method, amountMinor },
    { account: "held", amountMinor: -amountMinor },
  ]);

export const paymentApplied = (amountMinor: Minor): JournalEntry[] =>
  balanced([
    { account: "held", amountMinor },
    { account: "receivable", amountMinor: -amountMinor },
  ]);

export const paymentRefunded = (method: "card" | "cash" | "bank", amountMinor: Minor): JournalEntry[] =>
  balanced([
    { account: "held", amountMinor },
    { account: method, amountMinor: -amountMinor },
  ]);

function balanced(entries: JournalEntry[]): JournalEntry[] {
  if (sum(entries.map((e) => e.amountMinor)) !== 0) throw new RangeError("Journal entries must add up to nothing");
  return entries.filter((e) => e.amountMinor !== 0);
}
