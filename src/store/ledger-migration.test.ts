import { disagreements } from "@/core/money/balance";
import { readBooks } from "@/modules/money/books";
import { firstBroken } from "@/registry/laws";
import Database from "better-sqlite3";
import fc from "fast-check";
import { copyFileSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { gunzipSync } from "node:zlib";
import { openStore } from "./database";

const all = path.join(process.cwd(), "src/store/migrations");
const folder = mkdtempSync(path.join(tmpdir(), "hogar-ledger-"));
const before = path.join(folder, "before");
mkdirSync(before);
for (const name of readdirSync(all)) if (name < "019") copyFileSync(path.join(all, name), path.join(before, name));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What became of a job, as it was kept before there was a ledger: amounts in cents, shares in thousandths. */
const life = fc.record({
  total: fc.integer({ min: 0, max: 50_000 }),
  deposit: fc.integer({ min: 0, max: 1000 }),
  paid: fc.integer({ min: 0, max: 1000 }),
  refunded: fc.constantFrom("no", "asked", "refunded"),
  invoiced: fc.boolean(),
  reduced: fc.boolean(),
});
type Life = typeof life extends fc.Arbitrary<infer L> ? L : never;

/** A database of before, with the lives of some jobs in it. Answers the sums of its journal by account. */
function oldDatabase(file: string, lives: readonly Life[]): Map<string, number> {
  openStore(file, before).db.close();
  const db = new Database(file);
  db.pragma("foreign_keys = OFF");
  db.exec(`
    INSERT INTO customers (id, name, mail, phone, reminders, since_at) VALUES (1, 'Ada Ash', 'ada@example.com', '', 1, 0);
    INSERT INTO sites (id, customer_id, line, postcode, lng, lat, access) VALUES (1, 1, '1 Quay', 'MW 101', 0, 0, '');
    INSERT INTO services (id, code, name, category, description, price_minor, tax_bp, minutes, before_minutes, after_minutes, crew, deposit_kind, deposit_value, hue, active)
      VALUES (1, 'SW', 'Sweep', 'Sweeping', '', 100, 2100, 30, 0, 0, 1, 'none', 0, 0, 1);
  `);
  const run = (text: string, ...values: unknown[]) => db.prepare(text).run(...values).lastInsertRowid;
  const enter = (event: string, entries: Record<string, number>) => {
    for (const [account, minor] of Object.entries(entries))
      if (minor !== 0)
        run("INSERT INTO journal (event, at, account, amount_minor) VALUES (?, 5, ?, ?)", event, account, minor);
  };
  for (const [i, { total, deposit, paid, refunded, invoiced, reduced }] of lives.entries()) {
    const job = i + 1;
    const taxOf = (minor: number, bp: number) => Math.round((minor * bp) / (10_000 + bp));
    const half = reduced ? Math.floor(total / 2) : 0;
    const lines = [
      { minor: total - half, bp: 2100 },
      { minor: half, bp: 600 },
    ].filter(({ minor }, n) => n === 0 || minor > 0);
    const tax = lines.reduce((sum, { minor, bp }) => sum + taxOf(minor, bp), 0);
    run(
      `INSERT INTO jobs (id, customer_id, site_id, service_id, state, total_minor, tax_minor, deposit_minor, note, booked_at, booked_by)
        VALUES (?, 1, 1, 1, 'done', ?, ?, 0, '', 0, 'test')`,
      job,
      total,
      tax,
    );
    for (const [n, { minor, bp }] of lines.entries())
      run("INSERT INTO job_lines VALUES (?, ?, 'Work', 1, ?, ?, ?, ?)", job, n, minor, bp, minor, taxOf(minor, bp));
    let open = 0;
    if (invoiced) {
      run(
        "INSERT INTO invoices (id, number, job_id, customer_id, issued_at, due_date, total_minor, tax_minor) VALUES (?, ?, ?, 1, 1, '2027-01-01', ?, ?)",
        job,
        1001 + lives.slice(0, i).filter((one) => one.invoiced).length,
        job,
        total,
        tax,
      );
      enter(`invoice ${job}`, { receivable: total, sales: tax - total, tax: -tax });
      open = total;
    }
    for (const [purpose, share] of [
      ["deposit", deposit],
      ["invoice", paid],
    ] as const) {
      const minor = Math.floor((total * share) / 1000);
      if (minor === 0) continue;
      const id = Number(
        run(
          "INSERT INTO payments (customer_id, job_id, purpose, method, amount_minor, state, charge_key, asked_at, settled_at) VALUES (1, ?, ?, 'card', ?, 'received', ?, 2, 3)",
          job,
          purpose,
          minor,
          `${purpose} ${job}`,
        ),
      );
      enter(`payment ${id}`, { card: minor, held: -minor });
      const applied = Math.min(open, minor);
      open -= applied;
      if (applied) {
        run("INSERT INTO applications VALUES (?, ?, ?, 4)", id, job, applied);
        enter(`application of payment ${id} to invoice ${job}`, { held: applied, receivable: -applied });
      }
      if (refunded !== "no" && minor > applied) {
        const refund = Number(
          run(
            "INSERT INTO refunds (payment_id, amount_minor, refund_key, state, asked_at, reason) VALUES (?, ?, ?, ?, 5, 'Over')",
            id,
            minor - applied,
            `refund ${id}`,
            refunded,
          ),
        );
        if (refunded === "refunded") enter(`refund ${refund}`, { held: minor - applied, card: applied - minor });
      }
    }
  }
  const sums = db.prepare("SELECT account, sum(amount_minor) AS n FROM journal GROUP BY account").all() as {
    account: string;
    n: number;
  }[];
  db.close();
  return new Map(sums.map(({ account, n }) => [account, n]));
}

it("carries what was in the journal over to the ledger, to the cent, and every law holds", () => {
  let n = 0;
  fc.assert(
    fc.property(fc.array(life, { minLength: 1, maxLength: 12 }), (lives) => {
      const file = path.join(folder, `${n++}.sqlite`);
      const journal = oldDatabase(file, lives);
      const store = openStore(file);
      const sums = new Map(
        store
          .sql<{ account: string; n: number }>(
            `SELECT iif(account IN ('deposits', 'credit', 'refunds'), 'held', account) AS account, sum(amount_minor) AS n
              FROM ledger_entries GROUP BY 1 HAVING sum(amount_minor) <> 0`,
          )
          .all()
          .map(({ account, n }) => [account, n]),
      );
      expect(sums).toEqual(new Map([...journal].filter(([, minor]) => minor !== 0)));
      expect(firstBroken(store.sql)).toBeNull();
      store.db.close();
    }),
    { numRuns: 12 },
  );
});

it("carries the demo’s own data over, as it was before there was a ledger", () => {
  const file = path.join(folder, "demo.sqlite");
  writeFileSync(file, gunzipSync(readFileSync(path.join(__dirname, "fixtures/demo-of-017.sqlite.gz"))));
  const before = new Database(file, { readonly: true });
  const sums = (db: Pick<Database.Database, "prepare">, query: string) => db.prepare(query).get();
  const ofPapers = `SELECT (SELECT count(*) FROM invoices) AS invoices, (SELECT sum(total_minor) FROM invoices) AS invoiced,
    (SELECT sum(amount_minor) FROM payments WHERE state = 'received') AS received`;
  const [papers, applied] = [
    sums(before, ofPapers),
    sums(before, "SELECT sum(amount_minor) AS minor FROM applications"),
  ];
  before.close();
  expect(papers).toMatchObject({ invoices: expect.any(Number), received: expect.any(Number) });
  const store = openStore(file);
  expect(sums(store.db, ofPapers)).toEqual(papers);
  expect(sums(store.db, "SELECT sum(amount_minor) AS minor FROM allocations")).toEqual(applied);
  expect([firstBroken(store.sql), disagreements(readBooks(store.sql))]).toEqual([null, []]);
  store.db.close();
});
