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
import type { Rows } from "@/store/rows";
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
/** The same for the link that opens all that the customer owes. */
export const owedPlaceholder = "{{owed_link}}";

/** Writes the customer of a job the messages of an occasion, once. Texts and mails of our own accord wait for the allowed hours. */
export function tellCustomer(
  context: OperationContext,
  { jobId, visitId, occasion, about, fields = {}, answer = false }: Telling,
): void {
  const { business } = context;
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
  write(context, { ...job, jobId }, { occasion, about, merge, answer });
}

/** Something about a repeat rather than about one booking of it. */
interface RepeatTelling extends Pick<Telling, "occasion" | "about"> {
  repeat: Pick<Rows["repeats"], "id" | "customer_id" | "site_id" | "service_id">;
  /** The question whose link stands in it. */
  askId?: number;
  fields: MergeFields;
}

/** Writes the customer of a repeat the messages of an occasion, once, within the allowed hours. */
export function tellAboutRepeat(
  context: OperationContext,
  { repeat, askId, occasion, about, fields }: RepeatTelling,
): void {
  const { sql, business } = context;
  const customer = sql<Recipient>(
    "SELECT id AS customer_id, name, mail, phone, reached_by, 'known' AS proof FROM customers WHERE id = ?",
  ).get(repeat.customer_id)!;
  const { line } = sql<{ line: string }>("SELECT line FROM sites WHERE id = ?").get(repeat.site_id)!;
  const { work_place } = sql<{ work_place: WorkPlace }>("SELECT work_place FROM services WHERE id = ?").get(
    repeat.service_id,
  )!;
  const merge: MergeFields = {
    ...placeInWords(work_place, { site: line, ours: business.address, phone: customer.phone }),
    my_link: linkPlaceholder,
    customer: customer.name,
    business: business.name,
    phone: business.phone,
    ...fields,
  };
  write(context, { ...customer, jobId: null, repeatId: repeat.id, askId }, { occasion, about, merge, answer: false });
}

/** Writes whoever an invoice is for the messages of an occasion about it, once: by the link of its job; where it is about several jobs or none, by a link of its own. */
export function tellAboutInvoice(
  context: OperationContext,
  invoiceId: number,
  { occasion, about, fields, answer = false }: Omit<Telling, "jobId" | "visitId">,
): void {
  const { sql, business } = context;
  const invoice = sql<
    Pick<Rows["invoices"], "job_id" | "customer_id" | "bill_name" | "bill_mail"> & { work: string; lines: number }
  >(
    `SELECT job_id, customer_id, bill_name, bill_mail,
        (SELECT description FROM invoice_lines WHERE invoice_id = i.id ORDER BY position LIMIT 1) AS work,
        (SELECT count(*) FROM invoice_lines WHERE invoice_id = i.id) AS lines
      FROM invoices i WHERE id = ?`,
  ).get(invoiceId)!;
  if (invoice.job_id !== null)
    return tellCustomer(context, { jobId: invoice.job_id, occasion, about, answer, ...(fields && { fields }) });
  const customer = sql<Recipient>(
    "SELECT id AS customer_id, name, mail, phone, reached_by, 'known' AS proof FROM customers WHERE id = ?",
  ).get(invoice.customer_id)!;
  const to =
    invoice.bill_name && invoice.bill_mail && aboutBills.has(occasion)
      ? { ...customer, name: invoice.bill_name, mail: invoice.bill_mail, phone: "", reached_by: "any" as const }
      : customer;
  const merge: MergeFields = {
    service: invoice.lines > 1 ? `${invoice.work} and ${invoice.lines - 1} more` : (invoice.work ?? "our work"),
    my_link: linkPlaceholder,
    customer: to.name,
    business: business.name,
    phone: business.phone,
    ...fields,
  };
  write(context, { ...to, jobId: null, invoiceId }, { occasion, about, merge, answer });
}

interface Recipient {
  customer_id: number;
  name: string;
  mail: string;
  phone: string;
  proof: string;
  reached_by: "any" | "email" | "text" | "phone";
}

/** One message each way that they are reached, kept with them and sent by the worker. */
function write(
  context: OperationContext,
  to: Recipient & { jobId: number | null; repeatId?: number; askId?: number; invoiceId?: number },
  { occasion, about, merge, answer }: { occasion: Occasion; about: string; merge: MergeFields; answer: boolean },
): void {
  const { sql, now, hogar } = context;
  const texts = standardTexts[occasion];
  const ways = [
    { channel: "mail", recipient: to.mail, template: texts.mail },
    { channel: "text", recipient: to.phone, template: texts.text && { subject: "", body: texts.text } },
  ] as const;
  for (const { channel, recipient, template } of ways) {
    if (!template || !recipient || !hogar.gateways[channel]) continue;
    if (to.reached_by === "email" && channel === "text" && texts.mail && to.mail) continue;
    if (to.reached_by === "text" && channel === "mail" && texts.text && to.phone) continue;
    if (isUnproved(to.proof) && writtenToday(context, recipient) >= mostToUnproved) continue;
    const { subject, body } = fillTemplate(template, merge);
    const key = `${occasion} ${about} ${channel}`;
    const written = insertOnce(sql, "messages", {
      occasion: key,
      channel,
      customer_id: to.customer_id,
      job_id: to.jobId,
      repeat_id: to.repeatId ?? null,
      ask_id: to.askId ?? null,
      invoice_id: to.invoiceId ?? null,
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
const aboutBills = new Set<Occasion>([
  "invoice",
  "invoice reminder",
  "invoice coming",
  "last reminder",
  "charge tomorrow",
  "charge step",
  "charge failed",
]);

/** Who is told: whoever booked as they typed it, otherwise the customer; of a bill that goes to somebody else, they alone. */
function recipientOf({ sql }: OperationContext, jobId: number, occasion: Occasion): Recipient {
  const { bill_name, bill_mail, ...job } = sql<Recipient & { bill_name: string | null; bill_mail: string | null }>(
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
  invoice: { label: string; total_minor: number; openMinor: number; due_date: string },
): MergeFields => ({
  invoice: invoice.label,
  total: moneyWords(invoice.total_minor, currency),
  open: moneyWords(invoice.openMinor, currency),
  due: dateWords(invoice.due_date),
});
