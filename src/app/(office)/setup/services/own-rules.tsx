"use client";
import { counted } from "@/core/words";
import { Columns, Field, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import type { ServiceDraft as Draft, SetupData } from "../data";
import { HoursField } from "../windows/hours-field";
import { TechniciansField } from "../windows/named-field";
import { PatternField } from "../windows/pattern-field";
import { capacityWords, LimitsField } from "../windows/rule-fields";

/** What differs from the booking rules of the business. */
export function OwnRules({
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
    <FormSection title="Booking rules of its own" said={ownRulesSaid(draft)}>
      <Columns>
        <WholeField
          label="Days"
          value={draft.days}
          onValue={(days) => set({ days })}
          wrong={wrong("/days")}
          helperText="Working days in a row, with the same crew"
        />
        <WholeField
          label="Notice, hours"
          value={draft.noticeMinutes / 60}
          onValue={(hours) => set({ noticeMinutes: hours * 60 })}
          wrong={wrong("/noticeMinutes")}
          helperText="The longest of business, zone and service counts"
        />
        <TextField
          select
          label="Capacity"
          value={draft.capacity ?? "business"}
          onChange={(e) =>
            set({ capacity: e.target.value === "business" ? null : (e.target.value as Draft["capacity"]) })
          }
          helperText={draft.capacity ? capacityWords[draft.capacity].about : "As the business has it"}
        >
          <MenuItem value="business">As the business</MenuItem>
          {Object.entries(capacityWords).map(([mode, { name }]) => (
            <MenuItem key={mode} value={mode}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      </Columns>
      <Columns>
        <TextField
          select
          label="Customers may wish for a technician"
          value={draft.wish}
          onChange={(e) => set({ wish: e.target.value as Draft["wish"] })}
        >
          <MenuItem value="none">no</MenuItem>
          <MenuItem value="preferred">yes, if it can be</MenuItem>
          <MenuItem value="only">yes, and nobody else comes</MenuItem>
        </TextField>
        <TextField
          select
          label="Bookings"
          value={draft.confirm ? "confirm" : "itself"}
          onChange={(e) => set({ confirm: e.target.value === "confirm" })}
        >
          <MenuItem value="itself">are placed by themselves</MenuItem>
          <MenuItem value="confirm">are pencilled in, and a person confirms</MenuItem>
        </TextField>
        <Field
          label="Also told of bookings of it"
          value={draft.tells}
          onChange={(e) => set({ tells: e.target.value })}
          wrong={wrong("/tells")}
          helperText="An email address"
        />
      </Columns>
      <TechniciansField
        label="Technicians who do it"
        ids={draft.technicians}
        onIds={(technicians) => set({ technicians })}
        data={data}
      />
      <LimitsField limits={draft.limits} onLimits={(limits) => set({ limits })} wrong={wrong} />
      <FormControlLabel
        control={
          <Switch
            checked={draft.windows !== null}
            onChange={(e) => set({ windows: e.target.checked ? data.rules.windows : null })}
          />
        }
        label="Windows of its own"
      />
      {draft.windows && <PatternField parts={draft.windows} onParts={(windows) => set({ windows })} wrong={wrong} />}
      <FormControlLabel
        control={
          <Switch
            checked={draft.hours.length > 0}
            onChange={(e) =>
              set({
                hours: e.target.checked
                  ? [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 480, closes: 1020 }))
                  : [],
              })
            }
          />
        }
        label="Done at certain hours only"
      />
      {draft.hours.length > 0 && (
        <HoursField
          title="Hours of this service"
          hours={draft.hours}
          onHours={(hours) => set({ hours })}
          wrong={wrong}
        />
      )}
    </FormSection>
  );
}

/** How many of the rules differ from those of the business. */
function ownRulesSaid(draft: Draft): string {
  const own = [
    draft.windows !== null,
    draft.capacity !== null,
    draft.days > 1,
    draft.noticeMinutes > 0,
    draft.wish !== "none",
    draft.hours.length > 0,
    draft.technicians.length > 0,
    Object.values(draft.limits).some((most) => most !== null),
  ].filter(Boolean).length;
  return own === 0 ? "as the business" : counted(own, "rule");
}
