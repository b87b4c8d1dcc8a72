import { Temporal } from "temporal-polyfill";
import { localOf, type LocalDate } from "./local";

/** Dates and times as people read them. English, 24-hour clock. */
export const clock = (minuteOfDay: number): string =>
  `${String(Math.floor(minuteOfDay / 60)).padStart(2, "0")}:${String(minuteOfDay % 60).padStart(2, "0")}`;

/** Minute of day of `HH:MM`, or null where the text is no time. `24:00` is the end of the day. */
export function parseClock(text: string): number | null {
  const match = /^([01]?\d|2[0-4])[:.]([0-5]\d)$/.exec(text.trim());
  if (!match) return null;
  const minute = Number(match[1]) * 60 + Number(match[2]);
  return minute <= 1440 ? minute : null;
}

const short = (minute: number): string => (minute % 60 === 0 ? String(minute / 60) : clock(minute));

/** "9–11", "8:30–10"; an exact time as a clock shows it: "09:30". */
export const windowWords = (from: number, to: number): string => from === to ? clock(from) : `${short(from).replace(/^0/, "")}–${short(to).replace(/^0/, "")}`;

/** When we arrive, within a sentence: "between 09:00 and 11:00", "at 09:30". */
export const arrivalWords = (from: number, to: number): string => (from === to ? `at ${clock(from)}` : `between ${clock(from)} and ${clock(to)}`);

/** "Thursday 11 March and Friday 12 March". */
export const daysWords = (dates: readonly LocalDate[]): string => listWords(dates.map(dayWords));

/** A window between two epoch minutes. */
export const windowIn = (from: number, to: number, zone: string): string => windowWords(localOf(from, zone).minute, localOf(to, zone).minute);

export const clockIn = (epoch: number, zone: string): string => clock(localOf(epoch, zone).minute);

/** "Thursday 11 March". */
export const dayWords = (date: LocalDate): string =>
  Temporal.PlainDate.from(date).toLocaleString("en-GB", { weekday: "long", day: "numeric", month: "long" }).replace(",", "");

/** "Thu 11 Mar". */
export const dayShort = (date: LocalDate): string =>
  Temporal.PlainDate.from(date).toLocaleString("en-GB", { weekday: "short", day: "numeric", month: "short" }).replace(",", "");

/** "11 March 2027". */
export const dateWords = (date: LocalDate): string =>
  Temporal.PlainDate.from(date).toLocaleString("en-GB", { day: "numeric", month: "long", year: "numeric" });

/** "a", "a and b", "a, b and c". */
export const listWords = (items: readonly string[]): string => items.join(", ").replace(/, ([^,]*)$/, " and $1");

/** "1 h 15 min", "45 min", "3 days". */
export function durationWords(minutes: number): string {
  if (minutes >= 2 * 1440 && minutes % 1440 === 0) return `${minutes / 1440} days`;
  const hours = Math.floor(minutes / 60);
  const rest = minutes % 60;
  if (hours === 0) return `${rest} min`;
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`;
}

export const weekdayNames = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;

/** Words for a bit mask of weekdays (bit 0 is Monday): "daily", "weekdays", "Tue and Thu". */
export function weekdaysWords(mask: number): string {
  if (mask === 127) return "daily";
  if (mask === 31) return "weekdays";
  const names = weekdayNames.filter((_, i) => mask & (1 << i)).map((name) => (mask & (mask - 1) ? name.slice(0, 3) : name + "s"));
  return names.length ? listWords(names) : "never";
}
