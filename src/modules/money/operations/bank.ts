import { Refusal } from "@/core/problems";
import { Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { type Line, matchLine, openLine, postLine, reopenLine } from "../bank";

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
    input({ kind: OneOf(["payout", "recorded", "refund", "returned"]), id: Id }),
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

/** A line is none of our payments, and is posted to an account of the owner's own: the bank's fees, rent, interest. */
export const postBankLine = defineOperation({
  name: "post-bank-line",
  access: "money.change of all",
  about: { lineId: "shared", accountId: "shared" },
  input: input({ lineId: Id, accountId: Id }),
  run: (context, { lineId, accountId }) => postLine(context, openLine(context, lineId), accountId),
});

const NameOfAccount = Type.String({ minLength: 2, maxLength: 60, pattern: "\\S", patternSentence: "Give it a name." });

/** An account of the owner's own, made or changed; one that is used no more is offered no more. */
export const saveOwnAccount = defineOperation({
  name: "save-own-account",
  access: "money.change of all",
  about: { id: "shared" },
  input: input({
    id: OrNull(Id),
    name: NameOfAccount,
    number: Type.String({ maxLength: 20 }),
    active: Type.Boolean(),
  }),
  run({ sql }, { id, name, number, active }) {
    const account = { name: name.trim(), number: number.trim(), active: active ? (1 as const) : (0 as const) };
    if (sql("SELECT 1 FROM own_accounts WHERE name = ? AND id IS NOT ?").get(account.name, id))
      throw new Refusal("invalid-input", { fields: { "/name": "There is an account of this name already." } });
    if (id === null) return { id: insertRow(sql, "own_accounts", account) };
    const { changes } = sql(
      "UPDATE own_accounts SET name = @name, number = @number, active = @active WHERE id = @id",
    ).run({ ...account, id });
    if (changes === 0) throw new Refusal("not-found");
    return { id };
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
