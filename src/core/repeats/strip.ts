import type { VisitState } from "../visits/states";

/** What became of a date of a repeat, or is to become of it. */
export type Mark = "done" | "moved" | "missed" | "skipped" | "asked" | "promised" | "forecast" | "no room";

/** Marks as a glyph and a word, so that colour is never the only sign. */
export const markWords: Record<Mark, { glyph: string; words: string }> = {
  done: { glyph: "●", words: "done" },
  moved: { glyph: "◆", words: "done on another day" },
  missed: { glyph: "✕", words: "did not take place" },
  skipped: { glyph: "⁄", words: "left out" },
  asked: { glyph: "?", words: "asked, not answered yet" },
  promised: { glyph: "∩", words: "promised" },
  forecast: { glyph: "◌", words: "forecast" },
  "no room": { glyph: "△", words: "finds no room" },
};

/** A date with what is known of it: the visit where there is one. */
export interface Marked {
  state: VisitState | null;
  /** Whether it stands on another day than its rule says. */
  elsewhere: boolean;
  placed: boolean;
  asked: boolean;
}

export function markOf({ state, elsewhere, placed, asked }: Marked): Mark {
  switch (state) {
    case null:
      return "skipped";
    case "done":
      return elsewhere ? "moved" : "done";
    case "no access":
    case "cancelled":
      return "missed";
    case "forecast":
    case "held":
      return asked ? "asked" : placed ? "forecast" : "no room";
    default:
      return "promised";
  }
}

/** How often what was due took place, of all marks of the past; null where nothing has been due yet. */
export function keptOf(past: readonly Mark[]): { kept: number; of: number } | null {
  const due = past.filter((mark) => mark === "done" || mark === "moved" || mark === "missed" || mark === "skipped");
  return due.length === 0
    ? null
    : { kept: due.filter((mark) => mark === "done" || mark === "moved").length, of: due.length };
}
