import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { fallingOn } from "@/core/time/opening";
import { DateText, EndMinute, Id, input, MinuteOfDay, Name, OrNull } from "@/kernel/inputs";
import { refuseOddSpans } from "@/kernel/odd-spans";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { refuseOverlaps, saveRow } from "@/kernel/rows";
import { Hours } from "@/modules/catalogue/inputs";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";

/** Weekly opening hours; none: open whenever somebody works. */
const SaveOpening = input({ hours: Hours });
/** Spans of a special day, in order; none: closed. */
const specialDay = {
  name: Name,
  first: DateText,
  last: DateText,
  yearly: Type.Boolean(),
  spans: Type.Array(input({ opens: MinuteOfDay, closes: EndMinute }), { maxItems: 6 }),
};
const SaveSpecialDay = input({ id: OrNull(Id), ...specialDay });
const RemoveSpecialDay = input({ id: Id });
/** Days read from a calendar file; those known already by name and date are left out. */
const TakeSpecialDays = input({ days: Type.Array(input(specialDay), { minItems: 1, maxItems: 500 }) });

/** When the business is open. What is promised at other times already stays promised. */
export const saveOpening = defineOperation({
  name: "save-opening",
  access: "setup.change",
  input: SaveOpening,
  run({ sql }, { hours }) {
    refuseOverlaps(hours);
    sql("DELETE FROM opening_hours").run();
    for (const { weekday, opens, closes } of hours) insertRow(sql, "opening_hours", { weekday, opens, closes });
  },
});

type Day = (typeof TakeSpecialDays)["static"]["days"][number];

export const saveSpecialDay = defineOperation({
  name: "save-special-day",
  access: "setup.change",
  input: SaveSpecialDay,
  run(context, { id, ...day }) {
    if (day.last < day.first)
      throw new Refusal("invalid-input", { fields: { "/last": "The last day is not before the first." } });
    refuseOddSpans(day.spans);
    const saved = saveRow(context, "special_days", id, valuesOf(day));
    return { id: saved, promised: promisedOn(context, day) };
  },
});

export const removeSpecialDay = defineOperation({
  name: "remove-special-day",
  access: "setup.change",
  input: RemoveSpecialDay,
  run: ({ sql }, { id }) => void sql("DELETE FROM special_days WHERE id = ?").run(id),
});

/** Days of a calendar file, such as public holidays. Those known already by name and date are left out. */
export const takeSpecialDays = defineOperation({
  name: "take-special-days",
  access: "setup.change",
  input: TakeSpecialDays,
  run(context, { days }) {
    const fresh = days.filter(
      (day) =>
        day.last >= day.first &&
        !context.sql("SELECT 1 FROM special_days WHERE name = ? AND first_date = ?").get(day.name.trim(), day.first),
    );
    for (const day of fresh) saveRow(context, "special_days", null, valuesOf(day));
    return {
      taken: fresh.length,
      known: days.length - fresh.length,
      promised: fresh.reduce((sum, day) => sum + promisedOn(context, day), 0),
    };
  },
});

const valuesOf = ({ name, first, last, yearly, spans }: Day) => ({
  name: name.trim(),
  first_date: first,
  last_date: last,
  yearly: yearly ? 1 : 0,
  spans: JSON.stringify(spans.map((s) => [s.opens, s.closes])),
});

/** Visits that are promised on those days, in whichever year; they stay promised. */
function promisedOn({ sql, today }: OperationContext, day: Day): number {
  const dates = sql<{ date: LocalDate; n: number }>(
    "SELECT date, count(*) AS n FROM visits WHERE state = 'promised' AND date >= ? GROUP BY date",
  ).all(today);
  const fallen = fallingOn(
    day,
    dates.map(({ date }) => date),
  );
  return dates.reduce((sum, { date, n }) => sum + (fallen.includes(date) ? n : 0), 0);
}
