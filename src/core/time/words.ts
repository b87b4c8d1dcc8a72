import { type LocalDate, numberOf } from "./dates";

/** Dates and times as people read them, in English. */

let hoursOfClock: 12 | 24 = 24;
/** Times are written by this clock from now on. One installation serves one business, so its habit is set once, at the edge. */
export const writeTimesBy = (hours: 12 | 24): void => void (hoursOfClock = hours);

/** "09:30", or "9:30 am". */
export const clock = (minute: number): string => clockOf(ofDay(minute));

/** Of a minute in the night that follows, that of its own day; the end of a day is its own. */
const ofDay = (minute: number): number => (minute > 1440 ? minute - 1440 : minute);

const clockOf = (minuteOfDay: number): string =>
  hoursOfClock === 24
    ? `${String(Math.floor(minuteOfDay / 60)).padStart(2, "0")}:${minutesOf(minuteOfDay)}`
    : `${hour12(minuteOfDay)}:${minutesOf(minuteOfDay)} ${half(minuteOfDay)}`;

const minutesOf = (minute: number): string => String(minute % 60).padStart(2, "0");
const hour12 = (minute: number): number => ((Math.floor(minute / 60) + 11) % 12) + 1;
const half = (minute: number): "am" | "pm" => (Math.floor(minute / 720) % 2 === 0 ? "am" : "pm");

/** Minute of day of `9:30`, `21.30`, `9:30 pm` or `9 pm`, or null where the text is no time. `24:00` is the end of the day. */
export function parseClock(text: string): number | null {
  const [, hourText, minuteText, halfText] = /^(\d{1,2})(?:[:.]([0-5]\d))?\s*([ap]m)?$/i.exec(text.trim()) ?? [];
  if (!hourText || (!minuteText && !halfText)) return null;
  const hour = Number(hourText);
  if (halfText && (hour < 1 || hour > 12)) return null;
  const minute =
    (halfText ? (hour % 12) + (halfText.toLowerCase() === "pm" ? 12 : 0) : hour) * 60 + Number(minuteText ?? 0);
  return minute <= 1440 ? minute : null;
}

const short = (minute: number): string =>
  minute % 60 === 0 ? String(minute / 60) : `${Math.floor(minute / 60)}:${minutesOf(minute)}`;
const short12 = (minute: number): string =>
  minute % 60 === 0 ? String(hour12(minute)) : `${hour12(minute)}:${minutesOf(minute)}`;

/** "9–11", "8:30–10", or "9–11 am", "11 am–1 pm"; an exact time as a clock shows it: "09:30". */
export function windowWords(from: number, end: number): string {
  const to = ofDay(end);
  if (from === to) return clock(from);
  if (hoursOfClock === 24) return `${short(from)}–${short(to)}`;
  return `${short12(from)}${half(from) === half(to) ? "" : ` ${half(from)}`}–${short12(to)} ${half(to)}`;
}

/** "Thursday 11 March and Friday 12 March". */
export const daysWords = (dates: readonly LocalDate[]): string => listWords(dates.map(dayWords));

/** "Thursday 11 March". */
export const dayWords = (date: LocalDate): string =>
  written(date, { weekday: "long", day: "numeric", month: "long" }).replace(",", "");

/** "Thu 11 Mar". */
export const dayShort = (date: LocalDate): string =>
  written(date, { weekday: "short", day: "numeric", month: "short" }).replace(",", "");

/** "November 2026". */
export const monthWords = (date: LocalDate): string => written(date, { month: "long", year: "numeric" });

/** "11 March 2027". */
export const dateWords = (date: LocalDate): string => written(date, { day: "numeric", month: "long", year: "numeric" });

const formats = new Map<string, Intl.DateTimeFormat>();
function written(date: LocalDate, parts: Intl.DateTimeFormatOptions): string {
  const key = JSON.stringify(parts);
  let format = formats.get(key);
  if (!format) formats.set(key, (format = new Intl.DateTimeFormat("en-GB", { ...parts, timeZone: "UTC" })));
  return format.format(numberOf(date) * 86_400_000);
}

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
  const names = weekdayNames
    .filter((_, i) => mask & (1 << i))
    .map((name) => (mask & (mask - 1) ? name.slice(0, 3) : name + "s"));
  return names.length ? listWords(names) : "never";
}
