"use client";
import { type Comes, comesWords, waysToCome } from "@/core/repeats/flexible";
import { Columns, OptionalWholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { ServiceDraft as Draft, SetupData } from "../data";
import { RepeatsField } from "../windows/rule-fields";

/** How the service comes back: by a repeat, or by asking again some months after it was done once. */
export function ComesBack({
  draft,
  set,
  data,
  wrong,
}: {
  draft: Draft;
  set: (change: Partial<Draft>) => void;
  data: SetupData;
  wrong: (path: string) => string | undefined;
}) {
  return (
    <FormSection title="Coming back" said={said(draft)}>
      <Columns>
        <RepeatsField repeats={draft.repeats} onRepeats={(repeats) => set({ repeats })} />
        <TextField
          select
          label="A repeat of it comes"
          value={draft.comes}
          onChange={(e) => set({ comes: e.target.value as Comes })}
          helperText="Where nothing else is agreed with a customer"
        >
          {waysToCome.map((way) => (
            <MenuItem key={way} value={way}>
              {comesWords[way]}
            </MenuItem>
          ))}
        </TextField>
      </Columns>
      <Columns>
        <OptionalWholeField
          label="Promised, days before"
          value={draft.promiseDays}
          onValue={(promiseDays) => set({ promiseDays })}
          wrong={wrong("/promiseDays")}
          helperText={`A forecast becomes a visit then, and the customer is told; empty: ${data.rules.promiseDays}, as the business`}
        />
        <OptionalWholeField
          label="Done once, ask again in months"
          value={draft.againMonths}
          onValue={(againMonths) => set({ againMonths })}
          wrong={wrong("/againMonths")}
          helperText="Empty: not at all. It can be another number for each visit"
        />
      </Columns>
    </FormSection>
  );
}

const said = ({ repeats, comes, againMonths }: Draft): string =>
  [
    repeats.length ? "customers choose how often" : null,
    comes === "set" ? null : comesWords[comes],
    againMonths ? `asked again in ${againMonths} ${againMonths === 1 ? "month" : "months"}` : null,
  ]
    .filter(Boolean)
    .join(", ") || "when it is agreed";
