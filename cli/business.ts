import { openBusiness } from "@/modules/business/open-business";
import { passwordProblem } from "@/modules/people/passwords";
import { sealFactorsAnew } from "@/modules/people/factors";
import { openHogar } from "@/registry/open-hogar";
import { addSecret, forgetOldSecrets } from "@/registry/secrets";
import { startWorker } from "@/worker/loop";
import path from "node:path";
import { parseArgs } from "node:util";
import { onStop } from "./stopping";

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
  const weak = passwordProblem(password, [owner, mail]);
  if (weak) throw new Error(`--password: ${weak}`);
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

export function worker(): void {
  const hogar = openHogar({ folder });
  const stop = startWorker(hogar);
  console.log("The worker runs. Stop it with Ctrl+C.");
  onStop(stop);
}

/** A new secret for sessions and links: the old ones go on opening what they have sealed, unless they are to be forgotten. */
export function newSecret(args: string[]): void {
  const { values } = parseArgs({ args, options: { "forget-old": { type: "boolean", default: false } } });
  addSecret(folder);
  if (!values["forget-old"])
    return console.log("There is a new secret. What the old ones have sealed stays open. Restart Hogar.");
  // What is kept sealed is sealed anew before the old secrets are gone.
  sealFactorsAnew(openHogar({ folder }));
  forgetOldSecrets(folder);
  console.log(
    "There is a new secret, and the old ones open nothing any more: everybody signs in again, recovery codes and customers’ links in earlier messages are over. Restart Hogar.",
  );
}

export async function backup([file]: string[]): Promise<void> {
  if (!file) throw new Error("name the file to write to");
  const { db } = openHogar({ folder }).store;
  await db.backup(file);
  console.log(`The database is copied to ${file}`);
}
