import path from "node:path";
import { parseArgs } from "node:util";
import { spawn } from "node:child_process";
import { openHogar } from "@/operations/hogar";
import { openBusiness } from "@/operations/open-business";
import { startWorker } from "@/worker/loop";

/** Commands about the business in a data folder. */
const folder = path.resolve(process.env.HOGAR_DATA ?? "data");

export function init(args: string[]): void {
  const text = { type: "string" } as const;
  const { values } = parseArgs({
    args,
    options: {
      name: text,
      mail: text,
      password: text,
      owner: text,
      phone: { ...text, default: "+1 555 0100" },
      currency: { ...text, default: "EUR" },
      "time-zone": { ...text, default: "UTC" },
      lng: { ...text, default: "0" },
      lat: { ...text, default: "0" },
    },
  });
  const { name: business, mail, password, owner, phone, currency, lng, lat } = values;
  if (!business || !mail || !password || !owner) throw new Error("--name, --owner, --mail and --password are needed");
  if (password.length < 10) throw new Error("--password: at least 10 characters");
  const hogar = openHogar({ folder });
  if (hogar.store.sql("SELECT 1 FROM business").get()) throw new Error(`${folder} holds a business already`);
  openBusiness(
    hogar,
    {
      name: business,
      phone,
      mail,
      currency,
      pricesIncludeTax: true,
      timeZone: values["time-zone"],
      place: { lng: Number(lng), lat: Number(lat) },
      demo: false,
    },
    { name: owner, mail, password },
  );
  console.log(`${business} is made in ${folder}. Start it with: npm run -s hogar -- serve`);
}

export function serve(args: string[]): Promise<void> {
  const { values } = parseArgs({
    args,
    options: { port: { type: "string", default: process.env.PORT ?? "3000" }, "no-worker": { type: "boolean" } },
  });
  const next = spawn(process.execPath, ["node_modules/next/dist/bin/next", "start", "-p", values.port], {
    stdio: "inherit",
    env: { ...process.env, HOGAR_DATA: folder, PORT: values.port, ...(values["no-worker"] && { HOGAR_WORKER: "off" }) },
  });
  for (const signal of ["SIGINT", "SIGTERM"] as const) process.on(signal, () => next.kill("SIGTERM"));
  return new Promise((resolve) => next.on("exit", (code) => ((process.exitCode = code ?? 0), resolve())));
}

export function worker(args: string[]): void {
  const { values } = parseArgs({ args, options: { "lease-seconds": { type: "string", default: "60" } } });
  const stop = startWorker(openHogar({ folder }), Number(values["lease-seconds"]) * 1000);
  console.log("The worker runs. Stop it with Ctrl+C.");
  for (const signal of ["SIGINT", "SIGTERM"] as const)
    process.on(signal, () => void stop().then(() => process.exit(0)));
}

export async function backup([file]: string[]): Promise<void> {
  if (!file) throw new Error("name the file to write to");
  const { db } = openHogar({ folder }).store;
  await db.backup(file);
  console.log(`The database is copied to ${file}`);
}
