import { personActor } from "@/core/people/permissions";
import { localOf } from "@/core/time/local";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveCollection } from "@/modules/collection/operations/choices";
import { collection } from "@/modules/collection/views/collection";
import { openHogar } from "@/registry/open-hogar";
import { jobs } from "@/worker/jobs";
import { drainOutbox } from "@/worker/outbox";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { serve } from "./full-business";
import { makeLargeOffice } from "./large-office";
import { ms } from "./measure";
import { requestsWhile, sayWaits } from "./requests";

const owner = personActor({ id: 1, name: "Odile Brandt", role: "owner", technicianId: null });
const due = 5_000;
const dayMs = 86_400_000;
const longestSeconds = 300;

/** 5,000 invoices due, each of another customer with a card: the preview, the notices, and the run by the server's worker with requests beside it. */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const made = makeLargeOffice(folder, { open: due });
    const address = made.town!.addresses.find(({ postcode }) => /^MW [13]/.test(postcode))!.id;
    const at = localOf(Math.floor(Date.now() / 60_000), "Europe/Lisbon").minute;
    // A demo has stand-ins for cards.
    made.store.db.transaction(() =>
      made.store.audit.under({ at: made.now(), actor: "bench", operation: "bench" }, () => {
        made.store.sql("UPDATE business SET demo_offset_ms = 0").run();
      }),
    )();
    made.store.db.close();

    // The day before: what will be taken is shown, and everybody is told.
    const hogar = openHogar({ folder, clock: () => Date.now() - dayMs + 60_000, env: {} });
    hogar.gateways.mail = { repeatable: true, send: ({ key }) => Promise.resolve({ state: "sent", reference: key }) };
    const { sql, db, audit } = hogar.store;
    db.transaction(() =>
      audit.under({ at: hogar.now(), actor: "bench", operation: "bench" }, () => {
        for (const { customer_id, job_id } of sql<{ customer_id: number; job_id: number }>(
          "SELECT customer_id, min(job_id) AS job_id FROM invoices WHERE id <= ? GROUP BY customer_id",
        ).all(due))
          sql(
            "INSERT INTO cards (customer_id, job_id, reference, label, kept_at, collects) VALUES (?, ?, ?, 'card', 1, 1)",
          ).run(customer_id, job_id, hogar.standins!.cards.tokenFor("9900000000001006")!);
      }),
    )();
    mustPerform(
      hogar,
      saveCollection,
      { on: true, weekdays: 127, at, daysPastDue: 0, smallestMinor: 0, cards: 2, again: [3] },
      owner,
    );
    const preview = await ms("preview", () => {
      const view = look(hogar, collection, {}, owner);
      if (!view.ok) throw new Error(view.problem.sentence);
    });
    console.log(`  the preview of ${due} due: ${preview.toFixed(0)} ms`);
    const began = performance.now();
    while ((await jobs.find(({ name }) => name === "collection")!.run(hogar, performance.now() + 400, 0)) !== null);
    await drainOutbox(hogar);
    const { told } = sql<{ told: number }>("SELECT count(*) AS told FROM collection_notices").get()!;
    console.log(`  ${told} customers told the day before: ${((performance.now() - began) / 1000).toFixed(0)} s`);
    db.close();
    await measureRun(folder, address);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function measureRun(folder: string, address: string): Promise<void> {
  const { url, stop } = await serve(folder);
  const beside = openHogar({ folder, env: {} });
  const open = beside.store.sql<{ n: number }>(
    "SELECT count(*) AS n FROM collection_notices t WHERE NOT EXISTS (SELECT 1 FROM collection_items WHERE invoice_id = t.invoice_id AND followed = 1)",
  );
  const began = performance.now();
  const waits = await requestsWhile(
    url,
    address,
    () => open.get()!.n > 0 && performance.now() - began < longestSeconds * 1000,
  );
  console.log(`  ${due - open.get()!.n} collected: ${((performance.now() - began) / 1000).toFixed(0)} s`);
  sayWaits(waits);
  await stop();
  beside.store.db.close();
}
