import { Refusal } from "@/core/problems";

/** Refuses spans of one day that are out of order, overlap or end before they begin; names the first of them. */
export function refuseOddSpans(spans: readonly { opens: number; closes: number }[]): void {
  const odd = spans.findIndex((span, i) => span.closes <= span.opens || (i > 0 && span.opens < spans[i - 1]!.closes));
  if (odd >= 0)
    throw new Refusal("invalid-input", {
      fields: { [`/spans/${odd}`]: "Spans come in order, do not overlap and end after they begin." },
    });
  const long = spans.findIndex((span) => span.closes > span.opens + 1440);
  if (long >= 0)
    throw new Refusal("invalid-input", { fields: { [`/spans/${long}`]: "A span is a day long at the most." } });
}
