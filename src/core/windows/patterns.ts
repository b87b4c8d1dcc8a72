import { epochMinute, servesWeekday, type LocalDate } from "../time/local";
import type { PromiseWindow } from "./offers";

/** One window of a pattern: minutes of the day, on the weekdays of the mask (bit 0 is Monday). */
export interface PatternWindow {
  weekdays: number;
  from: number;
  to: number;
}

/** The windows of the given dates in the business's time zone, in time order. */
export const windowsOn = (pattern: readonly PatternWindow[], dates: readonly LocalDate[], zone: string): PromiseWindow[] =>
  dates.flatMap((date) =>
    pattern
      .filter((window) => servesWeekday(window.weekdays, date))
      .sort((a, b) => a.from - b.from || a.to - b.to)
      .map((window) => ({ date, from: epochMinute(date, window.from, zone), to: epochMinute(date, window.to, zone) })),
  );
