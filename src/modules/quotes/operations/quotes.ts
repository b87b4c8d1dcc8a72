import { quoteStates } from "@/core/catalogue/quote-states";
import { nextFollowUp } from "@/core/catalogue/quotes";
import { moneyWords } from "@/core/money/amounts";
import { mostParts } from "@/core/money/instalments";
import { Refusal } from "@/core/problems";
import type { Offer } from "@/core/windows/offer";
import { Id, input, Money, OrNull, Signed, windowChosen } from "@/kernel/inputs";
import { localDate } from "@/core/time/local";
import { firstLinkTokenOf, linkTokenOf } from "@/kernel/links";
import { actorWords, defineOperation, type OperationContext } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { takeRoom } from "@/modules/booking/room";
import type { Wanted } from "@/modules/booking/wanted";
import { customerFor, siteFor } from "@/modules/customers/customers";
import type { Shown } from "@/modules/customers/same-person";
import { takesCards } from "@/modules/money/cards";
import { partsOffered } from "@/modules/money/parts";
import { tellAsker } from "@/modules/messages/messaging";
import { tellBooked } from "@/modules/messages/tell-booked";
import { tellAll, tellOffice } from "@/modules/messages/telling-us";
import { type RepeatEvery, ruleFrom } from "@/core/repeats/rule";
import { beginRepeat, laidOut } from "@/modules/repeats/repeats";
import { answersWithin } from "@/modules/placing/windows";
import { linesColumn, photosColumn, repeatsEveryColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { QuoteToken } from "../inputs";
import {
  answersOfQuote,
  followUpDays,
  openQuote,
  type QuoteRow,
  ranOut,
  readQuote,
  wantedOfQuote,
  withdrawQuote,
  withOption,
} from "../quotes";
import { payInParts } from "@/modules/jobs/work";
import { agreeVisitPrice } from "@/modules/repeats/repeats";

/** The total that was read, and a window; without one, when it would suit, for us to find one. */
const AcceptQuote = input({
  token: QuoteToken.properties.token,
  totalMinor: Money,
  window: OrNull(input(windowChosen)),
  words: Type.String({ maxLength: 1000 }),
  /** Which of the options, where there are several. */
  option: Type.Optional(Type.Integer({ minimum: 0, maximum: 2 })),
  signed: Type.Optional(OrNull(Signed)),
  /** In how many monthly parts its invoice is paid, where that is offered. */
  parts: Type.Optional(Type.Integer({ minimum: 1, maximum: mostParts })),
});

const DeclineQuote = input({ token: QuoteToken.properties.token, words: Type.String({ maxLength: 1000 }) });

const BookQuote = input({
  quoteId: Id,
  ...windowChosen,
  /** Which of the options, where there are several and none was chosen yet. */
  option: Type.Optional(Type.Integer({ minimum: 0, maximum: 2 })),
});

const PutAwayQuotes = input({ ids: Type.Array(Id, { minItems: 1, maxItems: 200, uniqueItems: true }) });

/**
 * A customer accepts: in a window that is offered, which books it, or without one, for us to find one. Whoever
 * has read another total is asked to look again; pressing twice books once.
 */
export const acceptQuote = defineOperation({
  name: "accept-quote",
  access: "anybody",
  input: AcceptQuote,
  run(context, { token, totalMinor, window, words, option = 0, signed = null, parts = 1 }) {
    const { business, sql, now } = context;
    const sent = openQuote(context, token);
    if (sent.job_id !== null) return { link: firstLinkTokenOf(context.hogar, sent.job_id) };
    const quote = { ...withOption(sent, option), parts: sent.parts > 1 ? sent.parts : parts };
    if (ranOut(quote, context.today))
      throw new Refusal("quote-over", { sentence: `This quote has run out. Call us on ${business.phone}.` });
    if (quote.total_minor !== totalMinor)
      throw new Refusal("price-changed", {
        sentence: `This quote has changed: it is ${moneyWords(quote.total_minor, business.currency)} now. Look at it again before you accept.`,
      });
    if (sent.parts === 1 && parts > partsOffered(context, quote.total_minor))
      throw new Refusal("invalid-input", { fields: { "/parts": "It cannot be paid in so many parts." } });
    if (quote.signs === 1 && quote.signed_by === "" && !signed)
      throw new Refusal("invalid-input", {
        fields: { "/signed": "Write your name and sign, so that both of us have it on paper." },
      });
    if (!window) {
      if (quote.state === "accepted") return { link: null };
      takeDown(context, quote, signed);
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
    takeDown(context, quote, signed);
    const jobId = bookIt(context, quote, wanted, offer, {
      by: "front door",
      shown: sent.way,
      words,
      depositMinor: takesCards(context) ? quote.deposit_minor : 0,
    });
    tellOffice(context, jobId);
    return { link: linkTokenOf(context.hogar, jobId)! };
  },
});

/** What was chosen and by whom it was signed stands in the quote from now on. */
function takeDown({ sql }: OperationContext, quote: QuoteRow, signed: Signed | null): void {
  sql(
    `UPDATE quotes
      SET chosen = @chosen, items = @items, lines = @lines, total_minor = @total_minor, deposit_minor = @deposit_minor,
        minutes = @minutes, crew = @crew, parts = @parts, follow_up_on = NULL
      WHERE id = @id`,
  ).run({
    id: quote.id,
    chosen: quote.chosen,
    parts: quote.parts,
    items: quote.items,
    lines: quote.lines,
    total_minor: quote.total_minor,
    deposit_minor: quote.deposit_minor,
    minutes: quote.minutes,
    crew: quote.crew,
  });
  if (signed)
    sql("UPDATE quotes SET signed_by = ?, signature = ? WHERE id = ?").run(
      signed.name.trim(),
      signed.drawing,
      quote.id,
    );
}

/** A customer says no, with or without a reason; it can still be accepted while it stands. */
export const declineQuote = defineOperation({
  name: "decline-quote",
  access: "anybody",
  input: DeclineQuote,
  run(context, { token, words }) {
    const quote = openQuote(context, token);
    if (!quoteStates.allows("accept", quote.state)) throw new Refusal("link-ended");
    context
      .sql("UPDATE quotes SET state = 'declined', answered_at = ?, answer = ?, follow_up_on = NULL WHERE id = ?")
      .run(context.now, words.trim(), quote.id);
    tellAnswer(context, quote, "declined", words);
  },
});

const tellAnswer = (context: OperationContext, quote: QuoteRow, how: "accepted" | "declined", words: string): void =>
  tellAll(context, {
    key: `quote ${quote.id} ${how} at ${context.now}`,
    what: `Quote ${quote.id} is ${how}`,
    who: `${quote.name}, ${quote.line}`,
    more: `${moneyWords(quote.total_minor, context.business.currency)}\n${quote.phone}${words.trim() ? `\n“${words.trim()}”` : ""}`,
  });

/** The office books a quote that was accepted, here or on the phone: at any window that somebody can keep, and without asking for a deposit. */
export const bookQuote = defineOperation({
  name: "book-quote",
  access: "board.change of all",
  input: BookQuote,
  run(context, { quoteId, option = 0, ...window }) {
    const quote = withOption(readQuote(context, quoteId), option);
    const wanted = wantedOfQuote(context, quote);
    const [offer] = answersWithin(context, wanted.visit, [window], { strict: false });
    if (!offer?.offered)
      throw new Refusal("cannot-be-kept", { sentence: "Nobody can keep this window any more. Choose another one." });
    takeDown(context, quote, null);
    return {
      jobId: bookIt(context, quote, wanted, offer, {
        by: actorWords(context.actor),
        shown: "nothing",
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
  { by, shown, words, depositMinor }: { by: string; shown: Shown; words: string; depositMinor: number },
): number {
  const { items, order, address } = wanted;
  const visitId = takeRoom(context, wanted, offer, { key: null, until: context.now });
  const { customerId, reach } = customerFor(context, quote, address, shown);
  const siteId = siteFor(context, customerId, address, quote.zone_id);
  const note = [quote.note, words.trim()].filter(Boolean).join("\n").slice(0, 1000);
  const jobId = agreeJob(context, {
    reach,
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
    .sql(
      "UPDATE quotes SET state = 'booked', answered_at = ?, answer = ?, job_id = ?, follow_up_on = NULL WHERE id = ?",
    )
    .run(context.now, words.trim(), jobId, quote.id);
  payInParts(context, jobId, quote.parts);
  const [often] = repeatsEveryColumn.read(quote.repeats);
  if (often) comeBack(context, visitId, often, quote.total_minor);
  if (depositMinor === 0) tellBooked(context, jobId);
  return jobId;
}

/** What was quoted comes back, at the price that was accepted. */
function comeBack(context: OperationContext, visitId: number, often: RepeatEvery, totalMinor: number): void {
  const { repeatId } = beginRepeat(context, visitId, { rule: (start) => ruleFrom(often, start) });
  agreeVisitPrice(context, repeatId, totalMinor);
  laidOut(context, repeatId);
}

/** Asks somebody again who has not answered a quote, and notes when to ask once more. */
export const followUpQuote = defineOperation({
  name: "follow-up-quote",
  access: "system",
  input: input({ quoteId: Id }),
  run(context, { quoteId }) {
    const { sql, business, today } = context;
    const quote = sql<QuoteRow>("SELECT * FROM quotes WHERE id = ? AND follow_up_on <= ?").get(quoteId, today);
    if (!quote) return;
    const sent = localDate(Math.floor(quote.made_at / 60_000), business.time_zone);
    const next = nextFollowUp({ sent, validUntil: quote.valid_until }, followUpDays(context), today);
    sql("UPDATE quotes SET follow_up_on = ? WHERE id = ?").run(next, quoteId);
    if (!quoteStates.allows("accept", quote.state) || quote.state === "accepted" || ranOut(quote, today)) return;
    tellAsker(context, quote, {
      occasion: "quote follow-up",
      about: `${quoteId} of ${quote.made_at}, again on ${today}`,
      opens: { kind: "quote", id: quoteId },
      fields: {
        service: linesColumn.read(quote.lines)[0]?.description ?? "",
        site: quote.line,
        sum: { minor: quote.total_minor, currency: business.currency },
        until: { days: [quote.valid_until] },
        sent: { days: [sent] },
      },
    });
  },
});

/** Quotes that nobody waits for any more: their links end, and nobody is told. */
export const putAwayQuotes = defineOperation({
  name: "put-away-quotes",
  access: "board.change of all",
  input: PutAwayQuotes,
  run(context, { ids }) {
    for (const id of ids) withdrawQuote(context, id);
  },
});
