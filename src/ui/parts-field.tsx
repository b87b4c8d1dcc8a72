import { moneyWords } from "@/core/money/amounts";
import { splitEvenly } from "@/core/money/instalments";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

/** In how many monthly parts a sum is paid: as a whole, or in up to so many as are offered. */
export function PartsField({
  minor,
  most,
  currency,
  parts,
  onParts,
  problem,
}: {
  minor: number;
  most: number;
  currency: string;
  parts: number;
  onParts: (parts: number) => void;
  problem?: string | undefined;
}) {
  const words = (n: number) =>
    n === 1
      ? `At once: ${moneyWords(minor, currency)}`
      : `In ${n} monthly parts of ${moneyWords(splitEvenly(minor, n, "2027-01-01").at(-1)!.amountMinor, currency)}`;
  return (
    <TextField
      select
      fullWidth
      label="How you pay"
      value={parts}
      onChange={(e) => onParts(Number(e.target.value))}
      error={!!problem}
      helperText={problem}
    >
      {Array.from({ length: most }, (_, i) => (
        <MenuItem key={i} value={i + 1}>
          {words(i + 1)}
        </MenuItem>
      ))}
    </TextField>
  );
}
