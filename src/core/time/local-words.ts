import { localOf } from "./local";
import { clock, dayShort, windowWords } from "./words";

/** A window between two epoch minutes. */
export const windowIn = (from: number, to: number, zone: string): string =>
  windowWords(localOf(from, zone).minute, localOf(to, zone).minute);

export const clockIn = (epoch: number, zone: string): string => clock(localOf(epoch, zone).minute);

/** A moment of epoch milliseconds: "Tue 24 Nov, 17:00". */
export function momentIn(ms: number, zone: string): string {
  const { date, minute } = localOf(Math.floor(ms / 60_000), zone);
  return `${dayShort(date)}, ${clock(minute)}`;
}
