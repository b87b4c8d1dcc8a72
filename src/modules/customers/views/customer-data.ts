import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { notRepeated } from "@/store/audit";
import { knownAs, scoped, scopeOf } from "../personal";

/** Where somebody booked from is about them, though the record of changes does not repeat it. */
const aboutThem = new Set(["from_address", "from_browser"]);
/** What opens or charges something is handed out to nobody. */
const keys = new Set([
  ...[...notRepeated].filter((name) => !aboutThem.has(name)),
  ...["charge_key", "refund_key", "form_key", "reference", "key"],
]);

/** What is written down of a customer, by table, for whoever asks to see it: what they are called, what they booked, wrote, were told and paid. */
export const customerData = defineView({
  name: "customer-data",
  access: "customers.change of all",
  about: { customerId: "customer" },
  input: input({ customerId: Id }),
  read(context, { customerId }): Record<string, Record<string, unknown>[]> {
    const { sql } = context;
    const customers = knownAs(context, customerId);
    if (!customers.length) throw new Refusal("not-found");
    const scope = scopeOf(context, customers);
    return Object.fromEntries(
      scoped.flatMap((table) => {
        const columns = sql<{ name: string }>(`SELECT name FROM pragma_table_info('${table}')`)
          .all()
          .map(({ name }) => name)
          .filter((name) => !keys.has(name));
        const rows = sql<Record<string, unknown>>(
          `SELECT ${columns.join(", ")} FROM ${table} WHERE id IN (SELECT value FROM json_each(?)) ORDER BY id`,
        ).all(scope[table]);
        return rows.length ? [[table, rows]] : [];
      }),
    );
  },
});
