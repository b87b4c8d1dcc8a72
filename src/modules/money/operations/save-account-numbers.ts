import { accounts } from "@/core/money/ledger";
import { input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";

/** The owner's own numbers of the ledger's accounts; an empty one takes it away. */
export const saveAccountNumbers = defineOperation({
  name: "save-account-numbers",
  access: "money.change of all",
  input: input({
    numbers: Type.Array(input({ account: OneOf(accounts), number: Type.String({ maxLength: 20 }) }), {
      maxItems: accounts.length,
    }),
  }),
  run({ sql }, { numbers }) {
    for (const { account, number } of numbers) {
      sql("DELETE FROM account_numbers WHERE account = ?").run(account);
      if (number.trim()) insertRow(sql, "account_numbers", { account, number: number.trim() });
    }
  },
});
