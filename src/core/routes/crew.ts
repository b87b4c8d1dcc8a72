import { type Insertion, leastDriving, type PreparedDay } from "./insertion";
import { fit } from "./timing";

/** Somebody who can do a stop, with every position at which it fits. */
export interface Member {
  id: string;
  day: PreparedDay;
  insertions: readonly Insertion[];
}

/** A moment at which all of `members` can begin together, each with the best position for it. */
export interface CommonStart {
  at: number;
  members: Map<string, Insertion>;
}

/**
 * The moments at which at least `crew` of the members can begin `length` minutes of work together.
 * What somebody can reach is one interval per gap of the day, so a common start exists exactly where
 * one exists at the beginning of such an interval: only those are tried.
 */
export function commonStarts(members: readonly Member[], length: number, crew: number): CommonStart[] {
  const moments = new Set<number>();
  for (const { day, insertions } of members)
    for (const { arrive, arriveLatest } of insertions) {
      moments.add(arrive);
      for (const [open] of day.spans) if (open > arrive && open <= arriveLatest) moments.add(open);
    }
  const found: CommonStart[] = [];
  for (const at of [...moments].sort((a, b) => a - b)) {
    const together = new Map<string, Insertion>();
    for (const { id, day, insertions } of members) {
      if (fit(day.spans, at, length) !== at) continue;
      const best = leastDriving(insertions.filter((i) => i.arrive <= at && at <= i.arriveLatest));
      if (best) together.set(id, { ...best, arrive: at, arriveLatest: at });
    }
    if (together.size >= crew) found.push({ at, members: together });
  }
  return found;
}
