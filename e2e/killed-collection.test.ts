import { disagreements } from "@/core/money/balance";
import { epochMinute } from "@/core/time/local";
import { mustPerform } from "@/kernel/operation";
import { saveCollection } from "@/modules/collection/operations/choices";
import { readBooks } from "@/modules/money/books";
import { makeInvoice } from "@/modules/money/operations/billing";
import { firstBroken } from "@/registry/laws";
import { runDue } from "@/worker/loop";
import { office, smallWorld } from "@demo/small-world";
import Database from "better-sqlite3";
import { buildSync } from "esbuild";
import { spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";

const [good, declined, slow] = ["9900000000001006", "9900000000002004", "9900000000004000"];
const invoices = 200;
const runAt = epochMinute("2027-03-11", 541, "Europe/Lisbon") * 60_000;

/** Two hundred people who owe €10.00 and were told that it is charged on 11 March 2027 at nine; every tenth card answers too late, every tenth is declined before a second one. */
async function toldOfCharges(folder: string) {
  const world = smallWorld({}, folder);
  const { hogar } = world;
  const { jobId } = world.booked();
  const { sql, db, audit } = hogar.store;
  const token = (number: string) => hogar.standins!.cards.tokenFor(number)!;
  db.transaction(() =>
    audit.under({ at: 1, actor: "test", operation: "test" }, () => {
      for (let i = 0; i < invoices; i++) {
        const { id } = sql<{ id: number }>(
          "INSERT INTO customers (name, mail, phone, reminders, since_at) VALUES (?, ?, '', 1, 0) RETURNING id",
        ).get(`Customer ${i}`, `customer${i}@example.com`)!;
        const numbers = i % 10 === 0 ? [slow] : i % 10 === 1 ? [declined, good] : [good];
        for (const [position, number] of numbers.entries())
          sql(
            "INSERT INTO cards (customer_id, job_id, reference, label, kept_at, collects, position) VALUES (?, ?, ?, ?, 1, 1, CAST(? AS INTEGER))",
          ).run(id, jobId, token(number!), `card ${position + 1}`, position);
      }
    }),
  )();
  mustPerform(
    hogar,
    saveCollection,
    { on: true, weekdays: 31, at: 540, daysPastDue: 0, smallestMinor: 0, cards: 2, again: [3] },
    office,
  );
  for (const { id: customerId } of sql<{ id: number }>("SELECT id FROM customers WHERE name LIKE 'Customer %'").all())
    mustPerform(
      hogar,
      makeInvoice,
      {
        customerId,
        lines: [{ description: "Work", quantity: 1, unitMinor: 1_000, taxBp: 2_300, discountBp: 0 }],
        discountBp: 0,
        before: "",
        after: "",
        dueDate: "2027-03-11",
        key: `invoice of ${customerId}`,
      },
      office,
    );
  world.at("2027-03-10", 541);
  await runDue(hogar);
  return hogar;
}

/** What the card service itself has charged. */
function chargesOf(folder: string) {
  const standin = new Database(path.join(folder, "standins/services.sqlite"), { readonly: true });
  const charged = standin
    .prepare("SELECT count(*) AS received, sum(amount_minor) AS sumMinor FROM charges WHERE state = 'received'")
    .get();
  standin.close();
  return charged;
}

const root = path.resolve(__dirname, "..");
const folder = mkdtempSync(path.join(tmpdir(), "hogar-killed-"));
/** The worker in one file, since each of its many lives reads it anew: beside the packages that it asks for. */
const script = path.join(root, "node_modules/.cache", path.basename(folder), "worker.mjs");
afterAll(() => {
  for (const made of [folder, path.dirname(script)]) rmSync(made, { recursive: true, force: true });
});

it("charges each of 200 invoices exactly once, however often the worker is killed", async () => {
  const hogar = await toldOfCharges(folder);
  const { sql } = hogar.store;
  expect(sql("SELECT count(*) AS n FROM collection_notices").get()).toEqual({ n: invoices });

  buildSync({
    entryPoints: [path.join(__dirname, "support/collecting-worker.ts")],
    outfile: script,
    bundle: true,
    platform: "node",
    format: "esm",
    packages: "external",
    tsconfig: path.join(root, "tsconfig.json"),
  });
  const works = (life: number, phase: string, nth: number) =>
    new Promise<[number | null, string | null]>((resolve) =>
      spawn(process.execPath, [script, folder, `${runAt}`, `${life}`, phase, `${nth}`], {
        cwd: root,
        stdio: "inherit",
      }).once("exit", (code, signal) => resolve([code, signal])),
    );
  // Twenty lives that end at another point each; what is counted is what is done within that life: looks at the clock are
  // all over the asking and the posting, also within transactions.
  const ends: [string, number][] = [
    ...[20, 60, 120, 200].map((nth): [string, number] => ["clock", nth]),
    ...[1, 2, 3, 1, 4, 2, 5, 3, 2, 6, 4, 1].map((nth, i): [string, number] => [i % 2 ? "after" : "before", nth]),
    ...[1, 2, 3, 4].map((nth): [string, number] => ["mail", nth]),
  ];
  for (const [i, [phase, nth]] of ends.entries())
    expect([phase, nth, ...(await works(i + 1, phase, nth))]).toEqual([phase, nth, null, "SIGKILL"]);
  expect(await works(21, "never", 1)).toEqual([0, null]);

  const notOnce = sql(
    `SELECT i.label, count(p.id) AS received FROM invoices i LEFT JOIN payments p ON p.invoice_id = i.id AND p.state = 'received'
      GROUP BY i.id HAVING count(p.id) <> 1`,
  ).all();
  expect(notOnce).toEqual([]);
  expect(sql("SELECT count(*) AS n FROM invoice_balances WHERE open_minor <> 0").get()).toEqual({ n: 0 });
  expect(sql("SELECT count(*) AS n FROM messages WHERE occasion LIKE 'receipt payment % mail'").get()).toEqual({
    n: invoices,
  });
  expect([firstBroken(sql), disagreements(readBooks(sql))]).toEqual([null, []]);
  expect(chargesOf(folder)).toEqual({ received: invoices, sumMinor: invoices * 1_000 });
  hogar.store.db.close();
});
