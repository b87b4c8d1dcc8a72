import type { FieldName, MergeFields } from "@/core/messages/fields";
import { fieldsOf, type Occasion } from "@/core/messages/occasions";
import { addDays } from "@/core/time/dates";
import { dayShort } from "@/core/time/words";
import { visitStates } from "@/core/visits/states";
import type { ViewContext } from "@/kernel/operation";
import { invoiceFields, jobFields, linkPlaceholder, stopPlaceholder } from "./messaging";

/** Visits with which a text can be shown: the next ones. */
export const samples = ({ sql, minute }: ViewContext): { visitId: number; words: string }[] =>
  sql<{ visitId: number; name: string; title: string; date: string }>(
    `SELECT v.id AS visitId, c.name, v.title, v.date FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
      WHERE v.state IN ${visitStates.sql("expect")} AND v.window_from > ? ORDER BY v.window_from LIMIT 8`,
  )
    .all(minute)
    .map(({ visitId, name, title, date }) => ({ visitId, words: `${name}, ${title}, ${dayShort(date)}` }));

/** What stands for each field of an occasion: of a real visit and its invoice where one is named, and made up where it has none. */
export function sampleFields(context: ViewContext, occasion: Occasion, visitId: number | null): MergeFields {
  const madeUp = Object.fromEntries(
    Object.entries(madeUpFields(context)).filter(([name]) => (fieldsOf(occasion) as string[]).includes(name)),
  );
  return { ...madeUp, ...(visitId === null ? {} : ofVisit(context, visitId)) };
}

function ofVisit(context: ViewContext, visitId: number): MergeFields {
  const { sql, business } = context;
  const visit = sql<{ job_id: number; name: string }>(
    "SELECT v.job_id, c.name FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id WHERE v.id = ?",
  ).get(visitId);
  if (!visit) return {};
  const invoice = sql<{ label: string; total_minor: number; openMinor: number; due_date: string }>(
    `SELECT i.label, i.total_minor, b.open_minor AS openMinor, i.due_date FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id
      WHERE i.job_id = ? ORDER BY i.id DESC LIMIT 1`,
  ).get(visit.job_id);
  return {
    ...jobFields(context, visit.job_id, visitId),
    customer: visit.name,
    ...(invoice && invoiceFields(business.currency, invoice)),
  };
}

const madeUpFields = ({
  business,
  today,
}: ViewContext): Record<
  Exclude<FieldName, "customer_first" | "technician_first" | "technician_initials">,
  MergeFields[string]
> => {
  const { currency } = business;
  const tomorrow = { days: [addDays(today, 1)] };
  const window = { window: [540, 660] } as const;
  return {
    customer: "Mira Okonjo",
    business: business.name,
    phone: business.phone,
    my_link: linkPlaceholder,
    service: "Stove service",
    site: "12 Beacon Street",
    day: tomorrow,
    window,
    arrival: { arrival: [540, 660] },
    from: { clock: 540 },
    to: { clock: 660 },
    promise: { place: "site", as: "promise" },
    comes: { place: "site", as: "comes" },
    missed: { place: "site", as: "missed" },
    where: { place: "site", as: "where", site: "12 Beacon Street", ours: "", phone: "" },
    technician: "Petra Lindqvist",
    visits: [],
    expected: { clock: 590 },
    minutes: "20",
    old: { dated: addDays(today, 2), window: [660, 780] },
    reason: "we do not come so far out.",
    done: "Flue swept\nSmoke test",
    note: "The rope of the door should be renewed next year.",
    price: { minor: 9_500, currency, per: "visit" },
    off: "10%",
    last_time: { month: addDays(today, -365) },
    stop_link: stopPlaceholder,
    invoice: "2027-0042",
    total: { minor: 12_000, currency },
    open: { minor: 12_000, currency },
    due: { date: addDays(today, 14) },
    others: "",
    amount: { minor: 12_000, currency },
    card: "card ending 4242",
    month: { month: today },
    sum: { minor: 34_000, currency },
    instead: "",
    until: { days: [addDays(today, 21)] },
    sent: { days: [addDays(today, -7)] },
    words: "Do you also do gas boilers?",
    reply: "We are sorry. Petra comes again on Thursday and puts it right, of course without a charge.",
    what: "New booking",
    who: "Mira Okonjo, 12 Beacon Street",
    more: "+1 555 0142",
    stops: [
      { window, service: "Stove service", site: "12 Beacon Street", who: "Mira Okonjo" },
      { window: { window: [660, 780] }, service: "Chimney sweep", site: "3 Mill Lane", who: "Viktor Ness" },
    ],
    left_over: [],
    figures: [
      { name: "Visits done", value: "11" },
      { name: "Received", value: { minor: 98_400, currency } },
    ],
    needs: [{ what: "2 conversations wait" }],
  };
};
