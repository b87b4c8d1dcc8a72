"use client";
import { contrast, mended, textContrast } from "@/core/look/contrast";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";

/** A colour, with what it lacks in contrast said at once and mended by one press. */
export function ColourField({
  label,
  value,
  own,
  against,
  onValue,
  wrong,
}: {
  label: string;
  value: string;
  own: string;
  against: string;
  onValue: (colour: string) => void;
  wrong?: string;
}) {
  const colour = value || own;
  const readable = contrast(colour, against) >= textContrast;
  return (
    <Box>
      <TextField
        type="color"
        label={label}
        value={colour}
        onChange={(e) => onValue(e.target.value)}
        error={!readable || !!wrong}
        helperText={readable ? wrong : "Words could not be read like this."}
      />
      <Box sx={{ display: "flex", gap: 2 }}>
        {!readable && (
          <Button size="small" onClick={() => onValue(mended(colour, against))}>
            Make it readable
          </Button>
        )}
        {value && (
          <Button size="small" onClick={() => onValue("")}>
            As it was made
          </Button>
        )}
      </Box>
    </Box>
  );
}
