import Box from "@mui/material/Box";
import { ink } from "./palette";

/** The mark: a doorway. */
export function Mark({ size = 32 }: { size?: number }) {
  return (
    <svg width={size} height={size * 1.1} viewBox="0 0 30 33" aria-hidden="true">
      <path d="M2 33V14a13 13 0 0 1 26 0v19" fill="none" stroke={ink.pine} strokeWidth="3.4" />
      <path d="M9.5 33V19a5.5 5.5 0 0 1 11 0v14Z" fill={ink.ember} />
    </svg>
  );
}

/** A category's hue and two-letter code, so that colour is never the only sign. */
export function Code({ code, colour }: { code: string; colour: string }) {
  return (
    <Box
      component="span"
      sx={{
        display: "inline-block",
        minWidth: 26,
        px: 1,
        borderRadius: "4px",
        bgcolor: colour,
        color: "#fff",
        fontSize: 12,
        fontWeight: 700,
        textAlign: "center",
        lineHeight: "19px",
      }}
    >
      {code}
    </Box>
  );
}

/** States of a visit as a glyph and a word. */
export const stateGlyphs: Record<string, string> = {
  promised: "○",
  "on the way": "➜",
  "on site": "◐",
  done: "●",
  "no access": "⊘",
  cancelled: "✕",
  forecast: "◌",
  held: "◌",
};

export function VisitState({ state }: { state: string }) {
  return (
    <Box component="span" sx={{ whiteSpace: "nowrap", color: state === "no access" ? "error.main" : "text.primary" }}>
      <span aria-hidden="true">{stateGlyphs[state]}</span> {state}
    </Box>
  );
}
