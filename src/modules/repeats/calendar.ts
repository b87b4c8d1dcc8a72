import { repeatCalendar, type Series } from "@/core/repeats/calendar";
import { datesOfRule, readRule } from "@/core/repeats/recurrence";
import { addDays, type LocalDate } from "@/core/time/dates";
import { visitStates } from "@/core/visits/states";
import type { ViewContext } from "@/kernel/operation";
import { type DateAhead, datesAhead, visitsOfRepeat } from "./dates-ahead";
import { horizonOf } from "./dates";
import { allTerms, farthest, type RepeatRow } from "./terms";
import { needsOf } from "./work";

/** A repeat as a calendar file: a series for each of its terms, what does not take place left out, what was moved where it stands. */
export function calendarOfRepeat(context: ViewContext, repeat: RepeatRow): string {
  const { sql, business, minute, today } = context;
  const { line } = sql<{ line: string }>("SELECT line FROM sites WHERE id = ?").get(repeat.site_id)!;
  const known = visitsOfRepeat(context, repeat.id);
  const dates = [
    ...known
      .filter(({ day, state }) => day <= today && visitStates.allows("count", state))
      .map((visit): DateAhead => ({ ...visit, date: visit.repeatDate, becomes: "planned", visitId: visit.id })),
    ...datesAhead(context, repeat, known),
  ];
  const at = new Map(dates.map((date) => [date.date, date]));
  const ended = repeat.state === "ended" ? (dates.at(-1)?.date ?? today) : null;
  const series = allTerms(context, repeat).flatMap(({ start_date: start, rule, until_date, ...term }): Series[] => {
    const until = ended ?? (until_date === farthest ? null : until_date);
    const last = until ?? horizonOf(context);
    const window = [term.from_minute, term.to_minute] as const;
    const ofRule = datesOfRule(readRule(rule), start, start, last);
    if (ofRule.length === 0) return [];
    return [
      {
        uid: `repeat-${repeat.id}-${start}@${business.mail.split("@")[1] ?? "hogar"}`,
        rule,
        start: ofRule[0]!,
        window,
        until,
        leftOut: ofRule.filter((date) => isLeftOut(at.get(date), date, today)),
        moved: ofRule.flatMap((date) => {
          const stands = at.get(date);
          const elsewhere =
            stands?.day && (stands.day !== date || stands.window[0] !== window[0] || stands.window[1] !== window[1]);
          return elsewhere ? [{ date, day: stands.day!, window: stands.window }] : [];
        }),
      },
    ];
  });
  return repeatCalendar(
    {
      title: `${needsOf(context, repeat).needs.title}, ${business.name}`,
      place: line,
      words: `To change something, use the link in our mail or call ${business.phone}.`,
      tentative: repeat.comes === "ask",
      now: minute,
      timeZone: business.time_zone,
      series,
    },
    business.name,
  );
}

/** What is past and was no visit, and what is ahead and does not take place. */
const isLeftOut = (stands: DateAhead | undefined, date: LocalDate, today: LocalDate): boolean =>
  stands === undefined ? date < addDays(today, 1) : stands.day === null;
