import { type CommonStart, commonStarts, type Member } from "../routes/crew";
import type { Insertion } from "../routes/insertion";

/** Somebody who fits on every day of the work. */
export interface CrewCandidate {
  id: string;
  /** Minutes of work on the first day already: of crews that drive alike, the less loaded one goes. */
  load: number;
  /** One for each day of the work. */
  days: readonly Member[];
}

/** The same people throughout, and when they begin together on each day. */
export interface Crew {
  /** By technician: one insertion for each day. */
  members: Map<string, Insertion[]>;
  /** The common start of each day. */
  at: number[];
}

/** So many partial crews are looked at for one window; then the best one found so far is taken. */
const mostLooked = 20_000;

/**
 * The crew of `size` that drives least over all days of the work and can begin together on each of them; null
 * where there is none. With `wanted`, a crew with that technician goes before all others.
 *
 * For a given crew the days do not depend on one another, so crews are built up person by person with, for each
 * day, the starts they still have in common: depth first, cheapest people first, and left as soon as the cheapest
 * completion on every day costs no less than the best crew known (branch and bound; Land and Doig 1960). The cost
 * grows with the days added up and not multiplied.
 */
export function bestCrew(
  candidates: readonly CrewCandidate[],
  length: number,
  size: number,
  wanted: string | null = null,
): Crew | null {
  const startsByDay = (candidates[0]?.days ?? []).map((_, d) =>
    commonStarts(
      candidates.map((c) => c.days[d]!),
      length,
      size,
    ),
  );
  if (startsByDay.length === 0 || startsByDay.some((starts) => starts.length === 0)) return null;
  const ordered = inOrder(candidates, startsByDay, wanted);
  const days = startsByDay.map((starts) => starts.map((start) => tabulate(start, ordered, size)));
  const wantedFirst = wanted !== null && ordered[0]?.id === wanted;
  const chosen =
    (wantedFirst ? search(days, size, ordered.length, 0) : null) ?? search(days, size, ordered.length, null);
  if (!chosen) return null;
  const best = days.map((starts) => cheapestStart(starts, chosen));
  return {
    at: best.map((start) => start.at),
    members: new Map(chosen.map((i) => [ordered[i]!.id, best.map((start) => start.members.get(ordered[i]!.id)!)])),
  };
}

/** The wanted one, then those who drive least, then the less loaded, then by id. */
function inOrder(
  candidates: readonly CrewCandidate[],
  startsByDay: readonly CommonStart[][],
  wanted: string | null,
): CrewCandidate[] {
  const least = new Map(
    candidates.map(({ id }) => [
      id,
      startsByDay.reduce(
        (sum, starts) => sum + Math.min(...starts.map((s) => s.members.get(id)?.extraDriving ?? Infinity)),
        0,
      ),
    ]),
  );
  return candidates
    .filter(({ id }) => Number.isFinite(least.get(id)))
    .sort(
      (a, b) =>
        Number(b.id === wanted) - Number(a.id === wanted) ||
        least.get(a.id)! - least.get(b.id)! ||
        a.load - b.load ||
        (a.id < b.id ? -1 : 1),
    );
}

/** A common start as the search needs it. */
interface Start extends CommonStart {
  /** Extra driving of each candidate, in their order; Infinity for those who are not there. */
  driving: Float64Array;
  /** `cheapest[k][i]`: what the k cheapest of the candidates from i on drive together. */
  cheapest: Float64Array[];
}

function tabulate(start: CommonStart, ordered: readonly CrewCandidate[], size: number): Start {
  const driving = Float64Array.from(ordered, ({ id }) => start.members.get(id)?.extraDriving ?? Infinity);
  const cheapest = Array.from({ length: size + 1 }, () => new Float64Array(ordered.length + 1));
  const lowest: number[] = [];
  for (let i = ordered.length; i >= 0; i--) {
    if (i < ordered.length && Number.isFinite(driving[i]!)) {
      lowest.push(driving[i]!);
      lowest.sort((a, b) => a - b);
      if (lowest.length > size) lowest.pop();
    }
    for (let k = 1, sum = 0; k <= size; k++) cheapest[k]![i] = sum += lowest[k - 1] ?? Infinity;
  }
  return { ...start, driving, cheapest };
}

/** Starts that a partial crew still has in common on a day, with what it drives there. */
type Open = readonly { start: Start; driven: number }[];

/** Positions of the best crew in the candidates' order; `first` has to be among them. */
function search(days: readonly Start[][], size: number, count: number, first: number | null): number[] | null {
  let best: number[] | null = null;
  let least = Infinity;
  let looked = 0;

  const withOneMore = (open: readonly Open[], i: number): Open[] | null => {
    const next: Open[] = [];
    for (const starts of open) {
      const left = starts.flatMap(({ start, driven }) =>
        Number.isFinite(start.driving[i]!) ? [{ start, driven: driven + start.driving[i]! }] : [],
      );
      if (left.length === 0) return null;
      next.push(left);
    }
    return next;
  };
  /** What the crew costs at least when it is completed by candidates from `from` on. */
  const bound = (open: readonly Open[], missing: number, from: number): number => {
    let total = 0;
    for (const starts of open) {
      let day = Infinity;
      for (const { start, driven } of starts) day = Math.min(day, driven + start.cheapest[missing]![from]!);
      total += day;
    }
    return total;
  };
  const extend = (crew: number[], open: readonly Open[], from: number): void => {
    const missing = size - crew.length;
    if (missing === 0) {
      least = bound(open, 0, count);
      best = crew;
      return;
    }
    for (let i = from; i <= count - missing && looked < mostLooked; i++) {
      if (bound(open, missing, i) >= least) return;
      looked++;
      const next = withOneMore(open, i);
      if (next && bound(next, missing - 1, i + 1) < least) extend([...crew, i], next, i + 1);
      if (crew.length === 0 && first !== null) return;
    }
  };
  extend(
    [],
    days.map((starts) => starts.map((start) => ({ start, driven: 0 }))),
    0,
  );
  return best;
}

/** The soonest of the starts at which these drive least. */
function cheapestStart(starts: readonly Start[], crew: readonly number[]): Start {
  const drivingAt = (start: Start) => crew.reduce((sum, i) => sum + start.driving[i]!, 0);
  return starts.reduce((best, start) => (drivingAt(start) < drivingAt(best) ? start : best));
}
