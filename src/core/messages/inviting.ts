/** How a campaign stands on a morning: whether there is room for each of those who were asked and have not answered, and for those who wait, in their order, after them. */
export interface RoomOnThatDay {
  asked: readonly boolean[];
  waiting: readonly boolean[];
  /** How many may still be invited today. */
  most: number;
}

/** Whom it invites today, by their place among those who wait; or that there is no room left for anybody. */
export type Inviting = { invite: number[] } | { full: true };

/**
 * Those who were asked keep their room for as long as they may answer, so that whoever opens a link finds a window. The room
 * is gone only where nobody's answer is awaited and nothing is left for any of those who wait.
 */
export function inviteToday({ asked, waiting, most }: RoomOnThatDay): Inviting {
  const fit = waiting.flatMap((fits, i) => (fits ? [i] : []));
  if (waiting.length > 0 && fit.length === 0 && asked.every((fits) => !fits)) return { full: true };
  return { invite: fit.slice(0, Math.max(0, most)) };
}
