"use client";
import { hues, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";

/** One of the theme's eight colours. */
export function HueField({ label, hue, onHue }: { label: string; hue: number; onHue: (hue: number) => void }) {
  return (
    <Box role="radiogroup" aria-label={label}>
      <Box sx={{ fontSize: 14, color: ink.ash, mb: 1 }}>{label}</Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        {hues.map((colour, i) => (
          <ButtonBase
            key={colour}
            role="radio"
            aria-checked={i === hue}
            aria-label={hueNames[i]}
            onClick={() => onHue(i)}
            sx={{
              width: 32,
              height: 36,
              borderRadius: "16px 16px 5px 5px",
              bgcolor: colour,
              outline: i === hue ? `2px solid ${ink.ink}` : "none",
              outlineOffset: 2,
              color: "#fff",
            }}
          >
            {i === hue ? "✓" : ""}
          </ButtonBase>
        ))}
      </Box>
    </Box>
  );
}
const hueNames = ["brown", "pine", "lake", "plum", "ochre", "sage", "brick", "slate"];
