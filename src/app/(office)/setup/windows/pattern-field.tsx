"use client";
import type { PatternPart } from "@/core/windows/patterns";
import { TimeField, WeekdaysField, WholeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { type Wrong } from "./rule-fields";

/** Fields that several forms of set-up share: windows, limits, hours, named technicians, capacity. */
const kinds: Record<PatternPart["kind"], string> = {
  window: "One window",
  stepping: "Overlapping windows",
  exact: "Exact times",
  continuous: "Right after the visit before",
};

const partOf = (kind: PatternPart["kind"], { weekdays, from, to }: PatternPart): PatternPart => {
  const part = { weekdays, from, to };
  switch (kind) {
    case "stepping":
      return { kind, ...part, length: 120, step: 30 };
    case "exact":
      return { kind, ...part, step: 60 };
    default:
      return { kind, ...part };
  }
};

export function PatternField({
  parts,
  onParts,
  wrong,
}: {
  parts: PatternPart[];
  onParts: (parts: PatternPart[]) => void;
  wrong: Wrong;
}) {
  const set = (at: number, part: PatternPart) => onParts(parts.map((p, i) => (i === at ? part : p)));
  const last = parts.at(-1);
  return (
    <Box role="group" aria-label="Windows">
      {parts.map((part, at) => (
        <Box key={at} sx={{ py: 2, borderTop: `1px solid ${ink.line}` }}>
          <Box sx={{ display: "flex", gap: 3, alignItems: "flex-end", flexWrap: "wrap" }}>
            <TextField
              select
              label="Kind"
              value={part.kind}
              onChange={(e) => set(at, partOf(e.target.value as PatternPart["kind"], part))}
              sx={{ width: 220 }}
            >
              {Object.entries(kinds).map(([kind, words]) => (
                <MenuItem key={kind} value={kind}>
                  {words}
                </MenuItem>
              ))}
            </TextField>
            <TimeField
              label={part.kind === "exact" ? "First" : "From"}
              value={part.from}
              onValue={(from) => set(at, { ...part, from })}
              sx={{ width: 100 }}
            />
            <TimeField
              label={part.kind === "exact" ? "Last" : "To"}
              value={part.to}
              after={part.from}
              onValue={(to) => set(at, { ...part, to })}
              sx={{ width: 100 }}
            />
            {part.kind === "stepping" && (
              <WholeField
                label="Minutes long"
                value={part.length}
                onValue={(length) => set(at, { ...part, length })}
                sx={{ width: 120 }}
                wrong={wrong(`/windows/${at}/length`)}
              />
            )}
            {(part.kind === "stepping" || part.kind === "exact") && (
              <WholeField
                label="Every, minutes"
                value={part.step}
                onValue={(step) => set(at, { ...part, step })}
                sx={{ width: 130 }}
                wrong={wrong(`/windows/${at}/step`)}
              />
            )}
            <WeekdaysField
              label="On"
              value={part.weekdays}
              onValue={(weekdays) => set(at, { ...part, weekdays })}
              wrong={wrong(`/windows/${at}/weekdays`)}
            />
            <IconButton aria-label="Remove this window" onClick={() => onParts(parts.filter((_, i) => i !== at))}>
              <Close fontSize="small" />
            </IconButton>
          </Box>
          {wrong(`/windows/${at}`) && (
            <Box sx={{ color: "error.main", fontSize: 13, mt: 1 }}>{wrong(`/windows/${at}`)}</Box>
          )}
        </Box>
      ))}
      <Button
        startIcon={<Add />}
        onClick={() =>
          onParts([
            ...parts,
            {
              kind: "window",
              weekdays: last?.weekdays ?? 31,
              from: last ? Math.min(1320, last.to) : 540,
              to: last ? Math.min(1440, last.to + 120) : 660,
            },
          ])
        }
      >
        Window
      </Button>
      {wrong("/windows") && <Box sx={{ color: "error.main", fontSize: 13 }}>{wrong("/windows")}</Box>}
    </Box>
  );
}
