import { type LocalDate, weekdayOf } from "../time/dates";
import { datesOfRule, type Recurrence } from "./recurrence";
import { ruleFrom } from "./rule";

/**
 * The rule from a date on, where that date is moved to another day for good: "every Wednesday" becomes "every Thursday",
 * the second Tuesday the second Wednesday of that month, the 15th the 16th. The new day is its first date. What is agreed
 * for so many visits goes on for those that are left. Null where the rule does not say its days one by one ("the last
 * working day"): it cannot be told which one is meant.
 */
export function shiftedRule(rule: Recurrence, start: LocalDate, date: LocalDate, to: LocalDate): Recurrence | null {
  const left = rule.count === null ? null : rule.count - datesOfRule(rule, start, start, date).length + 1;
  const days = daysShifted(rule, date, to);
  return days && { ...rule, ...days, count: left };
}

function daysShifted(rule: Recurrence, date: LocalDate, to: LocalDate): Partial<Recurrence> | null {
  const { freq, interval, weekdays, months, daysOfMonth, weeks, daysOfYear, positions } = rule;
  if (date === to) return {};
  if (months.length > 1 || weeks.length || daysOfYear.length) return null;
  const day = Number(to.slice(8));
  const weekday = weekdayOf(to);
  const isRunToLast = positions.join() === "-1" && daysOfMonth[0] === 28 && !weekdays.length;
  if (positions.length && !isRunToLast) return null;
  switch (freq) {
    case "DAILY":
      return months.length || weekdays.length || daysOfMonth.length ? null : {};
    case "WEEKLY": {
      if (!weekdays.length) return {};
      const others = weekdays.filter((one) => one.weekday !== weekdayOf(date) && one.weekday !== weekday);
      return { weekdays: [...others, { weekday, nth: null }].sort((a, b) => a.weekday - b.weekday) };
    }
    case "MONTHLY": {
      if (weekdays.length) {
        const [one] = weekdays;
        return weekdays.length === 1 && one!.nth !== null && !daysOfMonth.length
          ? { weekdays: [{ weekday, nth: one!.nth < 0 ? -1 : Math.min(Math.ceil(day / 7), 5) }] }
          : null;
      }
      if (daysOfMonth.length > 1 && !isRunToLast) return null;
      const { daysOfMonth: named, positions: among } = ruleFrom({ every: interval, unit: "month" }, to);
      return daysOfMonth.length && !named.length
        ? { daysOfMonth: [day], positions: [] }
        : { daysOfMonth: named, positions: among };
    }
    case "YEARLY":
      if (weekdays.length || daysOfMonth.length > 1) return null;
      return months.length || daysOfMonth.length ? { months: [Number(to.slice(5, 7))], daysOfMonth: [day] } : {};
  }
}
