import { weekdayNames } from "../time/words";
import { OddRule, readRule, type Recurrence } from "./recurrence";
import { plainRule, ruleFrom } from "./rule";
import type { LocalDate } from "../time/dates";

const often = { daily: "day", weekly: "week", monthly: "month", yearly: "year", annually: "year" } as const;
const severals: Record<string, { every: number; unit: "week" | "month" }> = {
  fortnightly: { every: 2, unit: "week" },
  biweekly: { every: 2, unit: "week" },
  quarterly: { every: 3, unit: "month" },
  "half-yearly": { every: 6, unit: "month" },
};
const numbers: Record<string, number> = { other: 2, second: 2, third: 3, fourth: 4, sixth: 6 };
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
 * "every Tuesday", "second Tuesday of the month", "last working day". Begins on `start`. Null where it says nothing known.
 */
export function ruleFromWords(text: string, start: LocalDate): Recurrence | null {
  const plain = text.trim().toLowerCase().replace(/\s+/g, " ").replace(/[.]$/, "");
  if (/^(rrule:)?freq=/.test(plain)) return ruleOrNull(text);
  if (plain in often) return ruleFrom({ every: 1, unit: often[plain as keyof typeof often] }, start);
  if (severals[plain]) return ruleFrom(severals[plain], start);
  if (/^(the |on the )?last working day\b/.test(plain))
    return { ...plainRule({ every: 1, unit: "month" }), weekdays: workingDays, positions: [-1] };
  return ofMonth(plain) ?? every(plain, start);
}

const workingDays = [0, 1, 2, 3, 4].map((weekday) => ({ weekday, nth: null }));

/** "second tuesday", with or without "of the month" or "every 3 months". */
function ofMonth(plain: string): Recurrence | null {
  const [, nth, day, ...several] =
    /^(?:every |on |the |on the )*(\w+) (\w+day)(?: (?:of the month|of every month|every month|every (\d+) months|of every (\d+) months))?$/.exec(
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
  const [, onlyDays] = /^(?:every|on|each) ((?:\w+days?(?:, | and |, and )?)+)$/.exec(plain) ?? [];
  const days = onlyDays ? weekdaysIn(onlyDays) : null;
  if (days) return { ...plainRule({ every: 1, unit: "week" }), weekdays: days };
  const [, number, unit, named] =
    /^every (?:(\d{1,3}|other|second|third|fourth|sixth) )?(day|week|month|year)s?(?: on (.+))?$/.exec(plain) ?? [];
  if (!unit) return null;
  const n = number === undefined ? 1 : (numbers[number] ?? Number(number));
  if (n < 1) return null;
  const rule = ruleFrom({ every: n, unit: unit as "day" }, start);
  if (!named) return rule;
  const on = unit === "week" ? weekdaysIn(named) : null;
  return on && { ...rule, weekdays: on };
}

function weekdaysIn(text: string): Recurrence["weekdays"] | null {
  const days = text.split(/, and |, | and /).map((word) => weekdayIn(word));
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
