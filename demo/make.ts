import { epochMinute } from "@/core/time/local";
import { mustPerform } from "@/kernel/operation";
import { moveClock } from "@/modules/business/operations/move-clock";
import { openHogar } from "@/registry/open-hogar";
import { existsSync, mkdirSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { parseArgs } from "node:util";
import { writeExamples } from "@/gateways/example-files";
import { bankFiles } from "./bank-files";
import { importFiles } from "./import-files";
import { business } from "./marrowick";
import { makeTown } from "./town";
import { makeWorld } from "./world";

/** Makes the demo world in the data folder, unless one is there. `--fresh` starts over; `--seed N`, `--scale N`; `--at 2027-03-09T08:05` opens it on a morning to come, for tests and pictures that are the same on every day. */
const { values } = parseArgs({
  options: {
    fresh: { type: "boolean" },
    seed: { type: "string", default: "7" },
    scale: { type: "string", default: "1" },
    "history-days": { type: "string", default: "42" },
    at: { type: "string" },
  },
});
const folder = path.resolve(process.env.HOGAR_DATA ?? "data");
const database = path.join(folder, "hogar.sqlite");

if (values.fresh)
  for (const name of ["hogar.sqlite", "hogar.sqlite-wal", "hogar.sqlite-shm", "town.json", "standins", "secret"])
    rmSync(path.join(folder, name), { recursive: true, force: true });

if (!existsSync(database)) {
  const seed = Number(values.seed);
  mkdirSync(folder, { recursive: true });
  writeFileSync(path.join(folder, "town.json"), JSON.stringify(makeTown(seed)));
  let clock = 0;
  const hogar = openHogar({ folder, clock: () => clock, standins: true });
  const began = Date.now();
  const opens = values.at ? epochOf(values.at) : began;
  if (opens < began) throw new Error("--at must lie ahead: the clock goes forward only.");
  await makeWorld(hogar, (ms) => (clock = ms), opens, {
    seed,
    scale: Number(values.scale),
    historyDays: Number(values["history-days"]),
    progress: (words) => process.stdout.write(`\r  making the demo world: ${words}          `),
  });
  const known = hogar.store
    .sql<{ name: string; mail: string; phone: string }>(
      "SELECT name, mail, phone FROM customers ORDER BY id LIMIT 9 OFFSET 40",
    )
    .all();
  writeExamples(path.join(folder, "standins", "examples"), [...importFiles(hogar.town!, known), ...bankFiles(hogar)]);
  const ahead = Math.round((opens - Date.now()) / 60_000);
  if (ahead > 0) mustPerform(hogar, moveClock, { minutes: ahead }, { kind: "system", name: "demo" });
  hogar.store.db.close();
  console.log(`\r  the demo world is made (${Math.round((Date.now() - began) / 1000)} s)                    `);
}

/** A local date and time of the demo's town as epoch milliseconds. */
function epochOf(at: string): number {
  const [date, time] = at.split("T") as [string, string];
  const [hour, minute] = time.split(":").map(Number) as [number, number];
  return epochMinute(date, hour * 60 + minute, business.timeZone) * 60_000;
}
