/**
 * Room that is kept by people who have shown nothing of themselves: holds, and bookings that nobody has paid for or
 * confirmed with a code. A few are a family; many are somebody who closes the calendar.
 */
export interface KeptRoom {
  /** Live holds and unproved bookings of the same browser, network address, and email or phone. */
  byBrowser: number;
  byAddress: number;
  byContact: number;
  /** Minutes of work that all unproved people together keep on the date, and the minutes that can be worked then. */
  minutesOfDay: number;
  workable: number;
}

export interface KeptRoomLimits {
  /** Of one browser, and of one email or phone. */
  each: number;
  /** Of a day's work, for all together. */
  percentOfDay: number;
}

/** A household and a small office share one network address. */
export const perAddress = 3;

/**
 * Why somebody unproved may not keep another visit of `minutes` of work, or null where they may. The first visit of a day may
 * always be kept; null as minutes is a visit whose room they keep already.
 */
export function roomRefusal(
  { byBrowser, byAddress, byContact, minutesOfDay, workable }: KeptRoom,
  { each, percentOfDay }: KeptRoomLimits,
  minutes: number | null,
): "too-many-holds" | "day-is-kept" | null {
  if (byBrowser >= each || byContact >= each || byAddress >= each * perAddress) return "too-many-holds";
  if (minutes === null) return null;
  const share = (workable * percentOfDay) / 100;
  return minutesOfDay > 0 && minutesOfDay + minutes > share ? "day-is-kept" : null;
}
