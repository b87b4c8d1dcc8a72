/** A stretch of time `[open, close)` in whole minutes. */
export type Span = readonly [open: number, close: number];

/** Sorted, with overlapping and touching spans joined and empty ones dropped. */
export function joinSpans(spans: readonly Span[]): Span[] {
  const joined: [number, number][] = [];
  for (const [open, close] of [...spans].sort((a, b) => a[0] - b[0])) {
    if (close <= open) continue;
    const last = joined.at(-1);
    if (last && open <= last[1]) last[1] = Math.max(last[1], close);
    else joined.push([open, close]);
  }
  return joined;
}

/** What is left of `spans` when `holes` are taken out. */
export function subtractSpans(spans: readonly Span[], holes: readonly Span[]): Span[] {
  let rest = joinSpans(spans);
  for (const [from, to] of joinSpans(holes))
    rest = rest.flatMap(([open, close]): Span[] => {
      if (to <= open || from >= close) return [[open, close]];
      return [
        [open, Math.min(close, from)],
        [Math.max(open, to), close],
      ].filter((s): s is [number, number] => s[0]! < s[1]!);
    });
  return rest;
}

/** The parts that `a` and `b` share. */
export function intersectSpans(a: readonly Span[], b: readonly Span[]): Span[] {
  const shared: Span[] = [];
  for (const [from, to] of joinSpans(a))
    for (const [open, close] of joinSpans(b))
      if (Math.max(from, open) < Math.min(to, close)) shared.push([Math.max(from, open), Math.min(to, close)]);
  return shared;
}

export const minutesIn = (spans: readonly Span[]): number =>
  spans.reduce((sum, [open, close]) => sum + close - open, 0);
