import {
  closing,
  type Day,
  drive,
  driveBack,
  earliestArrival,
  fit,
  fitBack,
  latestArrival,
  openEnded,
  type Stop,
  type Travel,
  work,
} from "./timing";

/**
 * Where a new stop fits into a day whose order stays as it is. A day is prepared once, with one pass
 * forward and one back. For a place and a length of work, each position in the order then has one
 * interval of arrivals that keep everything else: found once, and cut with every window that is
 * asked for. The slack idea is Savelsbergh's: The Vehicle Routing Problem with Time Windows:
 * Minimizing Route Duration, ORSA Journal on Computing 4 (1992).
 */
export interface PreparedDay<S extends Stop = Stop> extends Day<S> {
  /** `leave[k]`: the earliest time free after stop k - 1; `leave[0]` is the opening of the day. */
  leave: readonly number[];
  /** `latest[k]`: the latest arrival at stop k that keeps everything after it; the last entry is the latest time at the end place. */
  latest: readonly number[];
}

/** What a day offers to a stop of some length at some place, before any window is asked for. */
export interface Rooms {
  /** Driving minutes to the stop and on from it, by position. */
  towards: readonly number[];
  onward: readonly number[];
  /** A call: it has no place, and the driving around it may begin before it and go on after it. */
  call: boolean;
  /** The positions at which the stop can be kept at all, in the order of the day. */
  rooms: readonly Room[];
}

/** One position: the first and the last arrival that keep the day. In between, the work still has to lie in one span. */
export interface Room {
  /** The stop would come before the present stop of this index. */
  position: number;
  extraDriving: number;
  from: number;
  to: number;
}

/** A place in the order where the stop fits into a window, with the arrivals that keep the rest of the day. */
export interface Insertion {
  position: number;
  extraDriving: number;
  arrive: number;
  arriveLatest: number;
}

/** An arrival window, both ends allowed. */
export interface Arrivals {
  from: number;
  to: number;
}

/**
 * The nearest miss where nothing fits. `shortBy` minutes are missing at `position`: the window would
 * have to end that much later (`window`), what follows or the way home would be that much late
 * (`next`), or both (`both`). Infinity where nothing is left of the day.
 */
export interface NearMiss {
  position: number;
  shortBy: number;
  late: "window" | "next" | "both";
}

/** Null where the day as it stands cannot be kept. */
export function prepareDay<S extends Stop>(day: Day<S>, travel: Travel): PreparedDay<S> | null {
  const { start, end, spans, stops } = day;
  const n = stops.length;
  const leave = [spans.length ? spans[0]![0] : Infinity];
  for (let k = 0; k < n; k++) {
    const stop = stops[k]!;
    const arrive = earliestArrival(spans, leave[k]!, travel(k ? stops[k - 1]!.place : start, stop.place), stop);
    if (arrive > stop.latest) return null;
    leave.push(arrive + work(stop));
  }
  const latest = new Array<number>(n + 1);
  latest[n] = closing(spans);
  for (let k = n - 1; k >= 0; k--) {
    const stop = stops[k]!;
    latest[k] = latestArrival(spans, latest[k + 1]!, travel(stop.place, k + 1 < n ? stops[k + 1]!.place : end), stop);
    // Arriving at the earliest is already too late for what comes after it.
    if (leave[k + 1]! - work(stop) > latest[k]!) return null;
  }
  return { start, end, spans, stops, leave, latest };
}

/** The room for `length` minutes of work at `place`, or from wherever somebody is where there is none (null: a call). */
export function roomsFor(day: PreparedDay, place: number | null, length: number, travel: Travel): Rooms {
  const { spans, stops, leave, latest } = day;
  if (place === null) return roomsForCall(day, length, travel);
  const [towards, onward, rooms]: [number[], number[], Room[]] = [[], [], []];
  let previous = day.start;
  for (let position = 0; position <= stops.length; position++) {
    const next = position < stops.length ? stops[position]!.place : day.end;
    const there = travel(previous, place);
    const back = travel(place, next);
    towards.push(there);
    onward.push(back);
    const from = fit(spans, drive(spans, leave[position]!, there), length);
    const to = fitBack(spans, driveBack(spans, latest[position]!, back) - length, length);
    if (from <= to) rooms.push({ position, extraDriving: there + back - travel(previous, next), from, to });
    previous = next;
  }
  return { towards, onward, call: false, rooms };
}

/**
 * The room for a call, which splits the drive it falls into: from when the stop before is left, until the next one can
 * still be reached. Nothing is driven for it.
 */
function roomsForCall(day: PreparedDay, length: number, travel: Travel): Rooms {
  const { spans, stops, leave, latest } = day;
  const [towards, onward, rooms]: [number[], number[], Room[]] = [[], [], []];
  let previous = day.start;
  for (let position = 0; position <= stops.length; position++) {
    const next = position < stops.length ? stops[position]!.place : day.end;
    const driving = travel(previous, next);
    towards.push(0);
    onward.push(driving);
    const from = fit(spans, leave[position]!, length);
    const to = fitBack(spans, latest[position]! - length, length);
    if (from <= to && drive(spans, leave[position]!, driving + length) <= latest[position]!)
      rooms.push({ position, extraDriving: 0, from, to });
    previous = next;
  }
  return { towards, onward, call: true, rooms };
}

/** How a stop fits into one position and a window, or null. */
export function insertInto(room: Room, day: PreparedDay, window: Arrivals, length: number): Insertion | null {
  const last = window.to < room.to ? window.to : room.to;
  const first = window.from > room.from ? window.from : room.from;
  if (first > last) return null;
  const arrive = fit(day.spans, first, length);
  if (arrive > last) return null;
  return {
    position: room.position,
    extraDriving: room.extraDriving,
    arrive,
    arriveLatest: fitBack(day.spans, last, length),
  };
}

/** Every position at which the stop fits into the window, in the order of the day. */
export function insertionsInto({ rooms }: Rooms, day: PreparedDay, window: Arrivals, length: number): Insertion[] {
  const found: Insertion[] = [];
  for (const room of rooms) {
    const insertion = insertInto(room, day, window, length);
    if (insertion) found.push(insertion);
  }
  return found;
}

/** Of these, the one with the least extra driving (the earlier one on a tie), or null. */
export function bestInto({ rooms }: Rooms, day: PreparedDay, window: Arrivals, length: number): Insertion | null {
  let best: Insertion | null = null;
  for (const room of rooms)
    if (!best || room.extraDriving < best.extraDriving) best = insertInto(room, day, window, length) ?? best;
  return best;
}

/** A stop, or a call: that has no place. */
export type StopOrCall = Omit<Stop, "place"> & { place: number | null };

/** The same for a stop that carries its own window. */
export const insertions = (day: PreparedDay, stop: StopOrCall, travel: Travel): Insertion[] =>
  insertionsInto(
    roomsFor(day, stop.place, work(stop), travel),
    day,
    { from: stop.earliest, to: stop.latest },
    work(stop),
  );

/** The position with the least extra driving (the earlier one on a tie), or null. */
export const bestInsertion = (day: PreparedDay, stop: StopOrCall, travel: Travel): Insertion | null =>
  bestInto(roomsFor(day, stop.place, work(stop), travel), day, { from: stop.earliest, to: stop.latest }, work(stop));

/** The insertion with the least extra driving (the earlier one on a tie), or null of none. */
export function leastDriving(found: readonly Insertion[]): Insertion | null {
  let best: Insertion | null = null;
  for (const insertion of found) if (!best || insertion.extraDriving < best.extraDriving) best = insertion;
  return best;
}

/** How close the stop comes to fitting: for a window into which it does not fit. Measured as if the last span went on until all is done. */
export function nearestMiss(
  { towards, onward, call }: Rooms,
  day: PreparedDay,
  window: Arrivals,
  length: number,
): NearMiss {
  const spans = openEnded(day.spans);
  let miss: NearMiss = { position: 0, shortBy: Infinity, late: "both" };
  for (let position = 0; position < towards.length; position++) {
    const arrive = fit(spans, Math.max(window.from, drive(spans, day.leave[position]!, towards[position]!)), length);
    const tooLate = arrive - window.to;
    const after = call
      ? Math.max(arrive + length, drive(spans, day.leave[position]!, onward[position]! + length))
      : drive(spans, arrive + length, onward[position]!);
    const lateAfter = after - day.latest[position]!;
    const shortBy = Math.max(tooLate, lateAfter);
    if (shortBy < miss.shortBy)
      miss = { position, shortBy, late: lateAfter <= 0 ? "window" : tooLate <= 0 ? "next" : "both" };
  }
  return miss;
}
