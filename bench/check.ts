import { firstBroken } from "@/registry/laws";
import { smallWorld } from "@demo/small-world";

/** Every law of the data at so many invoices, and at four times as many: what grows with them, and by how much. */
const invoices = [12_500, 50_000];

/** `npm run bench -- check`: fails where four times the rows take more than eight times as long. */
export async function run(): Promise<void> {
  const took: number[] = [];
  for (const n of invoices) {
    const { hogar } = smallWorld();
    const { sql, db, audit } = hogar.store;
    // Straight into the tables, each row with its record and its entries, in some hundreds of transactions.
    for (let from = 0; from < n; from += 500)
      db.transaction(() =>
        audit.under({ at: from, actor: "bench", operation: "bench" }, () => {
          for (let i = from; i < from + 500; i++) {
            const customer = sql<{ id: number }>(
              "INSERT INTO customers (name, mail, phone, reminders, since_at) VALUES (?, '', '', 0, 0) RETURNING id",
            ).get(`Customer ${i}`)!.id;
            const invoice = sql<{ id: number }>(
              `INSERT INTO invoices (nonce, customer_id, number, label, year, issued_at, due_date, total_minor, tax_minor)
                VALUES (hex(randomblob(16)), ?, ?, ?, 0, 0, '2027-01-01', 1000, 0) RETURNING id`,
            ).get(customer, i + 1, `B-${i + 1}`)!.id;
            sql(
              "INSERT INTO invoice_lines (invoice_id, position, description, quantity, unit_minor, tax_bp, amount_minor, tax_minor) VALUES (?, 0, 'Work', 1, 1000, 0, 1000, 0)",
            ).run(invoice);
            const event = sql<{ id: number }>(
              "INSERT INTO ledger_events (at, kind, key) VALUES (0, 'invoice', ?) RETURNING id",
            ).get(`invoice ${invoice}`)!.id;
            for (const [line, account, minor] of [
              [0, "receivable", 1000],
              [1, "sales", -1000],
            ] as const)
              sql(
                "INSERT INTO ledger_entries (event_id, line, account, amount_minor, invoice_id) VALUES (?, ?, ?, ?, ?)",
              ).run(event, line, account, minor, invoice);
          }
        }),
      ).immediate();
    const started = performance.now();
    const broken = firstBroken(sql);
    took.push(performance.now() - started);
    if (broken) throw new Error(`${broken.law} ${broken.what}`);
    console.log(`  ${n.toLocaleString("en")} invoices: ${(took.at(-1)! / 1000).toFixed(1)} s`);
  }
  const ratio = took[1]! / took[0]!;
  console.log(`  four times the invoices take ${ratio.toFixed(1)} times as long`);
  if (ratio > 8) throw new Error("It grows faster than the rows do");
}
