import { randomBytes } from "node:crypto";
import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import { cardStandin, type CardStandin } from "@/gateways/cards-standin";
import { mailStandin, smtpMail, type MailStandin } from "@/gateways/mail";
import { openStandinStore } from "@/gateways/standin-store";
import { textStandin, type TextStandin } from "@/gateways/text-standin";
import { routingServer } from "@/gateways/routing-server";
import { loadTown, townPlaces, townRoads, type Town } from "@/gateways/town";
import type { Gateways } from "@/gateways/types";
import { makeDayCache, type DayCache } from "./day-cache";
import { zonedPlaces, type ZonedPlaces } from "./zoned-places";
import { openStore, type Store } from "@/store/database";
import { readBusiness } from "@/store/business";

/** The application of one business: its data, its clock and its ways to the outside. */
export interface Hogar {
  store: Store;
  gateways: Gateways;
  standins: { cards: CardStandin; mail: MailStandin | null; text: TextStandin };
  town: Town | null;
  /** Epoch milliseconds: the real time, or the demo's. */
  now: () => number;
  /** Seals sessions and customer links. */
  secret: string;
  /** The address under which customers reach the application. */
  publicUrl: string;
  /** Technicians' days as last read, for as long as they have not changed. */
  days: DayCache;
  /** Numbers for places, as the engines see them. */
  places: ZonedPlaces;
  /** Called when something has been put into the outbox. */
  wake: () => void;
}

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
  const inside = (name: string): string =>
    path.join(folder ?? path.join("/tmp", `hogar-test-${randomBytes(8).toString("hex")}`), name);
  if (folder) mkdirSync(folder, { recursive: true });
  const store = openStore(folder ? inside("hogar.sqlite") : ":memory:");
  const secret = folder ? keptSecret(inside("secret")) : "a secret for tests only, thirty-two characters";
  const town = givenTown ?? (folder ? loadTown(inside("town.json")) : null);
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
    days: makeDayCache(),
    places: zonedPlaces(),
    wake: () => {},
  };
}

function keptSecret(file: string): string {
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString("base64url"), { mode: 0o600, flag: "wx" });
  return readFileSync(file, "utf8").trim();
}
