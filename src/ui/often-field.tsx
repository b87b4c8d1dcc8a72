"use client";
import { everyWords, type RepeatEvery, usualRepeats } from "@/core/repeats/rule";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

/** Whether what is agreed comes back, and how often. */
export function OftenField({
  often,
  onOften,
  wrong,
}: {
  often: RepeatEvery | null;
  onOften: (often: RepeatEvery | null) => void;
  wrong?: string;
}) {
  const words = often ? everyWords(often) : "";
  const known = usualRepeats.find((one) => everyWords(one) === words);
  const all = often && !known ? [...usualRepeats, often] : usualRepeats;
  return (
    <TextField
      select
      label="And it comes back"
      value={words}
      onChange={(e) => onOften(all.find((one) => everyWords(one) === e.target.value) ?? null)}
      error={!!wrong}
      helperText={wrong}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    >
      <MenuItem value="">no, just once</MenuItem>
      {all.map((one) => (
        <MenuItem key={everyWords(one)} value={everyWords(one)}>
          {everyWords(one)}
        </MenuItem>
      ))}
    </TextField>
  );
}
