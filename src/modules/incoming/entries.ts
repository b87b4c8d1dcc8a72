import { quoteStates } from "@/core/catalogue/quote-states";
import { jobStates } from "@/core/jobs/states";
import { seesOnly } from "@/core/people/permissions";
import { windowIn } from "@/core/time/local-words";
import { dateWords, dayShort } from "@/core/time/words";
import { isOver, type Wish, wishWords } from "@/core/windows/wishes";
import type { ViewContext } from "@/kernel/operation";
import { type Item, readItem, titleOf } from "@/modules/catalogue/catalogue";
import { peopleWhoMay } from "@/modules/people/people";
import { type QuoteRow, ranOut } from "@/modules/quotes/quotes";
import { type RequestRow } from "@/modules/requests/requests";

export interface BookingRow {
  id: number;
  booked_at: number;
  approval: "waiting" | "proposed";
  state: string;
  total_minor: number;
  name: string;
  phone: string;
  mail: string;
  line: string;
  postcode: string;
  note: string;
  handler: string | null;
  handler_id: number | null;
  visit: number;
  title: string;
  date: string;
  window_from: number;
  window_to: number;
}
export const bookingRows = `SELECT j.id, j.booked_at, j.approval, j.state, j.total_minor, j.note, c.name, c.phone, c.mail, s.line, s.postcode, h.name AS handler, j.handler_id, v.id AS visit, v.title, v.date, v.window_from, v.window_to
  FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id JOIN visits v ON v.job_id = j.id AND v.first_visit_id IS NULL LEFT JOIN people h ON h.id = j.handler_id
  WHERE j.approval <> 'given' AND j.state IN ${jobStates.sql("stand")}`;

/** Everything that waits, the longest first: bookings to confirm, requests, quotes. `forUs` where a person of the office is next, and not the customer. */
export function readIncoming(context: ViewContext) {
  const { sql, actor, business, today } = context;
  // What waits is nobody's work yet: whoever sees only their own visits sees none of it.
  if (seesOnly(actor) !== null)
    return {
      entries: [],
      people: [],
      meId: null,
      handles: null,
      currency: business.currency,
      timeZone: business.time_zone,
    };
  const bookings = sql<BookingRow>(`${bookingRows} ORDER BY j.id`)
    .all()
    .map((b) => ({
      key: `booking ${b.id}`,
      kind: "booking" as const,
      id: b.id,
      at: b.booked_at,
      name: b.name,
      what: b.title,
      where: `${b.line}, ${b.postcode}`,
      handler: b.handler,
      handlerId: b.handler_id,
      totalMinor: b.total_minor as number | null,
      forUs: b.approval === "waiting",
      waits:
        b.approval === "proposed"
          ? "for the customer’s answer"
          : b.state === "awaiting deposit"
            ? "for the deposit, then for us"
            : "to be confirmed",
      when: `${dayShort(b.date)}, ${windowIn(b.window_from, b.window_to, business.time_zone)}`,
    }));
  const requests = sql<RequestRow & { handler: string | null }>(
    "SELECT r.*, h.name AS handler FROM requests r LEFT JOIN people h ON h.id = r.handler_id WHERE outcome = 'open' ORDER BY r.id",
  )
    .all()
    .map((r) => ({
      key: `request ${r.id}`,
      kind: "request" as const,
      id: r.id,
      at: r.made_at,
      name: r.name,
      what: whatOf(context, r),
      where: r.address,
      handler: r.handler,
      handlerId: r.handler_id,
      totalMinor: null as number | null,
      forUs: true,
      waits: r.wish && isOver(JSON.parse(r.wish) as Wish, today) ? "no window came in time" : r.about,
      when: r.wish ? wishWords(JSON.parse(r.wish) as Wish) : r.wishes,
    }));
  const quotes = sql<QuoteRow & { handler: string | null }>(
    `SELECT q.*, h.name AS handler FROM quotes q LEFT JOIN people h ON h.id = q.handler_id WHERE state IN ${quoteStates.sql("open")} ORDER BY q.id`,
  )
    .all()
    .map((q) => ({
      key: `quote ${q.id}`,
      kind: "quote" as const,
      id: q.id,
      at: q.answered_at ?? q.made_at,
      name: q.name,
      what: whatOf(context, q),
      where: `${q.line}, ${q.postcode}`,
      handler: q.handler,
      handlerId: q.handler_id,
      totalMinor: q.total_minor as number | null,
      forUs: standingOf(q, today).standing !== "out",
      waits: standingOf(q, today).waits,
      when: q.answer || `quote ${q.id}, until ${dateWords(q.valid_until)}`,
    }));
  const people = peopleWhoMay(context, "shared.change");
  return {
    entries: [...bookings, ...requests, ...quotes].sort((a, b) => a.at - b.at),
    people,
    meId: actor.kind === "person" ? actor.id : null,
    handles: people.find((p) => p.id === business.incoming_person_id)?.name ?? null,
    currency: business.currency,
    timeZone: business.time_zone,
  };
}

/** Where a quote stands: with the customer, accepted, or ended by their no or by its day; and that in words. */
export function standingOf(quote: QuoteRow, today: string): { standing: "out" | "accepted" | "over"; waits: string } {
  if (quote.state === "accepted") return { standing: "accepted", waits: "accepted, to be booked" };
  if (quote.state === "declined") return { standing: "over", waits: "they said no" };
  return ranOut(quote, today)
    ? { standing: "over", waits: "the quote has run out" }
    : { standing: "out", waits: "for the customer’s answer" };
}

export const whatOf = (context: ViewContext, request: Pick<RequestRow, "items">): string =>
  titleOf(itemsOf(context, request)) || "a visit";

/** What was asked for, of services that are still there. */
export const itemsOf = (context: ViewContext, request: Pick<RequestRow, "items">) =>
  (JSON.parse(request.items) as Item[]).map((item) => readItem(context, item));
