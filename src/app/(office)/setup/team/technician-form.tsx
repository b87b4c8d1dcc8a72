"use client";
import { weekdayNames } from "@/core/time/words";
import { counted } from "@/core/words";
import { DateField } from "@/ui/date-field";
import { FormFrame, promisedNote, without } from "@/ui/form-frame";
import { Columns, Field, OptionalWholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { ImageField } from "@/ui/image-field";
import { useKeptForm } from "@/ui/use-kept-form";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { PlaceField } from "../business/place-field";
import type { SetupData, Technician } from "../data";
import { HoursField } from "../windows/hours-field";
import { LevelField, NamedField } from "../windows/named-field";
import { LimitsField } from "../windows/rule-fields";
import { Absences } from "./absences";
import { HueField } from "./hue-field";
import { Leaving } from "./leaving";
import { PayFields } from "./pay-fields";

type Draft = Omit<Technician, "id" | "active" | "promised" | "costMinor" | "dayHours" | "errands" | "timeOff"> & {
  id: number | null;
};

const freshHours = weekdayNames.slice(0, 5).flatMap((_, weekday) => [
  { weekday, opens: 480, closes: 720 },
  { weekday, opens: 780, closes: 1020 },
]);

const fresh = (data: SetupData): Draft => ({
  id: null,
  name: "",
  phone: "",
  mail: "",
  tells: "",
  kind: "employee",
  photo: null,
  hue: data.technicians.length % 8,
  offered: true,
  mostMinutes: null,
  start: data.business.place,
  end: data.business.place,
  pay: { kind: "none", amountMinor: 0, hours: 160, employerBp: 0 },
  skills: [],
  hours: freshHours,
  limits: { window: null, day: null, week: null },
  zones: [],
  services: [],
});

export function TechnicianForm({
  technician,
  data,
  saved,
}: {
  technician: Technician | null;
  data: SetupData;
  saved: (id?: number) => void;
}) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-technician",
    of: `technicians ${technician?.id ?? "new"}`,
    from: technician
      ? (without(technician, "active", "promised", "costMinor", "dayHours", "errands", "timeOff") as Draft)
      : fresh(data),
    input: (d) => d,
    name: (d) => d.name,
    saved: (value) => saved(value.id),
  });
  const { skills, pay } = draft;
  const setSkill = (skillName: string, change: Partial<(typeof skills)[number]>) =>
    set({ skills: skills.map((s) => (s.name === skillName ? { ...s, ...change } : s)) });
  const subcontractor = draft.kind === "subcontractor";
  return (
    <>
      <FormFrame
        title={technician?.name ?? "New technician"}
        note={promisedNote(technician?.promised ?? 0)}
        key={round}
        {...frame}
        more={technician && <Leaving technician={technician} saved={saved} />}
      >
        <Columns>
          <Field
            label="Name"
            value={draft.name}
            onChange={(e) => set({ name: e.target.value })}
            wrong={wrong("/name")}
          />
          <TextField
            select
            label="Works as"
            value={draft.kind}
            onChange={(e) => set({ kind: e.target.value as Draft["kind"] })}
            helperText={subcontractor ? "Works by link, without signing in" : undefined}
          >
            <MenuItem value="employee">employee</MenuItem>
            <MenuItem value="subcontractor">subcontractor</MenuItem>
          </TextField>
          <Field
            label="Phone"
            value={draft.phone}
            onChange={(e) => set({ phone: e.target.value })}
            wrong={wrong("/phone")}
          />
          <Field
            label="Email"
            value={draft.mail}
            onChange={(e) => set({ mail: e.target.value })}
            wrong={wrong("/mail")}
          />
          <Field
            label="Also told of their bookings"
            value={draft.tells}
            onChange={(e) => set({ tells: e.target.value })}
            wrong={wrong("/tells")}
            helperText="An email address, such as a foreman’s"
          />
        </Columns>
        <Box sx={{ display: "flex", gap: 8, flexWrap: "wrap" }}>
          <ImageField
            label="Photo"
            purpose="technician"
            round
            token={draft.photo}
            onToken={(photo) => set({ photo })}
          />
          <HueField label="Colour" hue={draft.hue} onHue={(hue) => set({ hue })} />
        </Box>
        <FormSection title="Skills and work" said={counted(skills.length, "skill")}>
          <Autocomplete
            multiple
            freeSolo
            options={data.skills}
            value={skills.map((s) => s.name)}
            onChange={(_, names) =>
              set({
                skills: names.map((n) => skills.find((s) => s.name === n) ?? { name: n, level: 1, validUntil: null }),
              })
            }
            renderInput={(params) => (
              <TextField {...params} label="Skills" helperText="Choose, or type a new one and press Enter" />
            )}
          />
          {skills.map((skill, i) => (
            <Box key={skill.name} sx={{ display: "flex", gap: 3, alignItems: "center", pl: 3 }}>
              <Box sx={{ width: 150 }}>{skill.name}</Box>
              <LevelField name={skill.name} level={skill.level} onLevel={(level) => setSkill(skill.name, { level })} />
              <DateField
                label="Valid until"
                clearable
                value={skill.validUntil}
                onValue={(validUntil) => setSkill(skill.name, { validUntil })}
                wrong={wrong(`/skills/${i}/validUntil`)}
                hint={skill.validUntil && skill.validUntil < data.today ? "Has ended" : undefined}
                width={200}
              />
            </Box>
          ))}
          <NamedField
            label="Zones"
            none="everywhere"
            options={data.zones}
            ids={draft.zones}
            onIds={(zones) => set({ zones })}
          />
          <NamedField
            label="Services"
            none="everything there are skills for"
            options={data.services}
            ids={draft.services}
            onIds={(services) => set({ services })}
          />
          <FormControlLabel
            control={<Switch checked={draft.offered} onChange={(e) => set({ offered: e.target.checked })} />}
            label={draft.offered ? "Customers may be offered this person" : "Only the office places this person"}
          />
        </FormSection>
        <FormSection title="Hours" said={`${weekHours(draft.hours)} h a week`}>
          <HoursField title="Weekly hours" hours={draft.hours} onHours={(hours) => set({ hours })} wrong={wrong} />
          <Columns>
            <OptionalWholeField
              label="Most minutes of work a day"
              value={draft.mostMinutes}
              onValue={(mostMinutes) => set({ mostMinutes })}
              wrong={wrong("/mostMinutes")}
              helperText="Without driving. Empty: no limit"
            />
          </Columns>
          <LimitsField limits={draft.limits} onLimits={(limits) => set({ limits })} wrong={wrong} />
        </FormSection>
        <FormSection title="Where the day begins and ends" said={draft.start.line.split(",")[0]}>
          <PlaceField
            label="Begins at"
            place={draft.start}
            onPlace={(start) => set(samePlace(draft.start, draft.end) ? { start, end: start } : { start })}
            wrong={wrong("/start")}
          />
          <PlaceField label="Ends at" place={draft.end} onPlace={(end) => set({ end })} wrong={wrong("/end")} />
        </FormSection>
        <PayFields
          pay={pay}
          onPay={(change) => set({ pay: { ...pay, ...change } })}
          currency={data.currency}
          wrong={wrong}
        />
      </FormFrame>
      {technician && <Absences technician={technician} today={data.today} saved={() => saved()} />}
    </>
  );
}

const samePlace = (a: { lng: number; lat: number }, b: { lng: number; lat: number }) =>
  a.lng === b.lng && a.lat === b.lat;

const weekHours = (hours: readonly { opens: number; closes: number }[]): number =>
  Math.round(hours.reduce((sum, span) => sum + span.closes - span.opens, 0) / 6) / 10;
