import { titleOf } from "@/core/catalogue/titles";
import { type Item } from "@/core/catalogue/items";
import { choiceProblems, nextFollowUp, quoteLines, type QuoteOption, quoteProblems } from "@/core/catalogue/quotes";
import { moneyWords, totalOf } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { actorWords, defineOperation, type OperationContext } from "@/kernel/operation";
import { readItem } from "@/modules/catalogue/catalogue";
import { answersOfJob } from "@/modules/catalogue/job-items";
import { tellAsker } from "@/modules/messages/messaging";
import { addressOf } from "@/modules/place/addresses";
import { zoneOf } from "@/modules/place/zones";
import { serviceIdsOf, wordsOf } from "@/modules/catalogue/text-blocks";
import { SendQuote } from "@/modules/quotes/inputs";
import { followUpDays, type QuoteRow, readQuote } from "@/modules/quotes/quotes";
import { endRequest, readRequest } from "@/modules/requests/requests";
import { endWaiting } from "@/modules/requests/waiting";
import { insertRow } from "@/store/insert";
import { nanoid } from "nanoid";

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
  access: "board.change of all",
  input: SendQuote,
  run(context, { about, words, validUntil, repeats = [], further = [], signs = false, ...main }) {
    const { now, business, today } = context;
    const options = [main, ...further].map((typed) => optionOf(context, typed));
    const [{ items: asked, lines, minutes, crew, depositMinor }] = options as [QuoteOption];
    const once = repeats.length
      ? asked.map((item) => readItem(context, item)).find(({ service }) => service.days > 1 || service.seats > 0)
      : undefined;
    if (once)
      throw new Refusal("invalid-input", {
        fields: {
          "/repeats": `${once.service.name} takes several days or has seats: it does not come back by itself.`,
        },
      });
    const title = titleOf(asked.map((item) => readItem(context, item)));
    const wrong = {
      ...choiceProblems(options.map(({ name }) => name)),
      ...Object.assign(
        {},
        ...options.map((option, i) =>
          under(i === 0 ? "" : `/further/${i - 1}`, quoteProblems(option, validUntil, today)),
        ),
      ),
    };
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
      repeats: JSON.stringify(repeats),
      options: options.length > 1 ? JSON.stringify(options) : "[]",
      signs: signs ? (1 as const) : (0 as const),
      terms: [business.terms, ...wordsOf(context, "quote", "after", serviceIdsOf(asked))].filter(Boolean).join("\n\n"),
      followUpOn: nextFollowUp({ sent: today, validUntil }, followUpDays(context), today),
    };
    const work = about.kind === "quote" ? readQuote(context, about.id) : workOf(context, about);
    const quoteId =
      about.kind === "quote" ? changeQuote(context, about.id, offered) : makeQuote(context, work, offered);
    const sums = options.map((option) => moneyWords(totalOf(option.lines).totalMinor, business.currency));
    const sum = sums.length > 1 ? `${sums.slice(0, -1).join(", ")} or ${sums.at(-1)}` : sums[0]!;
    tellAsker(context, work, {
      occasion: "quote",
      about: `${quoteId} at ${now}`,
      opens: { kind: "quote", id: quoteId },
      fields: {
        service: title,
        site: work.line,
        sum,
        until: { days: [validUntil] },
        // What stood before it: an earlier quote, or a booking.
        old: about.kind === "quote" ? "quote" : "",
        instead: about.kind === "booking" ? "booking" : "",
      },
    });
    return { quoteId };
  },
});

/** What is offered, by the names of the statements below. */
type Offered = Record<"by" | "items" | "lines" | "words" | "validUntil" | "repeats" | "options" | "terms", string> &
  Record<"now" | "totalMinor" | "depositMinor" | "minutes" | "crew", number> & {
    signs: 0 | 1;
    followUpOn: string | null;
  };

const under = (path: string, problems: Record<string, string>): Record<string, string> =>
  Object.fromEntries(Object.entries(problems).map(([entry, sentence]) => [`${path}${entry}`, sentence]));

/** One way to do it, with its lines priced as they are offered. */
const optionOf = (
  { business }: OperationContext,
  { option = "", items, lines, minutes, crew, depositMinor }: Omit<SendQuote, "about" | "words" | "validUntil">,
): QuoteOption => ({
  name: option.trim(),
  items: items.map(({ serviceId, quantity = 1, answers = {}, extras = [] }): Item => ({
    serviceId,
    quantity,
    answers,
    extras,
  })),
  lines: quoteLines(lines, business.prices_include_tax === 1),
  minutes,
  crew,
  depositMinor,
});

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
    repeats: offered.repeats,
    options: offered.options,
    signs: offered.signs,
    terms: offered.terms,
    follow_up_on: offered.followUpOn,
  });

/** The quote as it is offered now, under the same link; what was answered to it before counts no more. */
function changeQuote({ sql }: OperationContext, quoteId: number, offered: Offered): number {
  sql(
    `UPDATE quotes
      SET state = 'sent', answered_at = NULL, answer = '', made_at = @now, made_by = @by, items = @items,
        lines = @lines, words = @words, total_minor = @totalMinor, deposit_minor = @depositMinor,
        minutes = @minutes, crew = @crew, valid_until = @validUntil, repeats = @repeats,
        options = @options, chosen = '', signs = @signs, terms = @terms, follow_up_on = @followUpOn
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
