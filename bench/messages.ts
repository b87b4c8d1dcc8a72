import { personActor } from "@/core/people/permissions";
import { mustPerform, viewContext } from "@/kernel/operation";
import { saveMessageRules } from "@/modules/messages/operations/save-rules";
import { customersToRemind } from "@/modules/messages/reminders";
import { openHogar } from "@/registry/open-hogar";
import { jobs } from "@/worker/jobs";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { serve } from "./full-business";
import { makeLargeOffice } from "./large-office";
import { ms } from "./measure";
import { requestsWhile, sayWaits } from "./requests";

const owner = personActor({ id: 1, name: "Owner", role: "owner", technicianId: null });
const longestSeconds = 240;
/** Visits to come, and from which id on. */
const [visits, first] = [20_000, 1_000_000];

/** Reminders of every visit that is promised, due at once: looked for, written, and sent while somebody books. */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const made = makeLargeOffice(folder);
    const address = made.town!.addresses.find(({ postcode }) => /^MW [13]/.test(postcode))!.id;
    made.store.db.transaction(() =>
      made.store.audit.under({ at: made.now(), actor: "bench", operation: "bench" }, () => {
        const { sql } = made.store;
        // Visits to come, two of each customer on different days, beside those that technicians have.
        sql(
          `INSERT INTO jobs (id, customer_id, site_id, service_id, state, total_minor, tax_minor, deposit_minor, note, booked_at, booked_by, reminders)
            WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ${visits})
            SELECT ${first} + i, i % (SELECT max(id) - 1 FROM customers) + 2, i % (SELECT max(id) - 1 FROM customers) + 2, 1, 'agreed', 7900, 1371, 0, '', 0, 'bench', 1 FROM n`,
        ).run();
        sql(
          `INSERT INTO visits (id, state, job_id, service_id, title, zone_id, date, window_from, window_to, minutes, before_minutes, after_minutes, crew, lng, lat)
            SELECT j.id, 'promised', j.id, 1, 'Chimney sweep', 1, date('now', '+' || (20 + j.id / 10000 % 2) || ' days'),
              @now + (20 + j.id / 10000 % 2) * 1440, @now + (20 + j.id / 10000 % 2) * 1440 + 120, 30, 0, 5, 1, s.lng, s.lat
            FROM jobs j, sites s WHERE j.id > ${first} AND s.id = 1`,
        ).run({ now: Math.floor(made.now() / 60_000) });
        sql("DELETE FROM reminder_looks WHERE visit_id NOT IN (SELECT id FROM visits WHERE state = 'promised')").run();
        // Whoever is reminded agreed long ago.
        sql("UPDATE business SET demo_offset_ms = 0, most_messages = 50").run();
        sql("UPDATE promises SET made_at = 0 WHERE ended_at IS NULL").run();
        sql("UPDATE jobs SET booked_at = 0, reminders = 1 WHERE state = 'agreed'").run();
      }),
    )();
    made.store.db.close();
    const hogar = openHogar({ folder, env: {} });
    const rule = {
      id: null,
      daysBefore: null,
      at: null,
      minutesBefore: 86_400,
      outside: "later" as const,
      asks: false,
    };
    const rules = { from: 0, to: 1440, mostADay: 50, language: "en" as const, partMilli: 0, countsOpened: false };
    const saving = await ms(
      "save",
      () => void mustPerform(hogar, saveMessageRules, { ...rules, rules: [rule] }, owner),
    );
    console.log(`  rules saved, every promised visit to be looked at again: ${saving.toFixed(0)} ms`);
    hogar.store.db.exec("UPDATE reminder_looks SET looked_at = 0");
    const look = await ms("look", () => void customersToRemind(viewContext(hogar, owner)));
    console.log(`  a look for who is to be reminded: ${look.toFixed(2)} ms`);
    const reminders = jobs.find(({ name }) => name === "reminders")!;
    let longest = 0;
    const began = performance.now();
    for (let before = -1; before !== left(hogar);) {
      before = left(hogar);
      const turn = performance.now();
      // As long as the worker gives it.
      await reminders.run(hogar, performance.now() + 400, 0);
      longest = Math.max(longest, performance.now() - turn);
    }
    const { n } = hogar.store.sql<{ n: number }>("SELECT count(*) AS n FROM messages WHERE state = 'waiting'").get()!;
    const seconds = (performance.now() - began) / 1000;
    console.log(
      `  ${n} reminders written: ${seconds.toFixed(1)} s, ${(n / seconds).toFixed(0)} a second, the longest turn ${longest.toFixed(0)} ms`,
    );
    hogar.store.db.close();
    await measureSending(folder, address);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const left = (hogar: ReturnType<typeof openHogar>): number =>
  hogar.store.sql<{ n: number }>("SELECT count(*) AS n FROM reminder_looks WHERE next_at = 0").get()!.n;

async function measureSending(folder: string, address: string): Promise<void> {
  const { url, stop } = await serve(folder);
  const beside = openHogar({ folder, env: {} });
  const waiting = beside.store.sql<{ n: number }>("SELECT count(*) AS n FROM messages WHERE state = 'waiting'");
  const written = waiting.get()!.n;
  const began = performance.now();
  const waits = await requestsWhile(
    url,
    address,
    () => waiting.get()!.n > 0 && performance.now() - began < longestSeconds * 1000,
  );
  const seconds = (performance.now() - began) / 1000;
  const sent = written - waiting.get()!.n;
  console.log(`  ${sent} sent to the stand-in: ${seconds.toFixed(0)} s, ${(sent / seconds).toFixed(0)} a second`);
  sayWaits(waits);
  await stop();
  beside.store.db.close();
}
