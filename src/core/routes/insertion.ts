import { closing, drive, driveBack, earliestArrival, fitBack, latestArrival, work, type Day, type Stop, type Travel } from "./timing";

/**
 * Where a new stop fits into a day whose order stays as it is. The day is prepared once, with one
 * pass forward and one back; each position is then tested in constant time. The slack idea is
 * Savelsbergh's: The Vehicle Routing Problem with Time Windows: Minimizing Route Duration,
 * ORSA Journal on Computing 4 (1992).
 */
export interface PreparedDay<S extends Stop = Stop> extends Day<S> {
  /** `leave[k]`: the earliest time free after stop k - 1; `leave[0]` is the opening of the day. */
  leave: Float64Array;
  /** `latest[k]`: the latest arrival at stop k that keeps everything after it; the last entry is the latest time at the end place. */
  latest: Float64Array;
}

/** A place in the order where the stop fits, with the arrivals that keep the rest of the day. */
export interface Insertion {
  /** The stop comes before the present stop of this index. */
  position: number;
  extraDriving: number;
  arrive: number;
  arriveLatest: number;
}

/** The nearest miss where nothing fits: how many minutes short, and between which stops (null: start or end of the day). */
export interface NearMiss {
  position: number;
  shortBy: number;
}

/** Null where the day as it stands cannot be kept. */
export function prepareDay<S extends Stop>(day: Day<S>, travel: Travel): PreparedDay<S> | null {
  const { spans, stops } = day;
  const n = stops.length;
  const leave = new Float64Array(n + 1);
  const latest = new Float64Array(n + 1);
  leave[0] = spans.length ? spans[0]![0] : Infinity;
  for (let k = 0; k < n; k++) {
    const stop = stops[k]!;
    const arrive = earliestArrival(spans, leave[k]!, travel(k ? stops[k - 1]!.place : day.start, stop.place), stop);
    if (arrive > stop.latest) return null;
    leave[k + 1] = arrive + work(stop);
  }
  latest[n] = closing(spans);
  for (let k = n - 1; k >= 0; k--) {
    const stop = stops[k]!;
    latest[k] = latestArrival(spans, latest[k + 1]!, travel(stop.place, k + 1 < n ? stops[k + 1]!.place : day.end), stop);
    // Arriving at the earliest is already too late for what comes after it.
    if (leave[k + 1]! - work(stop) > latest[k]!) return null;
  }
  return { ...day, leave, latest };
}

/** Every position at which `stop` fits, in the order of the day. */
export function insertions(day: PreparedDay, stop: Stop, travel: Travel): Insertion[] {
  const found: Insertion[] = [];
  for (let k = 0; k <= day.stops.length; k++) {
    const insertion = insertAt(day, k, stop, travel);
    if (insertion) found.push(insertion);
  }
  return found;
}

/** The position with the least extra driving (the earlier one on a tie), or null. */
export function bestInsertion(day: PreparedDay, stop: Stop, travel: Travel): Insertion | null {
  let best: Insertion | null = null;
  for (let k = 0; k <= day.stops.length; k++) {
    const insertion = insertAt(day, k, stop, travel);
    if (insertion && (!best || insertion.extraDriving < best.extraDriving)) best = insertion;
  }
  return best;
}

/** How close the stop comes to fitting: for a day into which it does not fit. */
export function nearestMiss(day: PreparedDay, stop: Stop, travel: Travel): NearMiss {
  let miss: NearMiss = { position: 0, shortBy: Infinity };
  for (let k = 0; k <= day.stops.length; k++) {
    const { to, from } = legs(day, k, stop, travel);
    const arrive = earliestArrival(day.spans, day.leave[k]!, to, stop);
    const onward = drive(day.spans, arrive + work(stop), from);
    const shortBy = Math.max(arrive - stop.latest, onward - day.latest[k]!);
    if (shortBy < miss.shortBy) miss = { position: k, shortBy };
  }
  return miss;
}

/** The stop placed before the present stop `k`, or null where it does not fit there. */
export function insertAt(day: PreparedDay, k: number, stop: Stop, travel: Travel): Insertion | null {
  const { spans } = day;
  const { to, from, direct } = legs(day, k, stop, travel);
  const arrive = earliestArrival(spans, day.leave[k]!, to, stop);
  if (arrive > stop.latest) return null;
  const length = work(stop);
  if (drive(spans, arrive + length, from) > day.latest[k]!) return null;
  const arriveLatest = fitBack(spans, Math.min(stop.latest, driveBack(spans, day.latest[k]!, from) - length), length);
  return { position: k, extraDriving: to + from - direct, arrive, arriveLatest };
}

function legs(day: PreparedDay, k: number, stop: Stop, travel: Travel) {
  const n = day.stops.length;
  const previous = k > 0 ? day.stops[k - 1]!.place : day.start;
  const next = k < n ? day.stops[k]!.place : day.end;
  // An empty day is not driven at all: going from start to end only counts once there is a stop.
  return { to: travel(previous, stop.place), from: travel(stop.place, next), direct: n === 0 ? 0 : travel(previous, next) };
}
