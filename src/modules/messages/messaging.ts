import type { MergeFields } from "@/core/messages/fields";
import { type Language, languages } from "@/core/messages/languages";
import { kindOf, type Occasion } from "@/core/messages/occasions";
import type { ContactUse } from "@/core/people/contact-persons";
import { localOf } from "@/core/time/local";
import type { WorkPlace } from "@/core/visits/work-place";
import { type VisitState, visitStates } from "@/core/visits/states";
import type { OpenedBy } from "@/kernel/links";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import type { BusinessRow } from "@/store/business";
import type { Rows } from "@/store/rows";
import { saidTitle } from "@/store/service-names";
import { contactsColumn } from "@/store/columns";
import { type AboutWhat, type Reader, write, type Written } from "./writing";
import { type Reach } from "@/modules/customers/reach";

export interface Telling {
  jobId: number;
  /** The visit it is about, where the job has several; otherwise the next one. */
  visitId?: number;
  /** Other visits that it is about, of this job or another. */
  alsoVisits?: readonly number[];
  occasion: Occasion;
  /** What tells this occasion from others of its kind: at most one message a channel is sent for both together. */
  about: string;
  fields?: MergeFields;
  /** Answers something the customer has just done: goes out at any hour. */
  answer?: boolean;
  /** What its link opens, where that is not the page of the job. */
  opens?: OpenedBy;
  /** Leaves so many milliseconds later. */
  afterMs?: number;
}

/** Stands in a message for the customer's link until it is sent: the link itself is never stored. */
export const linkPlaceholder = "{{my_link}}";
/** The same for the link that opens all that the customer owes. */
export const owedPlaceholder = "{{owed_link}}";
/** And for the one that ends messages which need consent. */
export const stopPlaceholder = "{{stop_link}}";

/** Writes the customer of a job the message of an occasion, once. */
export function tellCustomer(
  context: OperationContext,
  { jobId, visitId, alsoVisits, occasion, about, fields = {}, answer = false, opens, afterMs = 0 }: Telling,
): void {
  const job = recipientOf(context, jobId, occasion);
  const of = visitsOfJob(context, jobId, visitId);
  const what: AboutWhat = {
    jobId,
    visitId: of.first.id,
    windowFrom: of.first.window_from,
    ...(alsoVisits && { alsoVisits }),
    ...(opens && { opens }),
  };
  const written: Written = {
    occasion,
    about,
    answer,
    afterMs,
    fields: {
      ...fieldsOfVisits(context, of, job),
      ...ours(context),
      // To an address of which nobody has shown that it is theirs, no word goes that somebody has typed.
      customer: isUnproved(job.proof) ? { phrase: "somebody" } : job.name,
      ...fields,
    },
  };
  write(context, readerOf(context, job), what, written);
  if (groupsOfVisits.has(kindOf(occasion).group)) tellOthers(context, job, "visits", what, written);
}

/** What others hear of who are told about visits. */
const groupsOfVisits: ReadonlySet<string> = new Set(["Booking", "Before the visit", "On the day"]);

/** Writes the same to those who are reached for a customer, as the office has put them down. */
function tellOthers(context: OperationContext, customer: Recipient, use: ContactUse, of: AboutWhat, written: Written) {
  const { contacts } = context
    .sql<{ contacts: string }>("SELECT contacts FROM customers WHERE id = ?")
    .get(customer.customer_id)!;
  for (const one of contactsColumn.read(contacts))
    if (one.uses.includes(use))
      write(
        context,
        {
          customerId: customer.customer_id,
          mail: one.mail,
          phone: one.phone,
          language: languageOf(context.business, customer.language),
        },
        of,
        {
          ...written,
          about: `${written.about}, to ${one.mail || one.phone}`,
          fields: { ...written.fields, customer: one.name },
        },
      );
}

/** What every message may name. */
const ours = ({ business }: ViewContext): MergeFields => ({
  my_link: linkPlaceholder,
  business: business.name,
  phone: business.phone,
});

/** Invites a customer to book, in the words of a campaign, once: by the link of the invitation. */
export function tellOfOffer(
  context: OperationContext,
  {
    customerId,
    inviteId,
    words,
    fields,
  }: Pick<Written, "fields"> &
    Required<Pick<Written, "words">> & {
      customerId: number;
      inviteId: number;
    },
): void {
  const customer = readRecipient(context, customerId);
  write(
    context,
    readerOf(context, customer),
    { inviteId, opens: { kind: "offer", id: inviteId } },
    {
      occasion: "offer",
      about: `invite ${inviteId}`,
      words,
      fields: { ...ours(context), customer: customer.name, stop_link: stopPlaceholder, ...fields },
    },
  );
}

/** Something about a repeat rather than about one booking of it. */
interface RepeatTelling extends Pick<Telling, "occasion" | "about"> {
  repeat: Pick<Rows["repeats"], "id" | "customer_id" | "site_id" | "service_id">;
  /** The question whose link stands in it. */
  askId?: number;
  fields: MergeFields;
}

/** Writes the customer of a repeat the message of an occasion, once. */
export function tellAboutRepeat(
  context: OperationContext,
  { repeat, askId, occasion, about, fields }: RepeatTelling,
): void {
  const { sql, business } = context;
  const customer = readRecipient(context, repeat.customer_id);
  const { line } = sql<{ line: string }>("SELECT line FROM sites WHERE id = ?").get(repeat.site_id)!;
  const { work_place } = sql<{ work_place: WorkPlace }>("SELECT work_place FROM services WHERE id = ?").get(
    repeat.service_id,
  )!;
  write(
    context,
    readerOf(context, customer),
    { repeatId: repeat.id, ...(askId !== undefined && { opens: { kind: "again", id: askId } }) },
    {
      occasion,
      about,
      fields: {
        ...placeFields(work_place, { site: line, ours: business.address, phone: customer.phone }),
        ...ours(context),
        customer: customer.name,
        ...fields,
      },
    },
  );
}

/** Writes whoever an invoice is for the message of an occasion about it, once: by the link of its job; where it is about several jobs or none, by a link of its own. */
export function tellAboutInvoice(
  context: OperationContext,
  invoiceId: number,
  { occasion, about, fields, answer = false }: Omit<Telling, "jobId" | "visitId">,
): void {
  const { sql } = context;
  const invoice = sql<
    Pick<Rows["invoices"], "job_id" | "customer_id" | "bill_name" | "bill_mail"> & { work: string; lines: number }
  >(
    `SELECT job_id, customer_id, bill_name, bill_mail,
        (SELECT description FROM invoice_lines WHERE invoice_id = i.id ORDER BY position LIMIT 1) AS work,
        (SELECT count(*) FROM invoice_lines WHERE invoice_id = i.id) AS lines
      FROM invoices i WHERE id = ?`,
  ).get(invoiceId)!;
  const job = invoice.job_id === null ? null : recipientOf(context, invoice.job_id, occasion);
  const customer = job ?? readRecipient(context, invoice.customer_id);
  const to =
    invoice.bill_name && invoice.bill_mail && aboutBills.has(occasion)
      ? { ...customer, name: invoice.bill_name, mail: invoice.bill_mail, phone: "", reached_by: "any" as const }
      : customer;
  const ofJob =
    invoice.job_id === null
      ? { service: invoice.lines > 1 ? `${invoice.work} and ${invoice.lines - 1} more` : (invoice.work ?? "our work") }
      : fieldsOfVisits(context, visitsOfJob(context, invoice.job_id), to);
  const written: Written = {
    occasion,
    about,
    answer,
    fields: {
      ...ofJob,
      ...ours(context),
      customer: isUnproved(to.proof) ? { phrase: "somebody" } : to.name,
      ...fields,
    },
  };
  write(
    context,
    readerOf(context, to),
    {
      jobId: invoice.job_id,
      invoiceId,
      ...(invoice.job_id === null && { opens: { kind: "invoice", id: invoiceId } }),
    },
    written,
  );
  // By a link that opens the invoice, and nothing else of the customer.
  if (aboutBills.has(occasion) || occasion === "receipt")
    tellOthers(context, customer, "bills", { invoiceId, opens: { kind: "invoice", id: invoiceId } }, written);
}

/** Writes to somebody who has asked and is no customer yet, once: by the link of their wish or quote, where there is one. */
export function tellAsker(
  context: OperationContext,
  { name, mail, phone }: Reach,
  {
    opens,
    threadId,
    customerId = null,
    unproved = false,
    ...written
  }: Written & { opens?: OpenedBy } & {
    /** Whether they have only typed who they are, and none of us has looked at it. */
    unproved?: boolean;
    /** The conversation in which it stands. */
    threadId?: number;
    customerId?: number | null;
  },
): void {
  write(
    context,
    {
      customerId,
      threadId: customerId === null ? (threadId ?? null) : null,
      mail,
      phone,
      unproved,
      language: languageOf(context.business, null),
    },
    opens ? { opens } : {},
    {
      ...written,
      fields: {
        ...ours(context),
        // What a stranger typed is sent on by a person who has read it, and not by itself.
        customer: context.actor.kind === "person" ? name : { phrase: "somebody" },
        ...written.fields,
      },
    },
  );
}

/** Writes one of our own people, or an address of the office, once. */
export const tellUs = (context: OperationContext, to: { mail: string; phone: string }, written: Written): void =>
  write(
    context,
    { customerId: null, ...to, language: languageOf(context.business, null) },
    {},
    { ...written, fields: { business: context.business.name, ...written.fields } },
  );

interface Recipient {
  customer_id: number;
  name: string;
  mail: string;
  phone: string;
  proof: string;
  /** Whether whoever booked has typed the number. */
  typed: 0 | 1;
  reached_by: "any" | "email" | "text" | "phone";
  language: Language | null;
}

/** The language in which somebody is written to. */
export const languageOf = ({ language }: Pick<BusinessRow, "language">, own: string | null): Language =>
  languages.find((one) => one === own) ?? language;

const readerOf = ({ business }: ViewContext, to: Recipient): Reader => ({
  customerId: to.customer_id,
  mail: to.mail,
  phone: to.phone,
  reachedBy: to.reached_by,
  unproved: isUnproved(to.proof),
  typedPhone: to.typed === 1,
  language: languageOf(business, to.language),
});

const readRecipient = ({ sql }: ViewContext, customerId: number): Recipient =>
  sql<Recipient>(
    "SELECT id AS customer_id, name, mail, phone, reached_by, language, 'known' AS proof, 0 AS typed FROM customers WHERE id = ?",
  ).get(customerId)!;

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

/** Who is told: whoever booked as they typed it, otherwise the customer; of a bill that goes to somebody else, they alone. Whom we have been to is known. */
function recipientOf({ sql }: ViewContext, jobId: number, occasion: Occasion): Recipient {
  const { bill_name, bill_mail, ...job } = sql<Recipient & { bill_name: string | null; bill_mail: string | null }>(
    `SELECT j.customer_id, iif(EXISTS (SELECT 1 FROM visits WHERE job_id = j.id AND state = 'done'), 'known', j.proof) AS proof, iif(j.name <> '', j.name, c.name) AS name, iif(j.mail <> '', j.mail, c.mail) AS mail,
        iif(j.phone <> '', j.phone, c.phone) AS phone, j.phone <> '' AS typed, c.reached_by, c.language, i.bill_name, i.bill_mail
      FROM jobs j JOIN customers c ON c.id = j.customer_id LEFT JOIN invoices i ON i.job_id = j.id WHERE j.id = ?`,
  ).get(jobId)!;
  return bill_name && bill_mail && aboutBills.has(occasion)
    ? { ...job, name: bill_name, mail: bill_mail, phone: "", reached_by: "any" as const }
    : job;
}

const isUnproved = (proof: string): boolean => proof === "none" || proof === "asked";

interface VisitToTell {
  id: number;
  state: VisitState;
  title: string;
  date: string;
  window_from: number;
  window_to: number;
  work_place: WorkPlace;
  technician: string | null;
}

/** The visit named, or all of a job that are still to come; where there are none, the last. */
function visitsOfJob(
  { sql }: ViewContext,
  jobId: number,
  visitId?: number,
): { first: VisitToTell; coming: VisitToTell[]; site: string } {
  const { line } = sql<{ line: string }>(
    "SELECT t.line FROM jobs j JOIN sites t ON t.id = j.site_id WHERE j.id = ?",
  ).get(jobId)!;
  const visits = sql<VisitToTell>(
    `SELECT id, state, title, date, window_from, window_to, work_place,
        (SELECT t.name FROM placements p JOIN technicians t ON t.id = p.technician_id
          WHERE p.visit_id = v.id ORDER BY t.position LIMIT 1) AS technician
      FROM visits v WHERE job_id = ? ORDER BY window_from`,
  ).all(jobId);
  const coming = visits.filter((v) =>
    visitId === undefined ? visitStates.allows("expect", v.state) : v.id === visitId,
  );
  return { first: coming[0] ?? visits.at(-1)!, coming, site: line };
}

/** Merge fields of a job, as its customer is told of one visit of it. */
export const jobFields = (context: ViewContext, jobId: number, visitId: number): MergeFields =>
  fieldsOfVisits(context, visitsOfJob(context, jobId, visitId), { phone: context.business.phone, proof: "known" });

function fieldsOfVisits(
  { business, sql }: ViewContext,
  { first, coming, site }: { first: VisitToTell; coming: readonly VisitToTell[]; site: string },
  { phone, proof }: Pick<Recipient, "phone" | "proof">,
): MergeFields {
  const unproved = isUnproved(proof);
  const place = unproved ? ({ phrase: "yourAddress" } as const) : site;
  return {
    service: saidTitle(sql, first.title),
    site: place,
    ...placeFields(first.work_place, {
      site: unproved ? "" : site,
      ours: business.address,
      phone: unproved ? "" : phone,
    }),
    ...timesOf(business.time_zone, coming.length ? coming : [first]),
    technician: first.technician ?? "",
  };
}

/** Merge fields of the days and the window of visits. */
export function timesOf(
  zone: string,
  visits: readonly Pick<VisitToTell, "date" | "window_from" | "window_to">[],
): MergeFields {
  const [from, to] = [localOf(visits[0]!.window_from, zone).minute, localOf(visits[0]!.window_to, zone).minute];
  return {
    day: { days: visits.map(({ date }) => date) },
    window: { window: [from, to] },
    arrival: { arrival: [from, to] },
    from: { clock: from },
    to: { clock: to },
  };
}

const placeFields = (place: WorkPlace, of: { site: string; ours: string; phone: string }): MergeFields => ({
  promise: { place, as: "promise" },
  comes: { place, as: "comes" },
  missed: { place, as: "missed" },
  where: { place, as: "where", ...of },
});

/** Merge fields of an invoice. */
export const invoiceFields = (
  currency: string,
  invoice: { label: string; total_minor: number; openMinor: number; due_date: string },
): MergeFields => ({
  invoice: invoice.label,
  total: { minor: invoice.total_minor, currency },
  open: { minor: invoice.openMinor, currency },
  due: { date: invoice.due_date },
  others: "",
});
