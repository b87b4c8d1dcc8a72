import { addDays, daysBetween, type LocalDate } from "../time/dates";
import { datesOfRule } from "./recurrence";
import type { Begun } from "./shift";

/** Two days of a repeat that follow each other sooner or later than its rule has it: visited twice for once, or not at all. */
export interface OddGap {
  kind: "twice" | "none";
  from: LocalDate;
  to: LocalDate;
}

/**
 * Where days on which somebody comes stand closer together, or farther apart, than the rule has them: by less than half
 * of its shortest gap, or more than one and a half of its longest. `days` in order, each once.
 */
export function oddGaps({ rule, start }: Begun, days: readonly LocalDate[]): OddGap[] {
  const own = gapsOf(datesOfRule({ ...rule, count: null, until: null }, start, start, addDays(start, 3660), 30));
  if (!own.length) return [];
  const [shortest, longest] = [Math.min(...own), Math.max(...own)];
  return days.slice(1).flatMap((to, i): OddGap[] => {
    const from = days[i]!;
    const gap = daysBetween(from, to);
    if (gap < shortest / 2) return [{ kind: "twice", from, to }];
    return gap > longest * 1.5 ? [{ kind: "none", from, to }] : [];
  });
}

const gapsOf = (dates: readonly LocalDate[]): number[] => dates.slice(1).map((date, i) => daysBetween(dates[i]!, date));

/**
 * The day from which a new rule counts where visits that are promised stay: after the last of them, by as long as the shorter
 * of both rules waits at least, less half of that: so that no one is visited twice for once, and no turn is left out.
 */
export function beginsAfter(last: LocalDate, old: Begun, anew: Begun): LocalDate {
  const next = ({ rule, start }: Begun): number => {
    const [first] = datesOfRule({ ...rule, count: null, until: null }, start, addDays(last, 1), addDays(last, 3660), 1);
    return first === undefined ? Infinity : daysBetween(last, first);
  };
  const shortest = Math.min(
    ...[old, anew].flatMap(({ rule, start }) =>
      gapsOf(datesOfRule({ ...rule, count: null, until: null }, start, start, addDays(start, 3660), 8)),
    ),
  );
  const wait = Math.min(next(old), Number.isFinite(shortest) ? shortest : next(old));
  return addDays(last, Number.isFinite(wait) ? Math.max(1, Math.ceil(wait / 2)) : 1);
}

/**
 * For which dates of a rule other days stand: each for the nearest that no earlier one has taken, no farther away than half
 * of the rule's shortest gap. A day that stands for none is left out. `dates` and `days` in order.
 */
export function turnsTaken(
  { rule, start }: Begun,
  dates: readonly LocalDate[],
  days: readonly LocalDate[],
): Map<LocalDate, LocalDate> {
  const own = gapsOf(datesOfRule({ ...rule, count: null, until: null }, start, start, addDays(start, 3660), 30));
  const reach = own.length ? Math.min(...own) / 2 : Infinity;
  const taken = new Map<LocalDate, LocalDate>();
  const free = new Set(dates);
  for (const day of days) {
    const away = (date: LocalDate): number => Math.abs(daysBetween(day, date));
    const nearest = [...free].filter((date) => away(date) <= reach).sort((a, b) => away(a) - away(b))[0];
    if (!nearest) continue;
    taken.set(day, nearest);
    free.delete(nearest);
  }
  return taken;
}
