import { markWords } from "@/core/repeats/strip";

/** What the marks of a year mean. */
export const StripLegend = () =>
  Object.values(markWords).map(({ glyph, words }) => (
    <span key={words} style={{ whiteSpace: "nowrap", marginRight: 12 }}>
      <b>{glyph}</b> {words}
    </span>
  ));
