import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { eraseCustomer as erase } from "../erasing";
import { openBusinessWith } from "../open-business";

const ArchiveCustomer = input({ customerId: Id, archived: Type.Boolean() });
const EraseCustomer = input({ customerId: Id });

/** Puts a customer away, out of the lists, or brings them back. Nothing may be coming. */
export const archiveCustomer = defineOperation({
  name: "archive-customer",
  access: "customers.change",
  about: { customerId: "customer" },
  input: ArchiveCustomer,
  run(context, { customerId, archived }) {
    const { coming } = openBusinessWith(context, customerId);
    if (archived && coming.length)
      throw new Refusal("in-use", {
        sentence: `There is still ${coming.join(" and ")}. Cancel what is to come first.`,
      });
    const { changes } = context
      .sql("UPDATE customers SET archived_at = ? WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL")
      .run(archived ? context.now : null, customerId);
    if (changes === 0) throw new Refusal("not-found");
  },
});

/** Erases who a customer was, for good, as they may ask. Money and its numbers stay. */
export const eraseCustomer = defineOperation({
  name: "erase-customer",
  access: "customers.change of all",
  input: EraseCustomer,
  run(context, { customerId }) {
    if (
      !context.sql("SELECT 1 FROM customers WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL").get(customerId)
    )
      throw new Refusal("not-found");
    erase(context, customerId);
  },
});
