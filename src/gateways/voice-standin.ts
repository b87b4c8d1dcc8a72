import type Database from "better-sqlite3";
import { isSigned } from "./standin-store";
import type { VoiceGateway } from "./types";

/** A call as the stand-in's page shows it. */
export interface StandinCall {
  key: string;
  number: string;
  words: string;
  language: string;
  state: "rings" | "answered" | "not answered";
  pressed: string;
  at: number;
}

export interface VoiceStandin extends VoiceGateway {
  /** Newest first. */
  calls(): StandinCall[];
  /** How a call ends: somebody takes it and presses a key, or nobody does. False where it has ended before. */
  end(key: string, how: { pressed: string } | null): boolean;
}

/** Calls that ring on a page: somebody takes them, presses a key or lets them ring. */
export const voiceStandin = (db: Database.Database, secret = ""): VoiceStandin => ({
  repeatable: true,
  async send({ key, to, body, language = "en" }) {
    if (to.replace(/\D/g, "").endsWith("0199")) return { state: "bounced", problem: "There is no such number" };
    db.prepare(
      "INSERT INTO calls (key, number, words, language, state, pressed, at) VALUES (?, ?, ?, ?, 'rings', '', ?) ON CONFLICT DO NOTHING",
    ).run(key, to, body, language, Date.now());
    return { state: "sent", reference: key };
  },
  isGenuine: (body, signature) => isSigned(body, signature, secret),
  calls: () => db.prepare<[], StandinCall>("SELECT * FROM calls ORDER BY at DESC, rowid DESC LIMIT 100").all(),
  end: (key, how) =>
    db
      .prepare("UPDATE calls SET state = ?, pressed = ? WHERE key = ? AND state = 'rings'")
      .run(how ? "answered" : "not answered", how?.pressed ?? "", key).changes > 0,
});
