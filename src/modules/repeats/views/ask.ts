import { lookOf } from "@/core/look/front-door";
import { dayWords } from "@/core/time/words";
import { firstLinkTokenOf } from "@/kernel/links";
import { defineView } from "@/kernel/view";
import { DateText, Id, input } from "@/kernel/inputs";
import { Refusal } from "@/core/problems";
import { pickable } from "@/modules/placing/windows";
import { readFrontDoor } from "@/store/front-door";
import { askAbout, openAsk } from "../asking";
import { answersAround } from "../booking-asked";
import { AskToken } from "../inputs";
import { readRepeat } from "../repeats";
import { workOn } from "../work";

/** What the link of a question shows: what is due, where and around when, what it costs. */
export const ask = defineView({
  name: "ask",
  access: "anybody",
  input: AskToken,
  read(context, { token }) {
    const { business, hogar, sql } = context;
    const row = openAsk(context, token);
    const repeat = readRepeat(context, row.repeat_id);
    const { needs, order } = workOn(context, repeat, row.date);
    const { line } = sql<{ line: string }>("SELECT line FROM sites WHERE id = ?").get(repeat.site_id)!;
    return {
      business: {
        name: business.name,
        mark: business.mark,
        phone: business.phone,
        currency: business.currency,
        timeZone: business.time_zone,
      },
      look: lookOf(readFrontDoor(hogar.store)),
      what: needs.title,
      minutes: needs.minutes,
      address: line,
      around: dayWords(row.date),
      /** What is paid for by the month or the year is not priced again. */
      totalMinor: repeat.price_per === "month" || repeat.price_per === "year" ? null : order.totalMinor,
      state: row.state,
      booked: row.job_id === null ? null : firstLinkTokenOf(hogar, row.job_id),
    };
  },
});

/** Windows around the date, soonest first, as customers choose them. */
export const askOffers = defineView({
  name: "ask-offers",
  access: "anybody",
  input: AskToken,
  read(context, { token }) {
    const row = openAsk(context, token);
    const { needs } = workOn(context, readRepeat(context, row.repeat_id), row.date);
    return answersAround(context, row).flatMap((answer) => (answer.offered ? [pickable(context, needs, answer)] : []));
  },
});

/** The same for the office, which promises what it has spoken about. */
export const againOffers = defineView({
  name: "again-offers",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: input({ repeatId: Id, date: DateText }),
  read(context, { repeatId, date }) {
    const row = askAbout(context, repeatId, date);
    if (!row) throw new Refusal("not-found");
    const { needs } = workOn(context, readRepeat(context, repeatId), date);
    return answersAround(context, row, { office: true }).flatMap((answer) =>
      answer.offered ? [pickable(context, needs, answer)] : [],
    );
  },
});
