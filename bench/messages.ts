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

/** Reminders of every visit that is promised, due at once: looked for, written, and sent while somebody books. */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const made = makeLargeOffice(folder);
    const address = made.town!.addresses.find(({ postcode }) => /^MW [13]/.test(postcode))!.id;
    made.store.db.transaction(() =>
      made.store.audit.under({ at: made.now(), actor: "bench", operation: "bench" }, () => {
        const { sql } = made.store;
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
      await reminders.run(hogar, performance.now() + 40, 0);
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
  const first = waiting.get()!.n;
  const began = performance.now();
  const waits = await requestsWhile(
    url,
    address,
    () => waiting.get()!.n > 0 && performance.now() - began < longestSeconds * 1000,
  );
  const seconds = (performance.now() - began) / 1000;
  const sent = first - waiting.get()!.n;
  console.log(`  ${sent} sent to the stand-in: ${seconds.toFixed(0)} s, ${(sent / seconds).toFixed(0)} a second`);
  sayWaits(waits);
  await stop();
  beside.store.db.close();
}
