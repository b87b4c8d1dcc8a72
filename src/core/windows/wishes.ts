import { type LocalDate, servesWeekday } from "../time/dates";
import { dateWords, weekdaysWords, windowWords } from "../time/words";

/** A window that somebody chose: minutes of the day. */
export interface ChosenWindow {
  date: LocalDate;
  from: number;
  to: number;
}

/** Days and times that would suit somebody. Minutes of the day. */
export interface Wish {
  /** A bit for each weekday, Monday the lowest. */
  weekdays: number;
  from: number;
  to: number;
  /** The last day that would suit; null: any time. */
  until: LocalDate | null;
}

/** Whether no day that would suit lies ahead any more. */
export const isOver = (wish: Wish, today: LocalDate): boolean => wish.until !== null && wish.until < today;

/** Whether a window suits: its day is one of the days, and all of it lies within the times. Minutes of the day. */
export const suits = (wish: Wish, window: { date: LocalDate; from: number; to: number }): boolean =>
  servesWeekday(wish.weekdays, window.date) &&
  (wish.until === null || window.date <= wish.until) &&
  wish.from <= window.from &&
  window.to <= wish.to;

/** "Tue and Thu, 13–17". */
export const wishWords = ({ weekdays, from, to, until }: Wish): string =>
  [
    weekdays === 127 ? "any day" : weekdaysWords(weekdays),
    from === 0 && to === 1440 ? "any time" : windowWords(from, to),
    until && `until ${dateWords(until)}`,
  ]
    .filter(Boolean)
    .join(", ");
