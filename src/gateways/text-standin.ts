import type Database from "better-sqlite3";
import { isSigned } from "./standin-store";
import type { TextGateway } from "./types";

/** What the stand-in does with the next texts: shows them, fails later, holds them back, or loses them. */
export type TextWay = "delivers" | "fails" | "holds" | "loses";

export interface TextStandin extends TextGateway {
  /** The plain phone's conversations, newest last within each. */
  conversations(): { number: string; texts: { direction: string; body: string; at: number }[] }[];
  /** What the phone's owner answers. */
  answer(number: string, body: string, at: number): void;
  way(): TextWay;
  /** What is done with the next ones; texts that were held back go out when it delivers again. */
  setWay(way: TextWay): void;
  /** Notices about texts that have not been taken yet, once each. */
  notices(): { reference: string; state: "delivered" | "failed"; problem: string }[];
}

/** Texts that stay in the house: a page shows them as a plain phone would. Numbers that end in 0199 do not exist, and those in 0198 are landlines. */
export function textStandin(db: Database.Database, secret = ""): TextStandin {
  const keep = db.prepare(
    "INSERT INTO texts (key, number, direction, body, at, shown) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING",
  );
  const notice = db.prepare(
    "INSERT INTO text_notices (reference, state, problem) VALUES (?, ?, ?) ON CONFLICT DO NOTHING",
  );
  const way = (): TextWay =>
    (db.prepare("SELECT value FROM ways WHERE name = 'text'").pluck().get() as TextWay | undefined) ?? "delivers";
  return {
    repeatable: true,
    async send({ key, to, body }) {
      const digits = to.replace(/\D/g, "");
      if (digits.endsWith("0199")) return { state: "bounced", problem: "There is no such number" };
      if (digits.endsWith("0198")) return { state: "bounced", problem: "A landline, which takes no texts" };
      const now = way();
      if (now !== "loses") keep.run(key, to, "to phone", body, Date.now(), now === "delivers" ? 1 : 0);
      if (now === "delivers") notice.run(key, "delivered", "");
      if (now === "fails") notice.run(key, "failed", "The phone could not be reached");
      return { state: "sent", reference: key };
    },
    isGenuine: (body, signature) => isSigned(body, signature, secret),
    conversations() {
      const rows = db
        .prepare<[], { number: string; direction: string; body: string; at: number }>(
          "SELECT number, direction, body, at FROM (SELECT * FROM texts WHERE shown = 1 ORDER BY id DESC LIMIT 400) ORDER BY id",
        )
        .all();
      const byNumber = new Map<string, typeof rows>();
      for (const row of rows) byNumber.set(row.number, [...(byNumber.get(row.number) ?? []), row]);
      return [...byNumber].map(([number, texts]) => ({ number, texts })).reverse();
    },
    answer: (number, body, at) => void keep.run(null, number, "from phone", body, at, 1),
    way,
    setWay(next) {
      db.prepare(
        "INSERT INTO ways (name, value) VALUES ('text', ?) ON CONFLICT DO UPDATE SET value = excluded.value",
      ).run(next);
      if (next !== "delivers") return;
      for (const key of db.prepare<[], string>("SELECT key FROM texts WHERE shown = 0").pluck().all())
        notice.run(key, "delivered", "");
      db.prepare("UPDATE texts SET shown = 1 WHERE shown = 0").run();
    },
    notices: () =>
      db
        .prepare<[], { reference: string; state: "delivered" | "failed"; problem: string }>(
          "UPDATE text_notices SET taken = 1 WHERE taken = 0 RETURNING reference, state, problem",
        )
        .all(),
  };
}
