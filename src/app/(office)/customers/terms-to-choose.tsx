"use client";
import type { ViewOutput } from "@/api/client";
import { upper } from "@/core/words";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

type Terms = ViewOutput<"merging-terms">["terms"];

/** Whose terms count, by group, where both have agreed something; nothing: those of whoever is kept. */
export type ChosenTerms = Record<string, number>;

/** The groups that the one who is kept takes over from the other. */
export const termsTaken = (terms: Terms, chosen: ChosenTerms, goneId: number) =>
  terms.map(({ group }) => group).filter((group) => chosen[group] === goneId);

/** What two customers have agreed differently, side by side. */
export function TermsToChoose({
  terms,
  sides,
  chosen,
  onChosen,
}: {
  terms: Terms;
  /** In the order of the words. */
  sides: readonly { id: number; name: string }[];
  chosen: ChosenTerms;
  onChosen: (chosen: ChosenTerms) => void;
}) {
  if (terms.length === 0) return null;
  return (
    <Box sx={{ gridColumn: "1 / -1", display: "grid", gap: 2 }}>
      <span style={{ color: ink.ash }}>Both have agreed something of their own: whose counts?</span>
      {terms.map(({ group, words }) => (
        <TextField
          key={group}
          select
          size="small"
          label={upper(group)}
          value={chosen[group] ?? ""}
          onChange={(e) => onChosen({ ...chosen, [group]: Number(e.target.value) })}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">of whoever is kept</MenuItem>
          {sides.map((side, i) => (
            <MenuItem key={side.id} value={side.id}>
              {side.name}: {words[i]}
            </MenuItem>
          ))}
        </TextField>
      ))}
    </Box>
  );
}
