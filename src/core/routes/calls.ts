import { intersectSpans, joinSpans, type Span, subtractSpans } from "../time/spans";

/**
 * Calls: work that is done from wherever somebody is. A call stands at its minute, as an errand without a place does:
 * nothing else is done then, and driving pauses for it. So a day with calls is a day with gaps in its hours.
 */

/** The hours that are left around calls. Where a call ends the day, an empty span says until when the day goes on. */
export function withCalls(spans: readonly Span[], calls: readonly Span[]): Span[] {
  if (!calls.length || !spans.length) return [...spans];
  const left = subtractSpans(spans, calls);
  const end = Math.max(...calls.map(([, until]) => until));
  return left.length && left[left.length - 1]![1] >= end ? left : [...left, [end, end]];
}

/** The hours again when a call is taken out of them; `hours` is what is worked that day. */
export const withoutCall = (spans: readonly Span[], call: Span, hours: readonly Span[]): Span[] =>
  joinSpans([...spans, ...intersectSpans([call], hours)]);
