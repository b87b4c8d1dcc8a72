import { quoteDays } from "@/core/catalogue/quotes";
import type { Item } from "@/core/catalogue/items";
import type { Line } from "@/core/money/amounts";
import type { RepeatEvery } from "@/core/repeats/rule";
import { addDays } from "@/core/time/dates";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { priceItems, readItem } from "@/modules/catalogue/catalogue";
import { itemsByPattern, openPatterns } from "@/modules/catalogue/job-patterns";
import { wordsOf } from "@/modules/catalogue/text-blocks";
import { addressOf } from "@/modules/place/addresses";
import { zoneOf } from "@/modules/place/zones";
import { readRequest } from "@/modules/requests/requests";
import { linesColumn, repeatsEveryColumn } from "@/store/columns";
import { QuoteAbout, type SendQuote } from "../inputs";
import { itemsAbout, optionsOf, readQuote } from "../quotes";

type Draft = Pick<SendQuote, "lines" | "minutes" | "crew" | "depositMinor" | "words" | "validUntil"> & {
  repeats: RepeatEvery[];
  option: string;
  further: (Pick<SendQuote, "lines" | "minutes" | "crew" | "depositMinor"> & { option: string; items: Item[] })[];
  signs: boolean;
};

/** What a quote begins with: what was asked for at its price by the catalogue, what was booked as it was agreed, or the quote as it stands. */
export const quoteDraft = defineView({
  name: "quote-draft",
  access: "board.change of all",
  input: QuoteAbout,
  read(context, about) {
    const { sql, business } = context;
    const draft =
      about.kind === "quote"
        ? asSent(context, about.id)
        : about.kind === "booking"
          ? asBooked(context, about.id)
          : asPriced(context, about.id);
    return {
      draft: { ...draft, items: itemsAbout(context, about) },
      currency: business.currency,
      pricesIncludeTax: business.prices_include_tax === 1,
      today: context.today,
      taxRates: sql<{ name: string; rateBp: number }>(
        "SELECT name, rate_bp AS rateBp FROM tax_rates ORDER BY position",
      ).all(),
      /** Pieces of work with a name, each with what it brings into the quote. */
      patterns: openPatterns(context).map((pattern) => {
        const items = itemsByPattern(pattern);
        const { lines, minutes, crew, depositMinor } = priceItems(
          context,
          items.map((item) => readItem(context, item)),
          zoneAbout(context, about),
        );
        return { id: pattern.id, name: pattern.name, items, lines: lines.map(typedLine), minutes, crew, depositMinor };
      }),
      services: sql<{ id: number; name: string; priceMinor: number; taxBp: number; minutes: number; crew: number }>(
        `SELECT id, name, price_minor AS priceMinor, tax_bp AS taxBp, minutes, crew
          FROM services WHERE active = 1 ORDER BY category, position, name`,
      ).all(),
    };
  },
});

const begun = (
  context: ViewContext,
): Pick<Draft, "words" | "validUntil" | "repeats" | "option" | "further" | "signs"> => ({
  repeats: [],
  option: "",
  further: [],
  signs: false,
  words: [context.business.quote_text, ...wordsOf(context, "quote", "before")].filter(Boolean).join("\n\n"),
  validUntil: addDays(context.today, quoteDays),
});

const typedLine = ({ description, quantity, unitMinor, taxBp }: Line): Line => ({
  description,
  quantity,
  unitMinor,
  taxBp,
});

/** The zone in which a request lies; what was booked or sent before has its own prices. */
function zoneAbout(context: ViewContext, { kind, id }: { kind: string; id: number }) {
  const addressId = kind === "request" ? readRequest(context, id).address_id : null;
  return addressId === null ? null : zoneOf(context, addressOf(context, addressId));
}

function asPriced(context: ViewContext, id: number): Draft {
  const request = readRequest(context, id);
  const items = itemsAbout(context, { kind: "request", id }).map((item) => readItem(context, item));
  if (items.length === 0) return { ...begun(context), lines: [], minutes: 0, crew: 1, depositMinor: 0 };
  const zone = request.address_id === null ? null : zoneOf(context, addressOf(context, request.address_id));
  const { lines, minutes, crew, depositMinor } = priceItems(context, items, zone);
  return { ...begun(context), lines: lines.map(typedLine), minutes, crew, depositMinor };
}

function asBooked(context: ViewContext, id: number): Draft {
  const { sql } = context;
  const { deposit_minor: depositMinor } = sql<{ deposit_minor: number }>(
    "SELECT deposit_minor FROM jobs WHERE id = ?",
  ).get(id)!;
  const visit = sql<{ minutes: number; crew: number }>(
    "SELECT minutes, crew FROM visits WHERE job_id = ? AND first_visit_id IS NULL",
  ).get(id)!;
  const lines = sql<Line>(
    `SELECT description, quantity, unit_minor AS unitMinor, tax_bp AS taxBp
      FROM job_lines WHERE job_id = ? ORDER BY position`,
  ).all(id);
  return { ...begun(context), ...visit, lines, depositMinor };
}

function asSent(context: ViewContext, id: number): Draft {
  const quote = readQuote(context, id);
  const later = begun(context).validUntil;
  const [first, ...further] = optionsOf(quote);
  return {
    option: first!.name,
    further: further.map(({ name, items, lines, minutes, crew, depositMinor }) => ({
      option: name,
      items: [...items],
      lines: lines.map(typedLine),
      minutes,
      crew,
      depositMinor,
    })),
    signs: quote.signs === 1,
    words: quote.words,
    validUntil: quote.valid_until < context.today ? later : quote.valid_until,
    minutes: quote.minutes,
    crew: quote.crew,
    depositMinor: quote.deposit_minor,
    lines: linesColumn.read(quote.lines).map(typedLine),
    repeats: repeatsEveryColumn.read(quote.repeats),
  };
}
