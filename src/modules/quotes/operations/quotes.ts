import { type Item } from "@/core/catalogue/items";
import { quoteStates } from "@/core/catalogue/quote-states";
import { quoteLines, quoteProblems } from "@/core/catalogue/quotes";
import { moneyWords, totalOf } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { dayWords } from "@/core/time/words";
import type { Offer } from "@/core/windows/offer";
import { Id, input, Money, OrNull } from "@/kernel/inputs";
import { firstLinkTokenOf, linkTokenOf, ownLinkPlaceholder } from "@/kernel/links";
import { actorWords, defineOperation, type OperationContext } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { takeRoom } from "@/modules/booking/room";
import type { Wanted } from "@/modules/booking/wanted";
import { readItem, titleOf } from "@/modules/catalogue/catalogue";
import { answersOfJob } from "@/modules/catalogue/job-items";
import { customerFor, siteFor } from "@/modules/customers/customers";
import { tellBooked } from "@/modules/messages/tell-booked";
import { tellPerson } from "@/modules/messages/telling";
import { tellAll, tellOffice } from "@/modules/messages/telling-office";
import { addressOf } from "@/modules/place/addresses";
import { zoneOf } from "@/modules/place/zones";
import { answersWithin } from "@/modules/placing/windows";
import { windowChosen } from "@/modules/requests/inputs";
import { endRequest, readRequest } from "@/modules/requests/requests";
import { endWaiting } from "@/modules/requests/waiting";
import { photosColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";
import { QuoteToken, SendQuote } from "../inputs";
import { answersOfQuote, openQuote, type QuoteRow, ranOut, readQuote, wantedOfQuote, withdrawQuote } from "../quotes";

/** The total that was read, and a window; without one, when it would suit, for us to find one. */
const AcceptQuote = input({
  token: QuoteToken.properties.token,
  totalMinor: Money,
  window: OrNull(input(windowChosen)),
  words: Type.String({ maxLength: 1000 }),
});
const DeclineQuote = input({ token: QuoteToken.properties.token, words: Type.String({ maxLength: 1000 }) });
const BookQuote = input({ quoteId: Id, ...windowChosen });
const PutAwayQuotes = input({ ids: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) });

/** Whom a quote is for, where the work is, and what was said about it: from what came in. */
type QuotedWork = Pick<
  QuoteRow,
  | "name"
  | "mail"
  | "phone"
  | "line"
  | "postcode"
  | "lng"
  | "lat"
  | "zone_id"
  | "note"
  | "photos"
  | "handler_id"
  | "request_id"
>;

/**
 * Sends a quote: it takes the place of the request or the booking it is about, or of the quote as it
 * was before. A booking gives its room back, and what was paid for it returns.
 */
export const sendQuote = defineOperation({
  name: "send-quote",
  access: "shared.change",
  input: SendQuote,
  run(context, { about, items, lines: typed, minutes, crew, depositMinor, words, validUntil }) {
    const { now, business, today } = context;
    const asked = items.map(({ serviceId, quantity = 1, answers = {}, extras = [] }): Item => ({
      serviceId,
      quantity,
      answers,
      extras,
    }));
    const title = titleOf(asked.map((item) => readItem(context, item)));
    const lines = quoteLines(typed, business.prices_include_tax === 1);
    const wrong = quoteProblems({ lines, depositMinor }, validUntil, today);
    if (Object.keys(wrong).length) throw new Refusal("invalid-input", { fields: wrong });
    const { totalMinor } = totalOf(lines);
    const offered = {
      now,
      by: actorWords(context.actor),
      items: JSON.stringify(asked),
      lines: JSON.stringify(lines),
      words: words.trim(),
      totalMinor,
      depositMinor,
      minutes,
      crew,
      validUntil,
    };
    const work = about.kind === "quote" ? readQuote(context, about.id) : workOf(context, about);
    const quoteId =
      about.kind === "quote" ? changeQuote(context, about.id, offered) : makeQuote(context, work, offered);
    const sum = moneyWords(totalMinor, business.currency);
    tellPerson(context, work, {
      key: `quote ${quoteId} at ${now}`,
      opens: { kind: "quote", id: quoteId },
      subject: `${about.kind === "quote" ? "Your quote has changed" : "Your quote"}: ${title}, ${sum}`,
      words: `${about.kind === "booking" ? "instead of your booking we offer you" : "we offer you"} ${title} at ${work.line} for ${sum}, until ${dayWords(validUntil)}. Read it, choose a time and accept it here:\n\n${ownLinkPlaceholder}`,
      text: `our quote for ${title}, ${sum}: ${ownLinkPlaceholder}`,
    });
    return { quoteId };
  },
});

/** What is offered, by the names of the statements below. */
type Offered = Record<"by" | "items" | "lines" | "words" | "validUntil", string> &
  Record<"now" | "totalMinor" | "depositMinor" | "minutes" | "crew", number>;

const makeQuote = ({ sql }: OperationContext, work: QuotedWork, offered: Offered): number =>
  insertRow(sql, "quotes", {
    request_id: work.request_id,
    made_at: offered.now,
    made_by: offered.by,
    name: work.name,
    mail: work.mail,
    phone: work.phone,
    line: work.line,
    postcode: work.postcode,
    lng: work.lng,
    lat: work.lat,
    zone_id: work.zone_id,
    note: work.note,
    photos: work.photos,
    handler_id: work.handler_id,
    nonce: nanoid(32),
    items: offered.items,
    lines: offered.lines,
    words: offered.words,
    total_minor: offered.totalMinor,
    deposit_minor: offered.depositMinor,
    minutes: offered.minutes,
    crew: offered.crew,
    valid_until: offered.validUntil,
  });

/** The quote as it is offered now, under the same link; what was answered to it before counts no more. */
function changeQuote({ sql }: OperationContext, quoteId: number, offered: Offered): number {
  sql(
    `UPDATE quotes
      SET state = 'sent', answered_at = NULL, answer = '', made_at = @now, made_by = @by, items = @items,
        lines = @lines, words = @words, total_minor = @totalMinor, deposit_minor = @depositMinor,
        minutes = @minutes, crew = @crew, valid_until = @validUntil
      WHERE id = @quoteId`,
  ).run({ ...offered, quoteId });
  return quoteId;
}

/** What came in, which the quote answers: it waits no more. */
function workOf(
  context: OperationContext,
  { kind, id }: { kind: "booking" | "request" | "quote"; id: number },
): QuotedWork {
  if (kind === "request") {
    const request = readRequest(context, id);
    if (request.address_id === null)
      throw new Refusal("invalid-input", { fields: { "/": "Say first where this is." } });
    const address = addressOf(context, request.address_id);
    endRequest(context, id, "answered");
    return {
      ...request,
      ...address,
      zone_id: zoneOf(context, address)?.id ?? null,
      note: request.wishes,
      request_id: id,
    };
  }
  const { sql } = context;
  const job = sql<Omit<QuotedWork, "photos" | "request_id">>(
    `SELECT c.name, iif(j.mail <> '', j.mail, c.mail) AS mail, iif(j.phone <> '', j.phone, c.phone) AS phone,
        s.line, s.postcode, s.lng, s.lat, s.zone_id, j.note, j.handler_id
      FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id WHERE j.id = ?`,
  ).get(id)!;
  const photos = answersOfJob(context, id).flatMap((answer) => answer.photos ?? []);
  endWaiting(context, id, "We made a quote instead");
  return { ...job, photos: JSON.stringify(photos.slice(0, 6)), request_id: null };
}

/**
 * A customer accepts: in a window that is offered, which books it, or without one, for us to find one. Whoever
 * has read another total is asked to look again; pressing twice books once.
 */
export const acceptQuote = defineOperation({
  name: "accept-quote",
  access: "anybody",
  input: AcceptQuote,
  run(context, { token, totalMinor, window, words }) {
    const { business, sql, now } = context;
    const quote = openQuote(context, token);
    if (quote.job_id !== null) return { link: firstLinkTokenOf(context.hogar, quote.job_id) };
    if (ranOut(quote, context.today))
      throw new Refusal("quote-over", { sentence: `This quote has run out. Call us on ${business.phone}.` });
    if (quote.total_minor !== totalMinor)
      throw new Refusal("price-changed", {
        sentence: `This quote has changed: it is ${moneyWords(quote.total_minor, business.currency)} now. Look at it again before you accept.`,
      });
    if (!window) {
      if (quote.state === "accepted") return { link: null };
      sql("UPDATE quotes SET state = 'accepted', answered_at = ?, answer = ? WHERE id = ?").run(
        now,
        words.trim(),
        quote.id,
      );
      tellAnswer(context, quote, "accepted", words);
      return { link: null };
    }
    const wanted = wantedOfQuote(context, quote);
    const offer = answersOfQuote(context, wanted, [window.date]).find(
      (a) => a.from === window.from && a.to === window.to,
    );
    if (!offer?.offered)
      throw new Refusal("window-gone", {
        sentence: "Somebody was faster: this window has just been taken. Choose another one.",
      });
    const jobId = bookIt(context, quote, wanted, offer, { by: "front door", words, depositMinor: quote.deposit_minor });
    tellOffice(context, jobId);
    return { link: linkTokenOf(context.hogar, jobId)! };
  },
});

/** A customer says no, with or without a reason; it can still be accepted while it stands. */
export const declineQuote = defineOperation({
  name: "decline-quote",
  access: "anybody",
  input: DeclineQuote,
  run(context, { token, words }) {
    const quote = openQuote(context, token);
    if (!quoteStates.allows("accept", quote.state)) throw new Refusal("link-ended");
    context
      .sql("UPDATE quotes SET state = 'declined', answered_at = ?, answer = ? WHERE id = ?")
      .run(context.now, words.trim(), quote.id);
    tellAnswer(context, quote, "declined", words);
  },
});

const tellAnswer = (context: OperationContext, quote: QuoteRow, how: "accepted" | "declined", words: string): void =>
  tellAll(context, {
    key: `quote ${quote.id} ${how} at ${context.now}`,
    subject: `Quote ${quote.id} is ${how}`,
    body: `${quote.name}, ${quote.line}\n${moneyWords(quote.total_minor, context.business.currency)}\n${quote.phone}${words.trim() ? `\n“${words.trim()}”` : ""}\n`,
    who: `${quote.name}, ${quote.line}`,
  });

/** The office books a quote that was accepted, here or on the phone: at any window that somebody can keep, and without asking for a deposit. */
export const bookQuote = defineOperation({
  name: "book-quote",
  access: "shared.change",
  input: BookQuote,
  run(context, { quoteId, ...window }) {
    const quote = readQuote(context, quoteId);
    const wanted = wantedOfQuote(context, quote);
    const [offer] = answersWithin(context, wanted.visit, [window], { strict: false });
    if (!offer?.offered)
      throw new Refusal("cannot-be-kept", { sentence: "Nobody can keep this window any more. Choose another one." });
    return {
      jobId: bookIt(context, quote, wanted, offer, {
        by: actorWords(context.actor),
        words: quote.answer,
        depositMinor: 0,
      }),
    };
  },
});

function bookIt(
  context: OperationContext,
  quote: QuoteRow,
  wanted: Wanted,
  offer: Offer,
  { by, words, depositMinor }: { by: string; words: string; depositMinor: number },
): number {
  const { items, order, address } = wanted;
  const visitId = takeRoom(context, wanted, offer, { key: null, until: context.now });
  const customerId = customerFor(context, quote, address);
  const siteId = siteFor(context, customerId, address, quote.zone_id);
  const note = [quote.note, words.trim()].filter(Boolean).join("\n").slice(0, 1000);
  const jobId = agreeJob(context, {
    reach: quote,
    visitId,
    customerId,
    siteId,
    items,
    order,
    note,
    photos: photosColumn.read(quote.photos),
    depositMinor,
    bookedBy: by,
  });
  context
    .sql("UPDATE quotes SET state = 'booked', answered_at = ?, answer = ?, job_id = ? WHERE id = ?")
    .run(context.now, words.trim(), jobId, quote.id);
  if (depositMinor === 0) tellBooked(context, jobId);
  return jobId;
}

/** Quotes that nobody waits for any more: their links end, and nobody is told. */
export const putAwayQuotes = defineOperation({
  name: "put-away-quotes",
  access: "shared.change",
  input: PutAwayQuotes,
  run(context, { ids }) {
    for (const id of ids) withdrawQuote(context, id);
  },
});
