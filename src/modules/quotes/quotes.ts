import type { QuoteState } from "@/core/catalogue/quote-states";
import { hasRunOut, quotedOrder } from "@/core/catalogue/quotes";
import type { PricedLine } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import type { WindowAnswer } from "@/core/windows/offers";
import { firstLinkTokenOf, openedBy } from "@/kernel/links";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import type { Wanted } from "@/modules/booking/wanted";
import { type Item, priceItems, readItem, toPlace } from "@/modules/catalogue/catalogue";
import { itemsOfJob } from "@/modules/catalogue/job-items";
import type { Reach } from "@/modules/messages/telling";
import type { ZoneRules } from "@/modules/place/zones";
import { answersFor } from "@/modules/placing/windows";
import { readRequest } from "@/modules/requests/requests";
import { readWaiting } from "@/modules/requests/waiting";

export interface QuoteRow extends Reach {
  id: number;
  request_id: number | null;
  made_at: number;
  line: string;
  postcode: string;
  lng: number;
  lat: number;
  zone_id: number | null;
  /** JSON: Item[], string[], PricedLine[]. */
  items: string;
  photos: string;
  lines: string;
  note: string;
  words: string;
  total_minor: number;
  deposit_minor: number;
  minutes: number;
  crew: number;
  valid_until: LocalDate;
  state: QuoteState;
  answered_at: number | null;
  answer: string;
  handler_id: number | null;
  job_id: number | null;
}

/** Whether nobody has accepted it in time. */
export const ranOut = (quote: QuoteRow, today: LocalDate): boolean =>
  hasRunOut({ state: quote.state, validUntil: quote.valid_until }, today);

/** What is asked for in an entry of incoming, to begin a quote with. */
export function itemsAbout(
  context: ViewContext,
  { kind, id }: { kind: "booking" | "request" | "quote"; id: number },
): Item[] {
  if (kind === "booking") return itemsOfJob(context, readWaiting(context, id).id);
  return JSON.parse(kind === "request" ? readRequest(context, id).items : readQuote(context, id).items) as Item[];
}

/** A quote by its id that is neither booked nor withdrawn. */
export function readQuote({ sql }: ViewContext, id: number): QuoteRow {
  const quote = sql<QuoteRow>("SELECT * FROM quotes WHERE id = ?").get(id);
  if (!quote || quote.state === "booked" || quote.state === "withdrawn")
    throw new Refusal("not-found", { sentence: "This quote does not stand any more: somebody has dealt with it." });
  return quote;
}

/** The quote of a sealed link; refused where it opens nothing, the quote was withdrawn, or the link of its booking was ended. */
export function openQuote(context: ViewContext, token: string): QuoteRow {
  const id = openedBy(context.hogar, "quote", token);
  const quote = id === null ? undefined : context.sql<QuoteRow>("SELECT * FROM quotes WHERE id = ?").get(id);
  const ended =
    quote && (quote.state === "withdrawn" || (quote.job_id !== null && !firstLinkTokenOf(context.hogar, quote.job_id)));
  if (!quote || ended) throw new Refusal("link-ended");
  return quote;
}

/** The work of a quote, as bookings have it: at its price, with its minutes and people. */
export function wantedOfQuote(context: ViewContext, quote: QuoteRow): Wanted {
  const zone =
    quote.zone_id === null
      ? null
      : (context.sql<ZoneRules>("SELECT * FROM zones WHERE id = ?").get(quote.zone_id) ?? null);
  const items = (JSON.parse(quote.items) as Item[]).map((item) => readItem(context, item));
  const order = quotedOrder(priceItems(context, items, zone), {
    lines: JSON.parse(quote.lines) as PricedLine[],
    minutes: quote.minutes,
    crew: quote.crew,
    depositMinor: quote.deposit_minor,
  });
  const address = { id: "", line: quote.line, postcode: quote.postcode, lng: quote.lng, lat: quote.lat };
  return {
    address,
    zone,
    items,
    visit: { ...toPlace(items, address, quote.zone_id, order), wanted: null },
    order,
    coupon: null,
  };
}

/** Windows for the work of a quote. Outside all zones the rules of booking say no to everything: there all count that can be kept, after the usual notice. */
export function answersOfQuote(
  context: ViewContext,
  { visit, zone }: Wanted,
  dates: readonly LocalDate[],
): WindowAnswer[] {
  if (zone) return answersFor(context, visit, dates);
  const earliest = context.minute + context.business.notice_minutes;
  return answersFor(context, visit, dates, { strict: false }).filter((answer) => answer.from >= earliest);
}

/** The booking of a quote has lapsed before its deposit came: the quote stands as before, to be accepted again. */
export const reopenQuote = ({ sql }: OperationContext, jobId: number): void =>
  void sql("UPDATE quotes SET state = 'sent', answered_at = NULL, job_id = NULL WHERE job_id = ?").run(jobId);

/** Takes a quote back. */
export function withdrawQuote(context: OperationContext, id: number): QuoteRow {
  const quote = readQuote(context, id);
  context.sql("UPDATE quotes SET state = 'withdrawn', answered_at = ? WHERE id = ?").run(context.now, id);
  return quote;
}
