import { weekdayNames } from "../time/words";
import { OddRule, readRule, type Recurrence } from "./recurrence";
import { plainRule, ruleFrom } from "./rule";
import { type LocalDate, weekdayOf } from "../time/dates";

const often = { daily: "day", weekly: "week", monthly: "month", yearly: "year", annually: "year" } as const;
const severals: Record<string, { every: number; unit: "week" | "month" }> = {
  fortnightly: { every: 2, unit: "week" },
  biweekly: { every: 2, unit: "week" },
  quarterly: { every: 3, unit: "month" },
  "half-yearly": { every: 6, unit: "month" },
  "half yearly": { every: 6, unit: "month" },
  "twice a year": { every: 6, unit: "month" },
  "every half year": { every: 6, unit: "month" },
  "every quarter": { every: 3, unit: "month" },
  "once a week": { every: 1, unit: "week" },
  "once a month": { every: 1, unit: "month" },
  "once a quarter": { every: 3, unit: "month" },
  "once a year": { every: 12, unit: "month" },
  "every fortnight": { every: 2, unit: "week" },
};
const numbers: Record<string, number> = {
  ...{ other: 2, second: 2, third: 3, fourth: 4, sixth: 6 },
  ...{ one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, twelve: 12 },
};
const numberWords = Object.keys(numbers).join("|");
const nths: Record<string, number> = {
  first: 1,
  second: 2,
  third: 3,
  fourth: 4,
  last: -1,
  "1st": 1,
  "2nd": 2,
  "3rd": 3,
  "4th": 4,
};

/**
 * A rule as people write one in a list: an RRULE, "monthly", "every 4 weeks", "every other week on Monday and Thursday",
 * "every Tuesday", "every other Tuesday", "second Tuesday of the month", "monthly on the 15th", "31st", "last working day".
 * Of days between which one may choose ("Tuesday or Thursday") it is that of `start`, or else the first. Begins on `start`. Null
 * where it says nothing known.
 */
export function ruleFromWords(text: string, start: LocalDate): Recurrence | null {
  const plain = text.trim().toLowerCase().replace(/\s+/g, " ").replace(/[.]$/, "");
  if (/^(rrule:)?freq=/.test(plain)) return ruleOrNull(text);
  if (plain in often) return ruleFrom({ every: 1, unit: often[plain as keyof typeof often] }, start);
  if (severals[plain]) return ruleFrom(severals[plain], start);
  if (/^(the |on the )?last working day\b/.test(plain))
    return { ...plainRule({ every: 1, unit: "month" }), weekdays: workingDays, positions: [-1] };
  // "weekly on Tuesday" is "every week on Tuesday".
  const spelled = plain
    .replace(/^(daily|weekly|monthly|yearly|annually)(?=,? on )/, (word) => `every ${often[word as "daily"]}`)
    .replace(",", (comma, at: number) => (at < 14 ? "" : comma));
  return onNumberedDay(spelled, start) ?? ofMonth(spelled) ?? every(spelled, start);
}

/** "31st", "on the 15th", "every 3 months on the 1st of the month": the last day there is, where a month has no such day. */
function onNumberedDay(plain: string, start: LocalDate): Recurrence | null {
  const [, before, number, after] =
    new RegExp(
      `^(?:every (?:(\\d{1,2}|${numberWords}) )?months? )?(?:on )?(?:the )?(\\d{1,2})(?:st|nd|rd|th)?(?: (?:day )?(?:of|every|each|of the|of each|of every)(?: (\\d{1,2}))? months?| of the month)?$`,
    ).exec(plain) ?? [];
  const day = Number(number);
  // A number alone says nothing.
  if (!number || day < 1 || day > 31 || /^\d+$/.test(plain)) return null;
  const interval = Number(after ?? (before === undefined ? 1 : (numbers[before] ?? before)));
  const sample = `${start.slice(0, 4)}-01-${String(day).padStart(2, "0")}`;
  return day > 28
    ? ruleFrom({ every: interval, unit: "month" }, sample)
    : { ...plainRule({ every: interval, unit: "month" }), daysOfMonth: [day] };
}

const workingDays = [0, 1, 2, 3, 4].map((weekday) => ({ weekday, nth: null }));

/** "second tuesday", with or without "of the month" or "every 3 months". */
function ofMonth(plain: string): Recurrence | null {
  const [, nth, day, ...several] =
    /^(?:every month on the |every |on |the |on the )*(\w+) (\w+day)(?: (?:of the month|of every month|every month|every (\d+) months|of every (\d+) months))?$/.exec(
      plain,
    ) ?? [];
  const weekday = weekdayIn(day);
  if (!nth || nths[nth] === undefined || weekday === null) return null;
  return {
    ...plainRule({ every: Number(several.find(Boolean) ?? 1), unit: "month" }),
    weekdays: [{ weekday, nth: nths[nth] }],
  };
}

/** "every 4 weeks", "every other week on monday and thursday", "every tuesday". */
function every(plain: string, start: LocalDate): Recurrence | null {
  const [, onlyDays] = /^(?:every|on|each) ((?:\w+days?(?:, | and |, and | or |, or )?)+)$/.exec(plain) ?? [];
  const days = onlyDays ? weekdaysIn(onlyDays, start) : null;
  if (days) return { ...plainRule({ every: 1, unit: "week" }), weekdays: days };
  const [, other] = /^(?:every other|each other) (\w+days?)$/.exec(plain) ?? [];
  const otherDay = weekdayIn(other);
  if (otherDay !== null)
    return { ...plainRule({ every: 2, unit: "week" }), weekdays: [{ weekday: otherDay, nth: null }] };
  const [, number, unit, named] =
    new RegExp(`^every (?:(\\d{1,3}|${numberWords}) )?(day|week|month|year)s?(?: on (.+))?$`).exec(plain) ?? [];
  if (!unit) return null;
  const n = number === undefined ? 1 : (numbers[number] ?? Number(number));
  if (n < 1) return null;
  const rule = ruleFrom({ every: n, unit: unit as "day" }, start);
  if (!named) return rule;
  const on = unit === "week" ? weekdaysIn(named, start) : null;
  return on && { ...rule, weekdays: on };
}

function weekdaysIn(text: string, start: LocalDate): Recurrence["weekdays"] | null {
  const choice = text.split(/, or | or /).map((word) => weekdayIn(word));
  if (choice.length > 1) {
    if (choice.some((day) => day === null)) return null;
    const own = choice.find((day) => day === weekdayOf(start)) ?? choice[0]!;
    return [{ weekday: own, nth: null }];
  }
  const days = text.split(/, and |, | and | & /).map((word) => weekdayIn(word));
  return days.some((day) => day === null)
    ? null
    : [...new Set(days as number[])].sort((a, b) => a - b).map((weekday) => ({ weekday, nth: null }));
}

/** 0 is Monday; the first three letters say which. */
function weekdayIn(word: string | undefined): number | null {
  const plain = (word ?? "").replace(/s$/, "");
  const day = weekdayNames.findIndex((name) => plain.length >= 3 && name.toLowerCase().startsWith(plain));
  return day < 0 ? null : day;
}

function ruleOrNull(text: string): Recurrence | null {
  try {
    return readRule(text);
  } catch (error) {
    if (error instanceof OddRule) return null;
    throw error;
  }
}
