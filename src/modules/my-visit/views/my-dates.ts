import { Refusal } from "@/core/problems";
import { DateText, input, Nothing } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { pickable } from "@/modules/placing/windows";
import { calendarOfRepeat } from "@/modules/repeats/calendar";
import { datesAhead } from "@/modules/repeats/dates-ahead";
import { workOn } from "@/modules/repeats/work";
import { readRepeat } from "@/modules/repeats/repeats";
import type { Rows } from "@/store/rows";
import { offersForDate } from "../own-dates";
import { ownRepeat } from "../own-work";

const shown = 8;

function mine(context: ViewContext) {
  const own = ownRepeat(context);
  if (!own) throw new Refusal("not-found");
  return readRepeat(context, own.id);
}

/** The coming dates of a customer's repeat, and its pauses. */
export const myDates = defineView({
  name: "my-dates",
  access: "link",
  input: Nothing,
  read(context) {
    const { sql, today } = context;
    const repeat = mine(context);
    const agreed = new Set(
      sql<{ date: string }>("SELECT date FROM repeat_exceptions WHERE repeat_id = ?")
        .all(repeat.id)
        .map(({ date }) => date),
    );
    return {
      today,
      /** They are asked before anything is booked. */
      asksFirst: repeat.comes === "ask",
      dates: datesAhead(context, repeat)
        .slice(0, shown)
        .map(({ date, becomes, day, window, state }) => ({
          date,
          becomes,
          day,
          // What is not promised has no time yet, as far as its customer knows.
          window: state !== null && state !== "forecast" ? window : null,
          isPromised: state !== null && state !== "forecast",
          isAgreed: agreed.has(date),
        })),
      pauses: sql<Rows["repeat_pauses"]>(
        "SELECT * FROM repeat_pauses WHERE repeat_id = ? AND last_date >= ? ORDER BY first_date",
      )
        .all(repeat.id, today)
        .map(({ id, first_date, last_date }) => ({ id, first: first_date, last: last_date })),
    };
  },
});

/** Windows to which one date can be moved, soonest first. */
export const myDateOffers = defineView({
  name: "my-date-offers",
  access: "link",
  input: input({ date: DateText }),
  read(context, { date }) {
    const repeat = mine(context);
    const { needs } = workOn(context, repeat, date);
    return offersForDate(context, repeat, date).flatMap((answer) =>
      answer.offered ? [pickable(context, needs, answer)] : [],
    );
  },
});

/** Their repeat as a file for their calendar. */
export const myRepeatCalendar = defineView({
  name: "my-repeat-calendar",
  access: "link",
  input: Nothing,
  read: (context) => calendarOfRepeat(context, mine(context)),
});
