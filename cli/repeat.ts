import { comingDates } from "@/core/repeats/coming";
import { datesOfRule, OddRule, readRule, type Recurrence } from "@/core/repeats/recurrence";
import { recurrenceWords } from "@/core/repeats/rule-words";
import { type LocalDate, servesWeekday } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import { parseClock, windowWords } from "@/core/time/words";
import { type Static, Type } from "@sinclair/typebox";
import { BadInput, readJson } from "./read-json";
import { checkUnique, inUtc, object } from "./shapes";

const Day = Type.String({ format: "date" });
const Clock = Type.String({ format: "clock" });
const Window = Type.Tuple([Clock, Clock]);
const Range = Type.Tuple([Day, Day]);

const RepeatInput = object({
  timeZone: Type.String({ format: "time-zone" }),
  rule: Type.String({ minLength: 1 }),
  start: Day,
  window: Window,
  exceptions: Type.Optional(
    Type.Array(
      object({
        date: Day,
        skip: Type.Optional(Type.Boolean()),
        to: Type.Optional(Day),
        window: Type.Optional(Window),
      }),
    ),
  ),
  pauses: Type.Optional(Type.Array(Range)),
  closed: Type.Optional(Type.Array(Range)),
  weekdays: Type.Optional(Type.Integer({ minimum: 0, maximum: 127 })),
  onClosed: Type.Optional(
    Type.Union((["later", "earlier", "nearest", "skip"] as const).map((way) => Type.Literal(way))),
  ),
  from: Day,
  to: Day,
});
export type RepeatInput = Static<typeof RepeatInput>;

/** `hogar repeat [FILE]`: a rule with exceptions, pauses and closed days in; what becomes of each date out. */
export const repeat = ([file]: string[]): void =>
  void process.stdout.write(`${JSON.stringify(answerTo(readJson(file, RepeatInput)))}\n`);

/** The same for input that has the right shape. Throws BadInput for what the shape alone cannot tell. */
export function answerTo(input: RepeatInput) {
  const { timeZone, start, exceptions = [], pauses = [], closed = [], weekdays = 127, onClosed = "nearest" } = input;
  const rule = ruleOf(input);
  check(input);
  const own = minutesOf(input.window);
  const comes = (day: LocalDate) =>
    servesWeekday(weekdays, day) && !closed.some(([first, last]) => first <= day && day <= last);
  const at = (day: LocalDate, minute: number) => inUtc(epochMinute(day, minute, timeZone));
  const dates = comingDates(
    {
      rule,
      start,
      exceptions: exceptions.map(({ window, ...exception }) => ({
        ...exception,
        ...(window && { window: minutesOf(window) }),
      })),
      pauses,
      comes,
      onClosed,
    },
    input.from,
    input.to,
  );
  return {
    words: `${recurrenceWords(rule, start)}, ${windowWords(...own).replace("–", "-")}`,
    dates: dates.map((date) => {
      if (!("day" in date)) return date;
      const [from, to] = date.window ?? own;
      return { date: date.date, state: date.state, day: date.day, from: at(date.day, from), to: at(date.day, to) };
    }),
  };
}

function ruleOf({ rule: text, start }: RepeatInput): Recurrence {
  try {
    const rule = readRule(text);
    if (datesOfRule({ ...rule, count: null }, start, start, start).length === 0)
      throw new OddRule(`the first date, ${start}, is not one of its dates.`);
    return rule;
  } catch (error) {
    if (error instanceof OddRule) throw new BadInput("rule", error.message);
    throw error;
  }
}

function check({ window, exceptions = [], pauses = [], closed = [], from, to }: RepeatInput): void {
  const forward = (where: string, [first, last]: [string, string], what: string) => {
    if (last < first) throw new BadInput(where, `${what} ends before it begins`);
  };
  forward("window", window, "a window");
  exceptions.forEach((exception, i) => {
    if (exception.skip && exception.to)
      throw new BadInput(`exceptions[${i}]`, "a date is left out or takes place on another day, not both");
    if (exception.window) forward(`exceptions[${i}].window`, exception.window, "a window");
  });
  checkUnique(
    "exceptions",
    exceptions.map(({ date }) => date),
  );
  pauses.forEach((pause, i) => forward(`pauses[${i}]`, pause, "a pause"));
  closed.forEach((days, i) => forward(`closed[${i}]`, days, "a closed time"));
  if (to < from) throw new BadInput("to", "lies before from");
}

const minutesOf = ([from, to]: [string, string]): [number, number] => [parseClock(from)!, parseClock(to)!];
