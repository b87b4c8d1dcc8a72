import { cardStandin } from "@/gateways/cards-standin";
import { exampleFiles } from "@/gateways/example-files";
import { mailStandin, smtpMail } from "@/gateways/mail";
import { readerStandin } from "@/gateways/reader-standin";
import { routingServer } from "@/gateways/routing-server";
import { openStandinStore } from "@/gateways/standin-store";
import { textStandin } from "@/gateways/text-standin";
import { voiceStandin } from "@/gateways/voice-standin";
import { loadTown, type Town, townPlaces, townRoads } from "@/gateways/town";
import type { Gateways } from "@/gateways/types";
import type { Hogar } from "@/kernel/hogar";
import { type Keys, keysOf } from "@/kernel/keys";
import { readBusiness } from "@/store/business";
import { openStore } from "@/store/database";
import { alone, type InTurn } from "@/store/write-turns";
import path from "node:path";
import { keepToOurselves, keptSecrets } from "./secrets";

export interface HogarOptions {
  /** The data folder; null keeps everything in memory, for tests. */
  folder: string | null;
  /** What is in memory begins as these bytes of a database; absent: empty. */
  bytes?: Buffer;
  clock?: () => number;
  gateways?: Partial<Gateways>;
  town?: Town;
  env?: Record<string, string | undefined>;
  /** How writes take turns, where other threads write too. */
  inTurn?: InTurn;
  /** Whether stand-ins take the place of outside services: in the demo and in memory, and nowhere else. */
  standins?: boolean;
}

/** Opens the business in a data folder, creating what is missing. What is in it is for this user of the machine alone. */
export function openHogar({
  folder,
  bytes,
  clock,
  gateways,
  town: givenTown,
  env = process.env,
  inTurn = alone,
  standins,
}: HogarOptions): Hogar {
  if (folder) keepToOurselves(folder);
  const inside = (name: string): string | null => folder && path.join(folder, name);
  const store = openStore(inside("hogar.sqlite") ?? bytes ?? ":memory:");
  const keys = keysOf(folder ? keptSecrets(folder) : ["a secret for tests only, thirty-two characters"]);
  const town = givenTown ?? (folder ? loadTown(path.join(folder, "town.json")) : null);
  const from = () => readBusiness(store)?.mail ?? "office@business.example";
  const now = clock ?? (() => Date.now() + (readBusiness(store)?.demo_offset_ms ?? 0));
  const tryOut =
    (standins ?? (folder === null || readBusiness(store)?.demo_offset_ms != null))
      ? openStandins(inside("standins"), keys, from, now)
      : null;
  const ownRoads = townRoads(town);
  const roads = env.HOGAR_ROUTING_URL ? routingServer(env.HOGAR_ROUTING_URL, ownRoads) : ownRoads;
  return {
    store,
    town,
    keys,
    gateways: {
      cards: tryOut?.cards ?? null,
      readers: tryOut?.reader ?? null,
      text: tryOut?.text ?? null,
      voice: tryOut?.voice ?? null,
      mail: env.SMTP_URL
        ? smtpMail(env.SMTP_URL, from, keys.of("message ids"), env.HOGAR_MAIL_SECRET)
        : (tryOut?.mail ?? null),
      places: townPlaces(town),
      roads,
      ...gateways,
    },
    standins: tryOut,
    now,
    publicUrl: env.HOGAR_URL ?? `http://localhost:${env.PORT ?? 3000}`,
    inTurn,
    wake: () => {},
    close: () => {
      store.db.close();
      tryOut?.close();
    },
  };
}

function openStandins(
  folder: string | null,
  keys: Keys,
  from: () => string,
  now: () => number,
): NonNullable<Hogar["standins"]> & { close: () => void } {
  const db = openStandinStore(folder);
  return {
    cards: cardStandin(db, keys.of("card stand-in"), now),
    reader: readerStandin(db, keys.of("reader stand-in")),
    mail: mailStandin(folder && path.join(folder, "mail"), from, keys.of("mail stand-in")),
    text: textStandin(db, keys.of("text stand-in")),
    voice: voiceStandin(db, keys.of("voice stand-in")),
    examples: exampleFiles(folder && path.join(folder, "examples")),
    close: () => void db.close(),
  };
}
