import { personActor } from "@/core/people/permissions";
import { mustPerform, viewContext } from "@/kernel/operation";
import { agreeRepeatDate } from "@/modules/repeats/operations/changes";
import { repeatsToGrow } from "@/modules/repeats/repeats";
import { openHogar } from "@/registry/open-hogar";
import { jobs } from "@/worker/jobs";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { serve } from "./full-business";
import { makeLargeOffice } from "./large-office";
import { requestsWhile, sayWaits } from "./requests";

const owner = personActor({ id: 1, name: "Odile Brandt", role: "owner", technicianId: null });
const agreements = 2_000;
const longestSeconds = 240;

/** 2,000 repeats laid out for a year by the server's worker, with requests beside it; then its nightly look, with nothing and with 50 changed. */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const made = makeLargeOffice(folder);
    const address = made.town!.addresses.find(({ postcode }) => /^MW [13]/.test(postcode))!.id;
    made.store.db.transaction(() =>
      made.store.audit.under({ at: made.now(), actor: "bench", operation: "bench" }, () => {
        made.store.sql("DELETE FROM repeats WHERE id > ?").run(agreements);
      }),
    )();
    const left = () => repeatsToGrow(made, viewContext(made, owner).today).length;
    const { url, stop } = await serve(folder);
    const began = performance.now();
    const waits = await requestsWhile(
      url,
      address,
      () => left() > 0 && performance.now() - began < longestSeconds * 1000,
    );
    const seconds = (performance.now() - began) / 1000;
    console.log(`  ${agreements - left()} of ${agreements} repeats laid out for a year: ${seconds.toFixed(0)} s`);
    sayWaits(waits);
    await stop();
    made.store.db.close();
    await measureNight(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What the look of every night costs, when it is the next day. */
async function measureNight(folder: string): Promise<void> {
  const hogar = openHogar({ folder, clock: () => Date.now() + 86_400_000, env: {} });
  const look = async () => {
    const before = performance.now();
    for (const name of ["repeats", "repeats without room"])
      await jobs.find((job) => job.name === name)!.run(hogar, Infinity, 0);
    return performance.now() - before;
  };
  console.log(`  the next night's look: ${(await look()).toFixed(0)} ms`);
  console.log(`  the same once more, nothing changed: ${(await look()).toFixed(0)} ms`);
  const some = hogar.store
    .sql<{ repeatId: number; date: string }>(
      `SELECT repeat_id AS repeatId, max(repeat_date) AS date
        FROM visits WHERE state = 'forecast' GROUP BY repeat_id LIMIT 50`,
    )
    .all();
  for (const one of some) mustPerform(hogar, agreeRepeatDate, { ...one, skip: true }, owner);
  console.log(`  with ${some.length} changed: ${(await look()).toFixed(0)} ms`);
  hogar.store.db.close();
}
