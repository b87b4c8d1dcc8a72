import type { Span } from "../time/spans";

/**
 * One technician's day and its timing. All times are integers of one unit (minutes in the
 * application); nothing here knows time zones.
 *
 * Three rules: the technician leaves the start place no earlier than the first span opens and is
 * at the end place no later than the last one closes; driving may be paused by the gap between two
 * spans, work may not; arrival is when the stop's own minutes begin, and must fall inside its
 * arrival window (waiting is allowed).
 */
export interface Stop {
  place: number;
  /** First and last allowed arrival, both allowed. */
  earliest: number;
  latest: number;
  /** Set-up, work and tidy-up, in one piece. */
  before: number;
  minutes: number;
  after: number;
}

export interface Day<S extends Stop = Stop> {
  start: number;
  end: number;
  /** Working spans in order, not touching. */
  spans: readonly Span[];
  /** In the order in which they are driven. */
  stops: readonly S[];
}

/** Minutes from one place to another; whole numbers, not always the same both ways. */
export type Travel = (from: number, to: number) => number;

interface TimedStop {
  /** When driving towards it begins, as late as the arrival allows. */
  driveFrom: number;
  /** Minutes of driving towards it, without the gaps that pause it. */
  driving: number;
  arrive: number;
  leave: number;
}

export type Timing =
  | { ok: true; stops: TimedStop[]; driving: number; home: number }
  /** The first stop (or the way home, `stops.length`) that fails, and by how much. */
  | { ok: false; at: number; shortBy: number };

/** What a day's stops take up at their earliest: the plan shown on the board and kept as placements. */
export function timeDay(day: Day, travel: Travel): Timing {
  const { spans, stops } = day;
  const timed: TimedStop[] = [];
  let place = day.start;
  let free = spans.length ? spans[0]![0] : Infinity;
  let driving = 0;
  for (const [at, stop] of stops.entries()) {
    const minutes = travel(place, stop.place);
    const arrive = earliestArrival(spans, free, minutes, stop);
    if (arrive > stop.latest) return { ok: false, at, shortBy: shortfall(arrive, stop.latest) };
    timed.push({
      driveFrom: Math.max(free, driveBack(spans, arrive, minutes)),
      driving: minutes,
      arrive,
      leave: arrive + work(stop),
    });
    driving += minutes;
    free = arrive + work(stop);
    place = stop.place;
  }
  const minutes = travel(place, day.end);
  const home = drive(spans, free, minutes);
  // A day without stops is always kept: nothing was promised.
  if (stops.length && home > closing(spans))
    return { ok: false, at: stops.length, shortBy: shortfall(home, closing(spans)) };
  return { ok: true, stops: timed, driving: driving + minutes, home };
}

export const work = (stop: Pick<Stop, "before" | "minutes" | "after">): number =>
  stop.before + stop.minutes + stop.after;

export const closing = (spans: readonly Span[]): number => (spans.length ? spans[spans.length - 1]![1] : -Infinity);

/** The same spans with no end to the last one: for how late something would be. */
export const openEnded = (spans: readonly Span[]): Span[] =>
  spans.map(([open, close], i) => [open, i === spans.length - 1 ? Number.MAX_SAFE_INTEGER : close]);

/** Earliest arrival at a stop when the technician is free at `free`, `minutes` of driving away. Infinity where nothing is left of the day. */
export const earliestArrival = (spans: readonly Span[], free: number, minutes: number, stop: Stop): number =>
  fit(spans, Math.max(stop.earliest, drive(spans, free, minutes)), work(stop));

/** Latest arrival at a stop that still reaches `next` (the latest arrival there), `minutes` of driving away. -Infinity where there is none. */
export const latestArrival = (spans: readonly Span[], next: number, minutes: number, stop: Stop): number =>
  fitBack(spans, Math.min(stop.latest, driveBack(spans, next, minutes) - work(stop)), work(stop));

// The four functions below are called for every position of every day: plain loops, no iterators.

/** The soonest time, from `time` on, at which `length` of work fits into one span. Infinity where it fits nowhere. */
export function fit(spans: readonly Span[], time: number, length: number): number {
  for (let i = 0; i < spans.length; i++) {
    const span = spans[i]!;
    const from = time > span[0] ? time : span[0];
    if (from + length <= span[1]) return from;
  }
  return Infinity;
}

/** The last time, up to `time`, at which `length` of work fits into one span. -Infinity where it fits nowhere. */
export function fitBack(spans: readonly Span[], time: number, length: number): number {
  for (let i = spans.length - 1; i >= 0; i--) {
    const span = spans[i]!;
    const from = time < span[1] - length ? time : span[1] - length;
    if (from >= span[0]) return from;
  }
  return -Infinity;
}

/** When `minutes` of driving that begin at `time` end, paused by the gaps between spans. Driving nowhere takes no time, in a gap too. */
export function drive(spans: readonly Span[], time: number, minutes: number): number {
  if (minutes <= 0) return time;
  let left = minutes;
  for (let i = 0; i < spans.length; i++) {
    const span = spans[i]!;
    if (span[1] <= time) continue;
    const from = time > span[0] ? time : span[0];
    if (from + left <= span[1]) return from + left;
    left -= span[1] - from;
  }
  return Infinity;
}

/** The latest time from which `minutes` of driving end no later than `time`: the inverse of `drive`. */
export function driveBack(spans: readonly Span[], time: number, minutes: number): number {
  if (minutes <= 0) return time;
  let left = minutes;
  for (let i = spans.length - 1; i >= 0; i--) {
    const span = spans[i]!;
    if (span[0] >= time) continue;
    const to = time < span[1] ? time : span[1];
    if (to - left >= span[0]) return to - left;
    left -= to - span[0];
  }
  return -Infinity;
}

const shortfall = (got: number, wanted: number): number =>
  Number.isFinite(got) && Number.isFinite(wanted) ? got - wanted : Infinity;
