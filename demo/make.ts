import { existsSync, mkdirSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import { parseArgs } from "node:util";
import { openHogar } from "@/operations/hogar";
import { makeTown } from "./town";
import { makeWorld } from "./world";

/** Makes the demo world in the data folder, unless one is there. `--fresh` starts over; `--seed N`, `--scale N`. */
const { values } = parseArgs({ options: { "fresh": { type: "boolean" }, "seed": { type: "string", default: "7" }, "scale": { type: "string", default: "1" }, "history-days": { type: "string", default: "42" } } });
const folder = path.resolve(process.env.HOGAR_DATA ?? "data");
const database = path.join(folder, "hogar.sqlite");

if (values.fresh) for (const name of ["hogar.sqlite", "hogar.sqlite-wal", "hogar.sqlite-shm", "town.json", "standins", "secret"]) rmSync(path.join(folder, name), { recursive: true, force: true });

if (!existsSync(database)) {
  const seed = Number(values.seed);
  mkdirSync(folder, { recursive: true });
  writeFileSync(path.join(folder, "town.json"), JSON.stringify(makeTown(seed)));
  let clock = 0;
  const hogar = openHogar({ folder, clock: () => clock });
  const started = Date.now();
  await makeWorld(hogar, (ms) => (clock = ms), started, {
    seed,
    scale: Number(values.scale),
    historyDays: Number(values["history-days"]),
    progress: (words) => process.stdout.write(`\r  making the demo world: ${words}          `),
  });
  hogar.store.db.close();
  console.log(`\r  the demo world is made (${Math.round((Date.now() - started) / 1000)} s)                    `);
}
