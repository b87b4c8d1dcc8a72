import { accounts } from "@/core/money/ledger";
import { reportNames } from "@/core/money/reports";
import { Refusal } from "@/core/problems";
import { DateText, input, Nothing, OneOf } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { reportOf } from "../reporting";

/** One look back at the books, between two days, both included. */
export const report = defineView({
  name: "report",
  access: "money.see of all",
  input: input({ name: OneOf(reportNames), from: DateText, to: DateText }),
  read(context, { name, from, to }) {
    if (to < from) throw new Refusal("invalid-input", { fields: { "/to": "The last day comes after the first." } });
    return { currency: context.business.currency, ...reportOf(context, name, { from, to }) };
  },
});

/** Up to which day the books are closed; null where all are open. */
export const booksClosed = defineView({
  name: "books-closed",
  access: "money.see of all",
  input: Nothing,
  read: ({ business }) => ({ closedTo: business.books_closed_to }),
});

/** The accounts of the ledger with the owner's own numbers, empty where there is none. */
export const accountNumbers = defineView({
  name: "account-numbers",
  access: "money.see of all",
  input: Nothing,
  read({ sql }) {
    const known = new Map(
      sql<{ account: string; number: string }>("SELECT account, number FROM account_numbers")
        .all()
        .map(({ account, number }) => [account, number]),
    );
    return accounts.map((account) => ({ account, number: known.get(account) ?? "" }));
  },
});
