"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";

/** An answer of a customer's with some words to it, where they like. */
export const SaidWith = ({
  name,
  label,
  words,
  onWords,
  button,
  disabled,
  outlined = false,
  onSay,
}: {
  /** Which answer it is. */
  name: string;
  label: string;
  words: string;
  onWords: (words: string) => void;
  button: string;
  disabled: boolean;
  /** Where another answer is the one we hope for. */
  outlined?: boolean;
  onSay: () => void;
}) => (
  <Box role="group" aria-label={name} sx={{ mt: 3, display: "grid", gap: 3 }}>
    <TextField
      label={label}
      size="medium"
      multiline
      minRows={2}
      value={words}
      onChange={(e) => onWords(e.target.value)}
      slotProps={{ htmlInput: { maxLength: 1000 } }}
    />
    <Button
      variant={outlined ? "outlined" : "contained"}
      disabled={disabled}
      onClick={onSay}
      sx={{ minHeight: 52, fontSize: 17 }}
    >
      {button}
    </Button>
  </Box>
);
