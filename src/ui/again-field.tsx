"use client";
import MenuItem from "@mui/material/MenuItem";
import TextField, { type TextFieldProps } from "@mui/material/TextField";

const usual = [1, 2, 3, 6, 12, 24, 36];

/** In how many months a customer is asked whether it is time again, once the visit is done. */
export function AgainField({
  months,
  onMonths,
  ...props
}: Omit<TextFieldProps, "value" | "onChange"> & { months: number | null; onMonths: (months: number | null) => void }) {
  const choices = [...new Set([...usual, ...(months ? [months] : [])])].sort((a, b) => a - b);
  return (
    <TextField
      {...props}
      select
      fullWidth
      label="Ask them again"
      value={months ?? 0}
      onChange={(e) => onMonths(Number(e.target.value) || null)}
    >
      <MenuItem value={0}>not at all</MenuItem>
      {choices.map((n) => (
        <MenuItem key={n} value={n}>
          {n === 1 ? "in 1 month" : `in ${n} months`}
        </MenuItem>
      ))}
    </TextField>
  );
}
