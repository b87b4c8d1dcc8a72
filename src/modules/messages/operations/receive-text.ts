import { input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";

const ReceiveText = input({
  sender: Type.String({ maxLength: 40 }),
  body: Type.String({ minLength: 1, maxLength: 1000 }),
});

/** A text that a customer sent. */
export const receiveText = defineOperation({
  name: "receive-text",
  access: "system",
  input: ReceiveText,
  run({ sql, now }, { sender, body }) {
    const customer = sql<{ id: number }>(
      `SELECT id
        FROM (SELECT id, phone FROM customers WHERE merged_into IS NULL UNION ALL SELECT customer_id, phone FROM jobs WHERE phone <> '')
        WHERE phone = ? ORDER BY id DESC LIMIT 1`,
    ).get(sender);
    insertRow(sql, "replies", { customer_id: customer?.id ?? null, sender, body, received_at: now });
  },
});
