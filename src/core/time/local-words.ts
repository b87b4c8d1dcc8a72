import { localOf } from "./local";
import { clock, windowWords } from "./words";

/** A window between two epoch minutes. */
export const windowIn = (from: number, to: number, zone: string): string =>
  windowWords(localOf(from, zone).minute, localOf(to, zone).minute);

export const clockIn = (epoch: number, zone: string): string => clock(localOf(epoch, zone).minute);
