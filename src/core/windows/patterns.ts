import { addDays, type LocalDate, servesWeekday } from "../time/dates";
import { epochMinute, localOf } from "../time/local";
import type { PromiseWindow } from "./promise-window";
import type { AskedWindow } from "./question";

/** How a day is cut into windows: minutes of the day, on the weekdays of the mask (bit 0 is Monday). */
export type PatternPart = { weekdays: number; from: number; to: number } & PatternKind;

type PatternKind =
  /** One window from `from` to `to`. */
  | { kind: "window" }
  /** Windows of `length` minutes that overlap: one begins every `step` minutes, the last one ends by `to`. */
  | { kind: "stepping"; length: number; step: number }
  /** Exact arrivals every `step` minutes, `to` included. */
  | { kind: "exact"; step: number }
  /** Exact arrivals right after the visit before: as soon as somebody can be there. */
  | { kind: "continuous" };

/** When somebody could arrive, as soon as possible after each stop of the day, within a span: epoch minutes. */
export type SoonestArrivals = (span: PromiseWindow) => readonly number[];

/** The windows of the given dates in the business's time zone, in time order and each once. */
export function windowsOn(
  pattern: readonly PatternPart[],
  dates: readonly LocalDate[],
  zone: string,
  soonest: SoonestArrivals = () => [],
): PromiseWindow[] {
  return dates.flatMap((date) => {
    const parts = pattern.filter((part) => servesWeekday(part.weekdays, date));
    const local = parts.flatMap(cut).map(([from, to]) => ({
      date,
      from: epochMinute(date, from, zone),
      to: epochMinute(date, to, zone),
      exact: from === to,
    }));
    // A window of which a change of clocks leaves nothing is none.
    const cutOut = local.filter((w) => w.exact || w.to > w.from).map(({ from, to }) => ({ date, from, to }));
    const continuous = parts
      .filter((part) => part.kind === "continuous")
      .flatMap((part) => {
        const span = { date, from: epochMinute(date, part.from, zone), to: epochMinute(date, part.to, zone) };
        return soonest(span).map((at) => ({ date, from: at, to: at }));
      });
    const sorted = [...cutOut, ...continuous].sort((a, b) => a.from - b.from || a.to - b.to);
    return sorted.filter((w, i) => i === 0 || w.from !== sorted[i - 1]!.from || w.to !== sorted[i - 1]!.to);
  });
}

/** The windows of a day, in its minutes; none of a part that depends on who is where. */
export function cut(part: PatternPart): [number, number][] {
  switch (part.kind) {
    case "window":
      return [[part.from, part.to]];
    case "stepping":
      return steps(part.from, part.to - part.length, part.step).map((from) => [from, from + part.length]);
    case "exact":
      return steps(part.from, part.to, part.step).map((at) => [at, at]);
    case "continuous":
      return [];
  }
}

const steps = (first: number, last: number, step: number): number[] =>
  Array.from({ length: Math.max(0, Math.floor((last - first) / step) + 1) }, (_, i) => first + i * step);

/** A window for work of `days` days, with the same window on the working days that follow; `then` is null where the next two weeks have too few of them. */
export function withFollowingDays(
  window: PromiseWindow,
  days: number,
  isWorkingDay: (date: LocalDate) => boolean,
  zone: string,
): AskedWindow {
  if (days <= 1) return window;
  const from = localOf(window.from, zone).minute;
  const last = localOf(window.to, zone);
  const to = last.date > window.date ? last.minute + 1440 : last.minute;
  const followingDays: PromiseWindow[] = [];
  for (let ahead = 1; ahead <= 14 && followingDays.length < days - 1; ahead++) {
    const date = addDays(window.date, ahead);
    if (isWorkingDay(date))
      followingDays.push({ date, from: epochMinute(date, from, zone), to: epochMinute(date, to, zone) });
  }
  return { ...window, followingDays: followingDays.length === days - 1 ? followingDays : null };
}
