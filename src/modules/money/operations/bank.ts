import { Refusal } from "@/core/problems";
import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { type Line, matchLine, openLine, reopenLine } from "../bank";

const MatchBankLine = input({
  lineId: Id,
  match: Type.Union([
    input({
      kind: OneOf(["invoices"]),
      customerId: Id,
      /** So much of which invoice; what is not named stays with the customer as credit. */
      invoices: Type.Array(input({ invoiceId: Id, amountMinor: Type.Integer({ minimum: 1, maximum: 100_000_000 }) }), {
        maxItems: 200,
      }),
    }),
    input({ kind: OneOf(["payout", "recorded", "refund"]), id: Id }),
  ]),
});

/** A line of the bank is what it is said to be. */
export const matchBankLine = defineOperation({
  name: "match-bank-line",
  access: "money.change of all",
  about: {
    lineId: "shared",
    "match.customerId": "customer",
    "match.id": "shared",
    "match.invoices.invoiceId": "invoice",
  },
  input: MatchBankLine,
  run: (context, { lineId, match }) => matchLine(context, openLine(context, lineId), match),
});

/** A line is none of our payments: rent, wages, the bank's own fees. */
export const setAsideBankLine = defineOperation({
  name: "set-aside-bank-line",
  access: "money.change of all",
  about: { lineId: "shared" },
  input: input({
    lineId: Id,
    why: Type.String({ minLength: 2, maxLength: 200, pattern: "\\S", patternSentence: "Write what it is." }),
  }),
  run(context, { lineId, why }) {
    const line = openLine(context, lineId);
    context.sql("UPDATE bank_lines SET state = 'set aside', why = ? WHERE id = ?").run(why.trim(), line.id);
  },
});

/** A line was matched or set aside wrongly: it is open again, and what was recorded from it is taken back. */
export const reopenBankLine = defineOperation({
  name: "reopen-bank-line",
  access: "money.change of all",
  about: { lineId: "shared" },
  input: input({ lineId: Id }),
  run(context, { lineId }) {
    const line = context.sql<Line>("SELECT * FROM bank_lines WHERE id = ?").get(lineId);
    if (!line) throw new Refusal("not-found");
    reopenLine(context, line);
  },
});
