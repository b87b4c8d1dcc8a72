import { addDays, daysBetween, type LocalDate } from "../time/dates";

/** How old what is owed is, by the days since it was due. */
export const ages = ["not due yet", "1 to 7 days", "8 to 30 days", "31 to 90 days", "over 90 days"] as const;
export type Age = (typeof ages)[number];

/** The last day past due of each age; nothing is older than the oldest. */
const lastDay: Record<Age, number> = {
  "not due yet": 0,
  "1 to 7 days": 7,
  "8 to 30 days": 30,
  "31 to 90 days": 90,
  "over 90 days": Infinity,
};

export const ageOf = (due: LocalDate, today: LocalDate): Age =>
  ages.find((age) => daysBetween(due, today) <= lastDay[age])!;

/** The due dates of an age, both included; null where it has no end. */
export function dueOfAge(age: Age, today: LocalDate): { from: LocalDate | null; to: LocalDate | null } {
  const i = ages.indexOf(age);
  const oldest = lastDay[age];
  return {
    from: oldest === Infinity ? null : addDays(today, -oldest),
    to: i === 0 ? null : addDays(today, -lastDay[ages[i - 1]!] - 1),
  };
}
