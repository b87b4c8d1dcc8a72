import { Refusal } from "@/core/problems";
import { dayMs } from "@/core/horizons";
import { hashed, isHashOf } from "@/kernel/keys";
import type { OperationContext } from "@/kernel/operation";
import { randomInt } from "node:crypto";
import { awaitCode, countWrongCode, prove } from "@/modules/jobs/work";

/** How long a code is good, and a booking kept that waits for it. */
const codeMs = 60 * 60_000;
/** Tries at one code; then a new one is sent. */
const mostTries = 5;
/** Codes to one address on a day. */
const mostCodes = 5;

/** Whether so many bookings came today that pay nothing and of which nobody has shown anything that the next one waits for a code. */
export const asksForCode = ({ sql, now, business }: OperationContext): boolean =>
  sql<{ n: number }>(
    "SELECT count(*) AS n FROM jobs WHERE proof IN ('none', 'asked') AND deposit_minor = 0 AND booked_at > ?",
  ).get(now - dayMs)!.n >= business.unproved_a_day;

interface CodeRow {
  mail: string;
  phone: string;
  proof: string;
  code_hash: string | null;
  code_tries: number;
  lapses_at: number | null;
}
const read = ({ sql }: OperationContext, jobId: number): CodeRow =>
  sql<CodeRow>("SELECT mail, phone, proof, code_hash, code_tries, lapses_at FROM jobs WHERE id = ?").get(jobId)!;
const textOf = (jobId: number, code: string): string => `${jobId} ${code}`;

/** Sends a new code to whoever has booked, as they typed to be reached. It stands in no message that is kept. */
export function sendCode(context: OperationContext, jobId: number): void {
  const { sql, now, hogar, business } = context;
  const { mail, proof, lapses_at } = read(context, jobId);
  const before = `code to ${mail} `;
  const { n } = sql<{ n: number }>(
    "SELECT count(*) AS n FROM outbox WHERE key >= @before AND key < @before || '~' AND run_after > @since",
  ).get({ before, since: now - dayMs })!;
  if (n >= mostCodes) throw new Refusal("too-many-messages");
  const code = String(randomInt(1_000_000)).padStart(6, "0");
  // Asking for another code keeps the room no longer.
  const lapsesAt = proof === "asked" ? (lapses_at ?? now + codeMs) : now + codeMs;
  awaitCode(context, jobId, hashed(hogar.keys, "codes", textOf(jobId, code)), lapsesAt);
  context.later({
    lane: "mail",
    kind: "tell",
    key: `${before}${now} ${jobId}`,
    payload: {
      to: mail,
      subject: `${code} is your code`,
      body: `Your code is ${code}. Enter it on the page on which you have booked.\n\nIf you have not booked with us, forget this email.\n\n${business.name}\n${business.phone}\n`,
    },
  });
}

/** Takes a code, or refuses it; each is tried a few times. */
export function takeCode(context: OperationContext, jobId: number, code: string): "right" | "wrong" {
  const { now, hogar } = context;
  const { code_hash, code_tries, lapses_at } = read(context, jobId);
  if (code_hash === null || code_tries >= mostTries || (lapses_at ?? 0) < now)
    throw new Refusal("wrong-code", { sentence: "This code is over. Have a new one sent." });
  if (!isHashOf(hogar.keys, "codes", textOf(jobId, code.replace(/\D/g, "")), code_hash)) {
    countWrongCode(context, jobId);
    return "wrong";
  }
  prove(context, jobId);
  return "right";
}
