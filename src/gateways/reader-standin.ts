import type Database from "better-sqlite3";
import { isSigned, sign } from "./standin-store";
import type { ReaderGateway } from "./types";

interface Waiting {
  key: string;
  amount_minor: number;
  currency: string;
}

export interface ReaderStandin extends ReaderGateway {
  /** What waits for a card, the latest first. */
  waiting(): Waiting[];
  /** A card is held to it: gives the signed notice to be sent to the application; null where it waits no more. */
  hold(key: string, token: string): { body: string; signature: string } | null;
}

/** A card reader to try things out with, on a page of its own. */
export function readerStandin(db: Database.Database, secret: string): ReaderStandin {
  return {
    async show({ key, amountMinor, currency }) {
      db.prepare(
        "INSERT INTO reader_waits (key, amount_minor, currency, at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING",
      ).run(key, amountMinor, currency, Date.now());
    },
    isGenuine: (body, signature) => isSigned(body, signature, secret),
    waiting: () =>
      db
        .prepare<[], Waiting>(
          "SELECT key, amount_minor, currency FROM reader_waits WHERE held = 0 ORDER BY at DESC LIMIT 20",
        )
        .all(),
    hold(key, token) {
      const { changes } = db.prepare("UPDATE reader_waits SET held = 1 WHERE key = ? AND held = 0").run(key);
      if (changes === 0) return null;
      const body = JSON.stringify({ key, cardToken: token });
      return { body, signature: sign(body, secret) };
    },
  };
}
