/** A stop of a day: its visit, and when its window opens (epoch minutes). */
export interface KnownStop {
  id: number;
  window_from: number;
}

/** What is another on a day than somebody knows: stops that are new, that have another time, and how many are gone. */
export interface DayChanges<S extends KnownStop> {
  fresh: S[];
  moved: S[];
  gone: number;
}

/** Null: all is as they know it; in which order the stops come is nothing to tell. */
export function dayChanges<S extends KnownStop>(known: readonly KnownStop[], now: readonly S[]): DayChanges<S> | null {
  const before = new Map(known.map(({ id, window_from }) => [id, window_from]));
  const fresh = now.filter(({ id }) => !before.has(id));
  const moved = now.filter(({ id, window_from }) => before.has(id) && before.get(id) !== window_from);
  const there = new Set(now.map(({ id }) => id));
  const gone = known.filter(({ id }) => !there.has(id)).length;
  return fresh.length + moved.length + gone === 0 ? null : { fresh, moved, gone };
}
