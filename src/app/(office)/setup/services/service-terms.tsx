"use client";
import { Columns, MoneyField, PercentField, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { type About } from "./service-price";

/** What is asked where a visit falls through. */
export function ServiceTerms({ draft, set, data, wrong }: About) {
  const { late } = draft;
  return (
    <FormSection
      title="If it falls through"
      said={late.kind === "none" ? "costs nothing" : `${late.hours} h before`}
      note="Told to customers before they book."
    >
      <Columns>
        <TextField
          select
          label="Cancelled late"
          value={late.kind}
          onChange={(e) => set({ late: { ...late, kind: e.target.value as typeof late.kind, value: 0 } })}
        >
          <MenuItem value="none">costs nothing</MenuItem>
          <MenuItem value="fixed">costs an amount</MenuItem>
          <MenuItem value="percent">costs a share of the price</MenuItem>
        </TextField>
        {late.kind === "fixed" && (
          <MoneyField
            currency={data.currency}
            label={`Fee, ${data.currency}`}
            value={late.value}
            onValue={(value) => set({ late: { ...late, value } })}
            wrong={wrong("/late/value")}
          />
        )}
        {late.kind === "percent" && (
          <PercentField
            label="Fee, %"
            value={late.value}
            onValue={(value) => set({ late: { ...late, value } })}
            wrong={wrong("/late/value")}
          />
        )}
        {late.kind !== "none" && (
          <WholeField
            label="Late is, hours before"
            value={late.hours}
            onValue={(hours) => set({ late: { ...late, hours } })}
            wrong={wrong("/late/hours")}
          />
        )}
        <MoneyField
          currency={data.currency}
          label={`Nobody home costs, ${data.currency}`}
          value={draft.noAccessMinor}
          onValue={(noAccessMinor) => set({ noAccessMinor })}
          wrong={wrong("/noAccessMinor")}
        />
      </Columns>
    </FormSection>
  );
}
