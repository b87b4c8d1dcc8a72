import { withinAllowedHours } from "@/core/messages/moments";
import { moneyWords } from "@/core/money/amounts";
import { daysWords, windowIn } from "@/core/time/words";
import { readFrontDoor } from "@/store/front-door";
import type { OperationContext } from "./door";

/** Tells everybody whom the owner has named of a new booking: once each. */
export function tellOffice(context: OperationContext, jobId: number): void {
  const { sql, business } = context;
  const { tells } = readFrontDoor(context);
  if (tells.length === 0) return;
  const job = sql<{ name: string; phone: string; line: string; total_minor: number; note: string }>("SELECT c.name, c.phone, s.line, j.total_minor, j.note FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id WHERE j.id = ?").get(jobId)!;
  const visits = sql<{ title: string; date: string; window_from: number; window_to: number }>("SELECT title, date, window_from, window_to FROM visits WHERE job_id = ? ORDER BY window_from").all(jobId);
  const [first] = visits;
  const when = `${daysWords(visits.map((v) => v.date))}, ${windowIn(first!.window_from, first!.window_to, business.time_zone)}`;
  const subject = `New booking: ${first!.title}, ${when}`;
  const body = `${job.name}, ${job.line}\n${first!.title}, ${moneyWords(job.total_minor, business.currency)}\n${when}\n${job.phone}${job.note ? `\n“${job.note}”` : ""}\n`;
  // A mail waits quietly; a phone is not to ring at night.
  const allowed = withinAllowedHours(context.minute, { from: business.message_from, to: business.message_to }, business.time_zone);
  for (const { way, to } of tells)
    context.later({ kind: "tell", key: `booking of job ${jobId}, ${way} to ${to}`, afterMs: way === "text" ? (allowed - context.minute) * 60_000 : 0, payload: { way, to, subject, body: way === "mail" ? body : `${subject}. ${job.name}, ${job.line}.` } });
}
