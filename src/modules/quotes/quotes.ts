import { type Item } from "@/core/catalogue/items";
import { hasRunOut, type QuoteOption, quotedOrder } from "@/core/catalogue/quotes";
import { totalOf } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import type { WindowAnswer } from "@/core/windows/offer";
import { firstLinkTokenOf, openedWith, type Way } from "@/kernel/links";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import type { Wanted } from "@/modules/booking/wanted";
import { priceItems, readItem, toPlace } from "@/modules/catalogue/catalogue";
import { itemsOfJob } from "@/modules/catalogue/job-items";
import type { ZoneRules } from "@/modules/place/zones";
import { answersFor } from "@/modules/placing/windows";
import { readRequest } from "@/modules/requests/requests";
import { readWaiting } from "@/modules/requests/waiting";
import { daysColumn, itemsColumn, linesColumn, quoteOptionsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";

export type QuoteRow = Rows["quotes"];

/** Whether nobody has accepted it in time. */
export const ranOut = (quote: QuoteRow, today: LocalDate): boolean =>
  hasRunOut({ state: quote.state, validUntil: quote.valid_until }, today);

/** What is asked for in an entry of incoming, to begin a quote with. */
export function itemsAbout(
  context: ViewContext,
  { kind, id }: { kind: "booking" | "request" | "quote"; id: number },
): Item[] {
  if (kind === "booking") return itemsOfJob(context, readWaiting(context, id).id);
  return itemsColumn.read(kind === "request" ? readRequest(context, id).items : readQuote(context, id).items);
}

/** A quote by its id that is neither booked nor withdrawn. */
export function readQuote({ sql }: ViewContext, id: number): QuoteRow {
  const quote = sql<QuoteRow>("SELECT * FROM quotes WHERE id = ?").get(id);
  if (!quote || quote.state === "booked" || quote.state === "withdrawn")
    throw new Refusal("not-found", { sentence: "This quote does not stand any more: somebody has dealt with it." });
  return quote;
}

/** The quote of a sealed link, and by which way that left; refused where it opens nothing, the quote was withdrawn, or the link of its booking was ended. */
export function openQuote(context: ViewContext, token: string): QuoteRow & { way: Way } {
  const opened = openedWith(context.hogar, "quote", token);
  const quote = opened ? context.sql<QuoteRow>("SELECT * FROM quotes WHERE id = ?").get(opened.id) : undefined;
  const ended =
    quote && (quote.state === "withdrawn" || (quote.job_id !== null && !firstLinkTokenOf(context.hogar, quote.job_id)));
  if (!opened || !quote || ended) throw new Refusal("link-ended");
  return { ...quote, way: opened.way };
}

/** Days after it was sent on which somebody who has not answered is asked again. */
export const followUpDays = ({ business }: ViewContext): number[] => daysColumn.read(business.quote_follow_ups);

/** Quotes whose customers are to be asked again today. */
export const quotesToFollowUp = ({ sql, today }: ViewContext): number[] =>
  sql<{ id: number }>("SELECT id FROM quotes WHERE follow_up_on <= ? ORDER BY id")
    .all(today)
    .map(({ id }) => id);

/** What there is to choose from; the quote as it stands alone where there is no choice. */
export const optionsOf = (quote: QuoteRow): QuoteOption[] => {
  const several = quoteOptionsColumn.read(quote.options);
  return several.length
    ? several
    : [
        {
          name: "",
          items: itemsColumn.read(quote.items),
          lines: linesColumn.read(quote.lines),
          minutes: quote.minutes,
          crew: quote.crew,
          depositMinor: quote.deposit_minor,
        },
      ];
};

/** The quote with one of its options in place of what stands there; once one was chosen, that one stands. */
export function withOption(quote: QuoteRow, which: number): QuoteRow {
  if (quote.chosen !== "") return quote;
  const option = optionsOf(quote)[which];
  if (!option) throw new Refusal("invalid-input", { fields: { "/option": "Choose one of these." } });
  return {
    ...quote,
    chosen: option.name,
    items: JSON.stringify(option.items),
    lines: JSON.stringify(option.lines),
    total_minor: totalOf(option.lines).totalMinor,
    deposit_minor: option.depositMinor,
    minutes: option.minutes,
    crew: option.crew,
  };
}

/** The work of a quote, as bookings have it: at its price, with its minutes and people. */
export function wantedOfQuote(context: ViewContext, quote: QuoteRow): Wanted {
  const zone =
    quote.zone_id === null
      ? null
      : (context.sql<ZoneRules>("SELECT * FROM zones WHERE id = ?").get(quote.zone_id) ?? null);
  const items = itemsColumn.read(quote.items).map((item) => readItem(context, item));
  const order = quotedOrder(priceItems(context, items, zone), {
    lines: linesColumn.read(quote.lines),
    minutes: quote.minutes,
    crew: quote.crew,
    depositMinor: quote.deposit_minor,
  });
  const address = { id: "", line: quote.line, postcode: quote.postcode, lng: quote.lng, lat: quote.lat };
  return {
    address,
    zone,
    items,
    visit: { ...toPlace(context, items, address, quote.zone_id, order), wanted: null },
    order,
    coupon: null,
    pointsCustomerId: null,
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
  void sql("UPDATE quotes SET state = 'sent', answered_at = NULL, job_id = NULL, chosen = '' WHERE job_id = ?").run(
    jobId,
  );

/** Takes a quote back. */
export function withdrawQuote(context: OperationContext, id: number): QuoteRow {
  const quote = readQuote(context, id);
  context.sql("UPDATE quotes SET state = 'withdrawn', answered_at = ? WHERE id = ?").run(context.now, id);
  return quote;
}
