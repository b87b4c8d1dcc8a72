import type Database from "better-sqlite3";
import type { MessageGateway } from "./types";

export interface TextStandin extends MessageGateway {
  /** The plain phone's conversations, newest last within each. */
  conversations(): { number: string; texts: { direction: string; body: string; at: number }[] }[];
  /** What the phone's owner answers. */
  answer(number: string, body: string, at: number): void;
}

/** Texts that stay in the house: a page shows them as a plain phone would. Numbers that end in 0199 do not exist. */
export function textStandin(db: Database.Database): TextStandin {
  const keep = db.prepare(
    "INSERT INTO texts (key, number, direction, body, at) VALUES (?, ?, ?, ?, ?) ON CONFLICT DO NOTHING",
  );
  return {
    repeatable: true,
    async send({ key, to, body }) {
      if (to.replace(/\D/g, "").endsWith("0199")) return "bounced";
      keep.run(key, to, "to phone", body, Date.now());
      return "sent";
    },
    conversations() {
      const rows = db
        .prepare<[], { number: string; direction: string; body: string; at: number }>(
          "SELECT number, direction, body, at FROM (SELECT * FROM texts ORDER BY id DESC LIMIT 400) ORDER BY id",
        )
        .all();
      const byNumber = new Map<string, typeof rows>();
      for (const row of rows) byNumber.set(row.number, [...(byNumber.get(row.number) ?? []), row]);
      return [...byNumber].map(([number, texts]) => ({ number, texts })).reverse();
    },
    answer: (number, body, at) => void keep.run(null, number, "from phone", body, at),
  };
}
