import { dayMs, hourMs } from "../horizons";
import type { Purpose } from "./purposes";

/** A message that could not be sent yet. Moments in epoch milliseconds. */
export interface Unsent {
  purpose: Purpose;
  /** Speaks of a debt: it keeps. */
  ofDebt: boolean;
  writtenAt: number;
  /** When the window opens that it speaks of; null where it speaks of none. */
  windowFrom: number | null;
  /** Whether it could go another way. */
  hasOtherWay: boolean;
}

const keepsFor: Record<Purpose, number> = {
  answer: 2 * dayMs,
  service: 2 * dayMs,
  reminders: dayMs,
  offers: dayMs,
  ours: dayMs,
};

/**
 * Until when a message is tried: as long as it is of use, which a reminder is until the window opens and a bill for days. One
 * that could go another way does so after some hours, and in time: when half of what is left is over.
 */
export function triedUntil({ purpose, ofDebt, writtenAt, windowFrom, hasOtherWay }: Unsent): number {
  const keeps = writtenAt + (ofDebt ? 7 * dayMs : keepsFor[purpose]);
  const opens = ofDebt ? null : windowFrom;
  const useful = opens === null ? keeps : purpose === "reminders" ? opens : Math.min(opens, keeps);
  const half = writtenAt + Math.max(0, useful - writtenAt) / 2;
  return hasOtherWay ? Math.min(half, writtenAt + 2 * hourMs) : useful;
}
