import {
  type Collectable,
  type CollectionRules,
  planCollection,
  runOn,
  type Run,
  runsBetween,
  takes,
  whyNever,
} from "@/core/money/collecting";
import { openParts } from "@/core/money/instalments";
import { servesWeekday, addDays, type LocalDate } from "@/core/time/dates";
import type { Minor } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import type { ViewContext } from "@/kernel/operation";
import { partsOf } from "@/modules/money/parts";
import { daysColumn } from "@/store/columns";

/** When and what this business collects. */
export const rulesOf = ({ business: b }: ViewContext): CollectionRules => ({
  zone: b.time_zone,
  weekdays: b.collect_weekdays,
  time: b.collect_at,
  daysPastDue: b.collect_days,
  smallest: b.collect_smallest_minor,
  largest: b.card_most_minor ?? undefined,
  daySum: b.card_day_minor ?? undefined,
});

/** Days after which a card that could not pay is tried again, one try after the other. */
export const againDays = ({ business }: ViewContext): number[] => daysColumn.read(business.collect_again);

/** The next run from now on; null where nothing is collected by itself. */
export const nextRun = (context: ViewContext): Run | null =>
  context.business.collects === 0
    ? null
    : (runsBetween(rulesOf(context), context.minute, context.minute + 9 * 1440)[0] ?? null);

/** Today's run, where its time has come, or somebody has begun it before. */
export function runOfToday(context: ViewContext): Run | null {
  const { business, today, minute, sql } = context;
  if (business.collects === 0 || !servesWeekday(business.collect_weekdays, today)) return null;
  const run = runOn(rulesOf(context), today);
  return run.at <= minute || sql("SELECT 1 FROM collection_runs WHERE run_date = ?").get(today) ? run : null;
}

/** An open invoice, or one of the parts in which it is paid. */
export interface Due extends Collectable {
  invoiceId: number;
  label: string;
  /** Which part of how many; null is the whole. */
  part: { nth: number; of: number } | null;
  customerId: number;
  customer: string;
  card: string;
  promised: LocalDate | null;
}

interface DueRow extends Pick<
  Due,
  "invoiceId" | "label" | "customerId" | "customer" | "card" | "promised" | "openMinor"
> {
  due: LocalDate;
  date: LocalDate | null;
  known: number;
  never: number;
  split: number;
}

const dueColumns = `SELECT i.id AS invoiceId, i.label, c.id AS customerId, c.name AS customer, i.due_date AS due, i.collect_on AS date,
      i.collect_known / 60000 AS known, max(i.collect_never, c.collect_never, i.objected_at IS NOT NULL) AS never, b.open_minor AS openMinor,
      (SELECT label FROM cards WHERE customer_id = c.id AND collects = 1 AND removed_at IS NULL ORDER BY position, id LIMIT 1) AS card,
      (SELECT day FROM pay_promises WHERE invoice_id = i.id AND ended IS NULL) AS promised,
      EXISTS (SELECT 1 FROM invoice_parts WHERE invoice_id = i.id) AS split`;
const standsOpen = `b.open_minor > 0
    AND NOT EXISTS (SELECT 1 FROM allocations a JOIN disputes d ON d.payment_id = a.payment_id WHERE a.invoice_id = i.id)`;

/** Open invoices whose customers have agreed that a card of theirs is charged by itself, part by part. They are found by the cards, which are few beside all invoices. */
export const dueForCollection = (context: ViewContext): Due[] =>
  context
    .sql<DueRow>(
      `${dueColumns}
        FROM (SELECT DISTINCT customer_id FROM cards WHERE collects = 1 AND removed_at IS NULL) k
          CROSS JOIN customers c ON c.id = k.customer_id
          CROSS JOIN invoices i ON i.customer_id = c.id JOIN invoice_balances b ON b.invoice_id = i.id
        WHERE ${standsOpen} ORDER BY i.due_date, i.id`,
    )
    .all()
    .flatMap((row) => partsDue(context, row));

/** The same of one invoice; nothing where it is not collected. */
export function dueOfInvoice(context: ViewContext, invoiceId: number): Due[] {
  const row = context
    .sql<DueRow>(
      `${dueColumns}
        FROM invoices i JOIN customers c ON c.id = i.customer_id JOIN invoice_balances b ON b.invoice_id = i.id
        WHERE i.id = ? AND ${standsOpen}
          AND EXISTS (SELECT 1 FROM cards WHERE customer_id = c.id AND collects = 1 AND removed_at IS NULL)`,
    )
    .get(invoiceId);
  return row ? partsDue(context, row) : [];
}

const partsDue = (context: ViewContext, row: DueRow): Due[] => (row.split ? inParts(context, row) : [dueOf(row)]);

function dueOf({ never, date, known, ...row }: DueRow): Due {
  return {
    ...row,
    id: String(row.invoiceId).padStart(12, "0"),
    part: null,
    never: never === 1,
    // Whoever has promised a day is left alone until it is over.
    date: row.promised ? later(addDays(row.promised, 1), date) : (date ?? undefined),
    known: Math.ceil(known),
  };
}

/** A day of its own, and a promise, are about what is due by then; later parts keep their days. */
function inParts(context: ViewContext, row: DueRow): Due[] {
  const whole = dueOf(row);
  const parts = partsOf(context, row.invoiceId);
  return openParts(
    parts.map((part, i) => ({ ...part, nth: i + 1 })),
    row.openMinor,
  ).map(({ due, openMinor, nth }, i) => ({
    ...whole,
    id: `${whole.id}/${nth}`,
    part: { nth, of: parts.length },
    due,
    openMinor,
    date: i === 0 || (row.promised !== null && due <= row.promised) ? whole.date : undefined,
  }));
}

/** What a run takes of an invoice: all of its parts whose day has come. */
export interface Taken extends Omit<Due, "id" | "part" | "due" | "date"> {
  openMinor: Minor;
}

export const takenBy = (context: ViewContext, run: Run): Taken[] => gathered(context, run, dueForCollection(context));

/** What it takes of one invoice; null where that is nothing. */
export const takenOf = (context: ViewContext, run: Run, invoiceId: number): Taken | null =>
  gathered(context, run, dueOfInvoice(context, invoiceId))[0] ?? null;

function gathered(context: ViewContext, run: Run, all: readonly Due[]): Taken[] {
  const rules = rulesOf(context);
  const byInvoice = new Map<number, Taken>();
  for (const due of all) {
    if (whyNever(due, rules) !== null || !takes(run, due, rules)) continue;
    const before = byInvoice.get(due.invoiceId);
    byInvoice.set(due.invoiceId, before ? { ...before, openMinor: before.openMinor + due.openMinor } : due);
  }
  return [...byInvoice.values()];
}

const later = (a: LocalDate, b: LocalDate | null): LocalDate => (b !== null && b > a ? b : a);

/** What the runs of the coming days will take, by day, if each is paid at its first charge. */
export function plannedRuns(context: ViewContext, days: number): Map<LocalDate, Minor> {
  if (context.business.collects === 0) return new Map();
  const { runs } = planCollection(rulesOf(context), dueForCollection(context), {
    now: context.minute,
    until: context.minute + days * 1440,
  });
  return new Map(runs.map(({ at, sumMinor }) => [localDate(at, context.business.time_zone), sumMinor]));
}
