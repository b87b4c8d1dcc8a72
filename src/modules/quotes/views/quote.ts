import { orderTermsWords } from "@/core/catalogue/terms";
import { lookOf } from "@/core/look/front-door";
import { moneyWords } from "@/core/money/amounts";
import type { Paper } from "@/core/money/papers";
import { localDate } from "@/core/time/local";
import { input } from "@/kernel/inputs";
import { firstLinkTokenOf } from "@/kernel/links";
import { defineView } from "@/kernel/view";
import { termsOf } from "@/modules/catalogue/catalogue";
import { linesOf, sellerToday } from "@/modules/money/sellers";
import { bookableDates, pickable } from "@/modules/placing/windows";
import { repeatsEveryColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import { Type } from "@sinclair/typebox";
import { QuoteToken } from "../inputs";
import { answersOfQuote, openQuote, optionsOf, ranOut, wantedOfQuote, withOption } from "../quotes";

/** What the link of a quote shows: what is offered, for how much, until when. */
export const quote = defineView({
  name: "quote",
  access: "anybody",
  input: QuoteToken,
  read(context, { token }) {
    const { business, hogar, today } = context;
    const row = openQuote(context, token);
    const options = optionsOf(row);
    const { items, order, visit } = wantedOfQuote(context, row);
    const over = ranOut(row, today);
    return {
      business: {
        name: business.name,
        mark: business.mark,
        phone: business.phone,
        currency: business.currency,
        timeZone: business.time_zone,
        terms: row.terms,
      },
      look: lookOf(readFrontDoor(hogar.store)),
      id: row.id,
      name: row.name,
      what: visit.title,
      days: visit.days,
      minutes: row.minutes,
      address: `${row.line}, ${row.postcode}`,
      words: row.words,
      validUntil: row.valid_until,
      madeAt: row.made_at,
      lines: order.lines,
      totalMinor: order.totalMinor,
      taxMinor: order.taxMinor,
      depositMinor: order.depositMinor,
      termsWords: orderTermsWords(
        items.map(({ service }, i) => ({
          ...termsOf(service),
          name: service.name,
          totalMinor: order.items[i]!.totalMinor,
        })),
        (minor) => moneyWords(minor, business.currency),
      ),
      repeats: repeatsEveryColumn.read(row.repeats),
      /** To choose from; none where there is one way to do it, or one was chosen. */
      options:
        options.length > 1 && row.chosen === ""
          ? options.map((option, i) => {
              const { order, visit } = wantedOfQuote(context, withOption(row, i));
              return {
                name: option.name,
                what: visit.title,
                minutes: option.minutes,
                lines: order.lines,
                totalMinor: order.totalMinor,
                taxMinor: order.taxMinor,
                depositMinor: order.depositMinor,
              };
            })
          : [],
      chosen: row.chosen,
      /** In so many monthly parts it may be paid; as was agreed once it was. */
      partsOffered: row.parts > 1 ? 1 : context.business.parts_most,
      partsFromMinor: context.business.parts_from_minor,
      parts: row.parts,
      signs: row.signs === 1,
      signedBy: row.signed_by,
      signature: row.signature,
      state: over ? ("run out" as const) : row.state,
      booked: row.job_id === null ? null : firstLinkTokenOf(hogar, row.job_id),
    };
  },
});

/** Windows in which the work of a quote can be done, soonest first. */
export const quoteOffers = defineView({
  name: "quote-offers",
  access: "anybody",
  input: input({ ...QuoteToken.properties, option: Type.Optional(Type.Integer({ minimum: 0, maximum: 2 })) }),
  read(context, { token, option = 0 }) {
    const wanted = wantedOfQuote(context, withOption(openQuote(context, token), option));
    const answers = answersOfQuote(context, wanted, bookableDates(context));
    return answers.flatMap((answer) => (answer.offered ? [pickable(context, wanted.visit, answer)] : []));
  },
});

/** The quote of a link as a paper. */
export const quotePaper = defineView({
  name: "quote-paper",
  access: "anybody",
  input: QuoteToken,
  read(context, { token }): Paper {
    const { business } = context;
    const row = openQuote(context, token);
    const { order } = wantedOfQuote(context, row);
    const day = localDate(Math.floor(row.made_at / 60_000), business.time_zone);
    return {
      kind: "quote",
      label: String(row.id),
      issued: day,
      due: row.valid_until,
      about: null,
      ...sellerToday(context),
      buyer: {
        name: row.name,
        address: linesOf(`${row.line}, ${row.postcode}`),
        taxNumber: "",
        mail: row.mail,
        phone: row.phone,
      },
      place: null,
      currency: business.currency,
      taxKind: "standard",
      zeroKind: "zero rated",
      taxWords: "",
      before: row.words,
      lines: order.lines.map((line) => ({ ...line, discountBp: 0, date: null })),
      entries: [],
      totalMinor: order.totalMinor,
      paidMinor: 0,
      creditedMinor: 0,
      openMinor: order.totalMinor,
      after: row.terms,
      signature: row.signature === null ? null : { by: row.signed_by, drawing: row.signature },
    };
  },
});
