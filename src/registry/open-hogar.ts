import { cardStandin } from "@/gateways/cards-standin";
import { mailStandin, smtpMail } from "@/gateways/mail";
import { routingServer } from "@/gateways/routing-server";
import { openStandinStore } from "@/gateways/standin-store";
import { textStandin } from "@/gateways/text-standin";
import { loadTown, type Town, townPlaces, townRoads } from "@/gateways/town";
import type { Gateways } from "@/gateways/types";
import type { Hogar } from "@/kernel/hogar";
import { readBusiness } from "@/store/business";
import { openStore } from "@/store/database";
import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";

export interface HogarOptions {
  /** The data folder; null keeps everything in memory, for tests. */
  folder: string | null;
  clock?: () => number;
  gateways?: Partial<Gateways>;
  town?: Town;
  env?: Record<string, string | undefined>;
}

/** Opens the business in a data folder, creating what is missing. */
export function openHogar({ folder, clock, gateways, town: givenTown, env = process.env }: HogarOptions): Hogar {
  if (folder) mkdirSync(folder, { recursive: true });
  const inside = (name: string): string | null => folder && path.join(folder, name);
  const store = openStore(inside("hogar.sqlite") ?? ":memory:");
  const secret = folder ? keptSecret(path.join(folder, "secret")) : "a secret for tests only, thirty-two characters";
  const town = givenTown ?? (folder ? loadTown(path.join(folder, "town.json")) : null);
  const standinDb = openStandinStore(inside("standins"));
  const from = () => readBusiness(store)?.mail ?? "office@business.example";
  const mail = env.SMTP_URL ? null : mailStandin(inside("standins/mail"), from);
  const cards = cardStandin(standinDb, secret);
  const text = textStandin(standinDb);
  const ownRoads = townRoads(town);
  const roads = env.HOGAR_ROUTING_URL ? routingServer(env.HOGAR_ROUTING_URL, ownRoads) : ownRoads;
  return {
    store,
    town,
    secret,
    gateways: {
      cards,
      text,
      mail: mail ?? smtpMail(env.SMTP_URL!, from),
      places: townPlaces(town),
      roads,
      ...gateways,
    },
    standins: { cards, mail, text },
    now: clock ?? (() => Date.now() + (readBusiness(store)?.demo_offset_ms ?? 0)),
    publicUrl: env.HOGAR_URL ?? `http://localhost:${env.PORT ?? 3000}`,
    wake: () => {},
  };
}

function keptSecret(file: string): string {
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString("base64url"), { mode: 0o600, flag: "wx" });
  return readFileSync(file, "utf8").trim();
}
