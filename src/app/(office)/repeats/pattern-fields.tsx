"use client";
import type { OperationInput } from "@/api/client";
import { WholeField } from "@/ui/form-parts";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";

export interface NamedPattern {
  id: number;
  name: string;
}

/** One of the job patterns, or none of them. */
export const PatternField = ({
  label,
  none,
  patterns,
  value,
  onValue,
}: {
  label: string;
  /** What it is without one. */
  none: string;
  patterns: readonly NamedPattern[];
  value: number | null;
  onValue: (patternId: number | null) => void;
}) => (
  <TextField select label={label} value={value ?? 0} onChange={(e) => onValue(Number(e.target.value) || null)}>
    <MenuItem value={0}>{none}</MenuItem>
    {patterns.map(({ id, name }) => (
      <MenuItem key={id} value={id}>
        {name}
      </MenuItem>
    ))}
  </TextField>
);

export type Others = Pick<OperationInput<"set-repeat-work">, "firstPatternId" | "nth">;

/** What is done the first time, and every so many times; nothing to choose where there are no patterns. */
export function OtherWorkFields({
  patterns,
  value: { firstPatternId, nth },
  onValue,
  wrong,
}: {
  patterns: readonly NamedPattern[];
  value: Others;
  onValue: (others: Others) => void;
  wrong: (pointer: string) => string | undefined;
}) {
  if (patterns.length === 0) return null;
  return (
    <>
      <PatternField
        label="The first time"
        none="the same"
        patterns={patterns}
        value={firstPatternId}
        onValue={(id) => onValue({ firstPatternId: id, nth })}
      />
      <Stack direction="row" spacing={2}>
        <PatternField
          label="Every so many times"
          none="the same"
          patterns={patterns}
          value={nth?.patternId ?? null}
          onValue={(id) =>
            onValue({ firstPatternId, nth: id === null ? null : { every: nth?.every ?? 4, patternId: id } })
          }
        />
        {nth && (
          <WholeField
            label="Every so many"
            value={nth.every}
            onValue={(every) => onValue({ firstPatternId, nth: { ...nth, every } })}
            wrong={wrong("/nth/every")}
            helperText="4: the 4th, the 8th…"
          />
        )}
      </Stack>
    </>
  );
}
