import { type Minor, sum } from "./amounts";
import type { Account } from "./ledger";

/** What the ledger holds by account, debits positive, and the papers it must agree with. */
export interface Books {
  accounts: Partial<Record<Account, Minor>>;
  /** Sums of invoices, of credit notes, of payments that stand, of refunds that were asked and of those that have gone. */
  papers: { invoiced: Minor; credited: Minor; received: Minor; refundsAsked: Minor; refunded: Minor };
}

const on = ({ accounts }: Books, ...names: Account[]): Minor => sum(names.map((name) => accounts[name] ?? 0));

/** Where money is that was received and not given back; less the tips in it, which are no payment of anything. */
const places = [
  "card",
  "bank",
  "cash",
  "cash out",
  "on the way",
  "disputed",
  "gateway fees",
  "tips",
  "cash differences",
  "own",
] as const;

/** What customers have with us: paid ahead, overpaid, on account. */
export const keptCredit = (books: Books): Minor => 0 - on(books, "deposits", "credit");

/** What customers owe on invoices. */
export const owed = (books: Books): Minor => on(books, "receivable");

/** What payments have paid of invoices: what was asked and neither taken back nor given up, less what is still owed. */
export const applied = (books: Books): Minor =>
  books.papers.invoiced - books.papers.credited - on(books, "write-offs") - owed(books);

/** What does not agree, in sentences; none where every cent is accounted for. Each row by itself is what `hogar check` looks at. */
export function disagreements(books: Books): string[] {
  const { invoiced, credited, received, refundsAsked, refunded } = books.papers;
  const laws: [boolean, string][] = [
    [sum(Object.values(books.accounts)) === 0, "The trial balance is not zero."],
    [0 - on(books, "sales", "tax") === invoiced - credited, "The invoices are not those of the ledger."],
    [on(books, ...places) === received - refunded, "The payments are not those of the ledger."],
    [0 - on(books, "refunds") === refundsAsked - refunded, "The refunds are not those of the ledger."],
  ];
  return laws.flatMap(([holds, sentence]) => (holds ? [] : [sentence]));
}
