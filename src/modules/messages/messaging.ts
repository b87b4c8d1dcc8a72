import { dayMs } from "@/core/horizons";
import { type Occasion, standardTexts } from "@/core/messages/standard";
import { fillTemplate, type MergeFields } from "@/core/messages/templates";
import { moneyWords } from "@/core/money/amounts";
import { localOf } from "@/core/time/local";
import { windowIn } from "@/core/time/local-words";
import { arrivalWords, clock, dateWords, daysWords } from "@/core/time/words";
import { placeInWords, type WorkPlace } from "@/core/visits/work-place";
import { type VisitState, visitStates } from "@/core/visits/states";
import type { OperationContext } from "@/kernel/operation";
import { insertOnce } from "@/store/insert";
import { untilAllowed } from "./telling";

export interface Telling {
  jobId: number;
  /** The visit it is about, where the job has several; otherwise the next one. */
  visitId?: number;
  occasion: Occasion;
  /** What tells this occasion from others of its kind: at most one message is sent for both together. */
  about: string;
  fields?: MergeFields;
  /** Answers something the customer has just done: goes out at any hour. */
  answer?: boolean;
}

/** Stands in a message for the customer's link until it is sent: the link itself is never stored. */
export const linkPlaceholder = "{{my_link}}";

/** Writes the customer of a job the messages of an occasion, once. Texts and mails of our own accord wait for the allowed hours. */
export function tellCustomer(
  context: OperationContext,
  { jobId, visitId, occasion, about, fields = {}, answer = false }: Telling,
): void {
  const { sql, business, now, hogar } = context;
  const job = recipientOf(context, jobId, occasion);
  const merge: MergeFields = {
    ...fieldsOfJob(context, jobId, { visitId, phone: job.phone, unproved: isUnproved(job.proof) }),
    my_link: linkPlaceholder,
    customer: job.name,
    business: business.name,
    phone: business.phone,
    ...fields,
    // To an address of which nobody has shown that it is theirs, no word goes that somebody has typed.
    ...(isUnproved(job.proof) && { customer: "there" }),
  };
  const texts = standardTexts[occasion];
  const ways = [
    { channel: "mail", recipient: job.mail, template: texts.mail },
    { channel: "text", recipient: job.phone, template: texts.text && { subject: "", body: texts.text } },
  ] as const;
  for (const { channel, recipient, template } of ways) {
    if (!template || !recipient || !hogar.gateways[channel]) continue;
    if (job.reached_by === "email" && channel === "text" && texts.mail && job.mail) continue;
    if (job.reached_by === "text" && channel === "mail" && texts.text && job.phone) continue;
    if (isUnproved(job.proof) && writtenToday(context, recipient) >= mostToUnproved) continue;
    const { subject, body } = fillTemplate(template, merge);
    const key = `${occasion} ${about} ${channel}`;
    const written = insertOnce(sql, "messages", {
      occasion: key,
      channel,
      customer_id: job.customer_id,
      job_id: jobId,
      recipient,
      subject,
      body,
      state: "waiting",
      written_at: now,
    });
    if (written === null) continue;
    context.later({
      kind: "message",
      key: `message ${key}`,
      payload: { messageId: written },
      afterMs: answer ? 0 : untilAllowed(context),
    });
  }
}

/** Occasions that are about a bill: they go to whom the invoice is addressed. */
const aboutBills = new Set<Occasion>(["invoice", "invoice reminder"]);

/** Who is told: whoever booked as they typed it, otherwise the customer; of a bill that goes to somebody else, they alone. */
function recipientOf({ sql }: OperationContext, jobId: number, occasion: Occasion) {
  const { bill_name, bill_mail, ...job } = sql<{
    customer_id: number;
    name: string;
    mail: string;
    phone: string;
    proof: string;
    reached_by: "any" | "email" | "text" | "phone";
    bill_name: string | null;
    bill_mail: string | null;
  }>(
    `SELECT j.customer_id, j.proof, iif(j.name <> '', j.name, c.name) AS name, iif(j.mail <> '', j.mail, c.mail) AS mail,
        iif(j.phone <> '', j.phone, c.phone) AS phone, c.reached_by, i.bill_name, i.bill_mail
      FROM jobs j JOIN customers c ON c.id = j.customer_id LEFT JOIN invoices i ON i.job_id = j.id WHERE j.id = ?`,
  ).get(jobId)!;
  return bill_name && bill_mail && aboutBills.has(occasion)
    ? { ...job, name: bill_name, mail: bill_mail, phone: "", reached_by: "any" as const }
    : job;
}

const isUnproved = (proof: string): boolean => proof === "none" || proof === "asked";
/** Messages on a day to one address of which nobody has shown that it is theirs, whatever bookings they are about. */
const mostToUnproved = 6;

const writtenToday = ({ sql, now }: OperationContext, recipient: string): number =>
  sql<{ n: number }>("SELECT count(*) AS n FROM messages WHERE recipient = ? AND written_at > ?").get(
    recipient,
    now - dayMs,
  )!.n;

/** Merge fields of a job: of the visit named, or of all days that are still to come; where there are none, of the last. */
function fieldsOfJob(
  { sql, business }: OperationContext,
  jobId: number,
  { visitId, phone, unproved }: { visitId?: number; phone: string; unproved: boolean },
): MergeFields {
  const zone = business.time_zone;
  const { line } = sql<{ line: string }>(
    "SELECT t.line FROM jobs j JOIN sites t ON t.id = j.site_id WHERE j.id = ?",
  ).get(jobId)!;
  const site = unproved ? "your address" : line;
  const visits = sql<{
    id: number;
    state: VisitState;
    title: string;
    date: string;
    window_from: number;
    window_to: number;
    work_place: WorkPlace;
  }>(
    "SELECT id, state, title, date, window_from, window_to, work_place FROM visits WHERE job_id = ? ORDER BY window_from",
  ).all(jobId);
  const coming = visits.filter((v) =>
    visitId === undefined ? visitStates.allows("expect", v.state) : v.id === visitId,
  );
  const first = coming[0] ?? visits.at(-1)!;
  const [from, to] = [localOf(first.window_from, zone).minute, localOf(first.window_to, zone).minute];
  return {
    service: first.title,
    site,
    ...placeInWords(first.work_place, { site, ours: business.address, phone: unproved ? "" : phone }),
    day: daysWords(coming.length ? coming.map((v) => v.date) : [first.date]),
    window: windowIn(first.window_from, first.window_to, zone),
    arrival: arrivalWords(from, to),
    from: clock(from),
    to: clock(to),
  };
}

/** Merge fields of an invoice. */
export const invoiceFields = (
  currency: string,
  invoice: { number: number; total_minor: number; openMinor: number; due_date: string },
): MergeFields => ({
  invoice: String(invoice.number),
  total: moneyWords(invoice.total_minor, currency),
  open: moneyWords(invoice.openMinor, currency),
  due: dateWords(invoice.due_date),
});
