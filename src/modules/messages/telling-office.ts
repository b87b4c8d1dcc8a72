import { moneyWords } from "@/core/money/amounts";
import { windowIn } from "@/core/time/local-words";
import { daysWords } from "@/core/time/words";
import type { OperationContext } from "@/kernel/operation";
import { readFrontDoor } from "@/store/front-door";
import { untilAllowed } from "./telling";

interface News {
  /** What tells it from all else: it is told at most once. */
  key: string;
  /** What has happened. */
  what: string;
  /** What the customer says with it. */
  said?: string;
}

/** Tells everybody whom the owner has named of a booking, new or changed by its customer: once each. */
export function tellOffice(
  context: OperationContext,
  jobId: number,
  { key, what, said }: News = { key: `booking of job ${jobId}`, what: "New booking" },
): void {
  const { sql, business } = context;
  const job = sql<{ name: string; phone: string; line: string; total_minor: number; note: string }>(
    `SELECT c.name, c.phone, s.line, j.total_minor, j.note
      FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id WHERE j.id = ?`,
  ).get(jobId)!;
  const visits = sql<{ title: string; date: string; window_from: number; window_to: number }>(
    "SELECT title, date, window_from, window_to FROM visits WHERE job_id = ? ORDER BY window_from",
  ).all(jobId);
  const [first] = visits;
  const when = `${daysWords(visits.map((v) => v.date))}, ${windowIn(first!.window_from, first!.window_to, business.time_zone)}`;
  const words = said ?? job.note;
  const body = `${job.name}, ${job.line}\n${first!.title}, ${moneyWords(job.total_minor, business.currency)}\n${when}\n${job.phone}${words ? `\n“${words}”` : ""}\n`;
  tellAll(context, { key, subject: `${what}: ${first!.title}, ${when}`, body, who: `${job.name}, ${job.line}` });
}

/** Tells all of them something, by mail and phone. */
export function tellAll(
  context: OperationContext,
  { key, subject, body, who }: { key: string; subject: string; body: string; who: string },
): void {
  // A mail waits quietly; a phone is not to ring at night.
  for (const { way, to } of readFrontDoor(context).tells)
    context.later({
      kind: "tell",
      key: `${key}, ${way} to ${to}`,
      afterMs: way === "text" ? untilAllowed(context) : 0,
      payload: { way, to, subject, body: way === "mail" ? body : `${subject}. ${who}.` },
    });
}
