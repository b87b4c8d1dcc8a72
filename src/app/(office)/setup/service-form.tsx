"use client";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import Autocomplete from "@mui/material/Autocomplete";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { Columns, Field, FormFrame, MoneyField, promisedNote, useSavedNote, WholeField, without } from "./form-parts";
import { capacityWords, HoursField, LevelField, LimitsField, PatternField, TechniciansField } from "./rule-fields";
import { QuestionsEditor } from "./questions-editor";
import { TryOut } from "./try-out";
import type { SetupData } from "./setup-screen";

type Service = SetupData["services"][number];
type Draft = Omit<Service, "id" | "hue" | "promised"> & { id: number | null };
const fresh: Draft = {
  id: null, code: "", name: "", category: "", description: "", priceMinor: 0, taxBp: 2100, minutes: 60, beforeMinutes: 0, afterMinutes: 0, crew: 1, skills: [], deposit: { kind: "none", value: 0 }, active: true,
  days: 1, noticeMinutes: 0, capacity: null, wish: "none", windows: null, hours: [], technicians: [], limits: { window: null, day: null, week: null }, questions: [], extras: [],
};

export function ServiceForm({ service, data, saved }: { service: Service | null; data: SetupData; saved: (id: number) => void }) {
  const [draft, setDraft] = useState<Draft>(() => (service ? without(service, "hue", "promised") : fresh));
  const { send, busy, problem, wrong } = useChange("save-service");
  const note = useSavedNote();
  const set = (change: Partial<typeof draft>) => setDraft({ ...draft, ...change });

  const save = async () => {
    const done = await send(draft);
    if (!done) return;
    note(draft.name);
    saved(done.value.id);
  };
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 270px", gap: 6, alignItems: "start" }}>
    <FormFrame title={service?.name ?? "New service"} note={promisedNote(service?.promised ?? 0)} problem={problem} busy={busy} onSave={() => void save()}>
      <Columns>
        <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
        <Field label="Code" value={draft.code} onChange={(e) => set({ code: e.target.value })} wrong={wrong("/code")} helperText="Two letters for the board" />
        <Autocomplete freeSolo options={[...new Set(data.services.map((s) => s.category))]} inputValue={draft.category} onInputChange={(_, category) => set({ category })} renderInput={(params) => <TextField {...params} label="Category" error={!!wrong("/category")} helperText={wrong("/category")} />} />
      </Columns>
      <Field label="What customers read" multiline minRows={2} value={draft.description} onChange={(e) => set({ description: e.target.value })} wrong={wrong("/description")} />
      <Columns>
        <MoneyField currency={data.currency} label={`Price, ${data.currency}`} value={draft.priceMinor} onValue={(priceMinor) => set({ priceMinor })} wrong={wrong("/priceMinor")} />
        <WholeField label="Tax, %" value={draft.taxBp / 100} onValue={(percent) => set({ taxBp: percent * 100 })} wrong={wrong("/taxBp")} />
        <WholeField label="Crew, people" value={draft.crew} onValue={(crew) => set({ crew })} wrong={wrong("/crew")} />
      </Columns>
      <Columns>
        <WholeField label="Minutes" value={draft.minutes} onValue={(minutes) => set({ minutes })} wrong={wrong("/minutes")} />
        <WholeField label="Minutes before" value={draft.beforeMinutes} onValue={(beforeMinutes) => set({ beforeMinutes })} wrong={wrong("/beforeMinutes")} />
        <WholeField label="Minutes after" value={draft.afterMinutes} onValue={(afterMinutes) => set({ afterMinutes })} wrong={wrong("/afterMinutes")} />
      </Columns>
      <Autocomplete multiple freeSolo options={data.skills} value={draft.skills.map((s) => s.name)} onChange={(_, names) => set({ skills: names.map((name) => draft.skills.find((s) => s.name === name) ?? { name, level: 1 }) })} renderInput={(params) => <TextField {...params} label="Skills needed" helperText="Choose, or type a new one and press Enter" />} />
      <Levels skills={draft.skills} onSkills={(skills) => set({ skills })} />
      <Columns>
        <TextField select label="Deposit" value={draft.deposit.kind} onChange={(e) => set({ deposit: { kind: e.target.value as Service["deposit"]["kind"], value: 0 } })}>
          <MenuItem value="none">none</MenuItem>
          <MenuItem value="fixed">a fixed amount</MenuItem>
          <MenuItem value="percent">a share of the price</MenuItem>
          <MenuItem value="full">the whole price</MenuItem>
        </TextField>
        {draft.deposit.kind === "fixed" && <MoneyField currency={data.currency} label={`Deposit, ${data.currency}`} value={draft.deposit.value} onValue={(value) => set({ deposit: { kind: "fixed", value } })} wrong={wrong("/deposit/value")} />}
        {draft.deposit.kind === "percent" && <WholeField label="Deposit, %" value={draft.deposit.value / 100} onValue={(percent) => set({ deposit: { kind: "percent", value: percent * 100 } })} wrong={wrong("/deposit/value")} />}
      </Columns>
      <FormControlLabel control={<Switch checked={draft.active} onChange={(e) => set({ active: e.target.checked })} />} label="Can be booked at the front door" />
      <Box component="section" aria-label="Questions" sx={{ borderTop: `1px solid ${ink.line}`, pt: 4 }}>
        <Typography variant="h3" sx={{ mb: 1 }}>Questions</Typography>
        <Typography sx={{ color: ink.ash, fontSize: 14, mb: 3 }}>Asked while booking. An answer can change the price, the minutes, the skills, the people and the parts.</Typography>
        <QuestionsEditor questions={draft.questions} onQuestions={(questions) => set({ questions })} data={data} wrong={wrong} />
      </Box>
      <Autocomplete multiple options={data.extras.filter((x) => x.active).map((x) => x.id)} value={draft.extras.map((x) => x.id)} onChange={(_, ids) => set({ extras: ids.map((id) => draft.extras.find((x) => x.id === id) ?? { id, most: 10 }) })} getOptionLabel={(id) => data.extras.find((x) => x.id === id)?.name ?? "an extra that is gone"} renderInput={(params) => <TextField {...params} label="Extras that can be added" helperText="Make them under Extras" />} />
      <OwnRules draft={draft} set={set} data={data} wrong={wrong} />
    </FormFrame>
    <TryOut service={draft} data={data} />
    </Box>
  );
}

/** Where a service asks for more than the first level of a skill. */
function Levels({ skills, onSkills }: { skills: Draft["skills"]; onSkills: (skills: Draft["skills"]) => void }) {
  return skills.map((skill) => (
    <Box key={skill.name} sx={{ display: "flex", gap: 3, alignItems: "center", pl: 3 }}>
      <Box sx={{ width: 150 }}>{skill.name}</Box>
      <LevelField name={skill.name} level={skill.level} onLevel={(level) => onSkills(skills.map((s) => (s === skill ? { ...s, level } : s)))} />
    </Box>
  ));
}

/** What differs from the booking rules of the business. */
function OwnRules({ draft, set, data, wrong }: { draft: Draft; set: (change: Partial<Draft>) => void; data: SetupData; wrong: (path: string) => string | undefined }) {
  return (
    <Box component="section" aria-label="Booking rules of this service" sx={{ display: "grid", gap: 4, borderTop: `1px solid ${ink.line}`, pt: 4 }}>
      <Typography variant="h3">Booking rules of its own</Typography>
      <Columns>
        <WholeField label="Days" value={draft.days} onValue={(days) => set({ days })} wrong={wrong("/days")} helperText="Working days in a row, with the same crew" />
        <WholeField label="Notice, hours" value={draft.noticeMinutes / 60} onValue={(hours) => set({ noticeMinutes: hours * 60 })} wrong={wrong("/noticeMinutes")} helperText="The longest of business, zone and service counts" />
        <TextField select label="Capacity" value={draft.capacity ?? "business"} onChange={(e) => set({ capacity: e.target.value === "business" ? null : (e.target.value as Draft["capacity"]) })} helperText={draft.capacity ? capacityWords[draft.capacity].about : "As the business has it"}>
          <MenuItem value="business">As the business</MenuItem>
          {Object.entries(capacityWords).map(([mode, { name }]) => <MenuItem key={mode} value={mode}>{name}</MenuItem>)}
        </TextField>
      </Columns>
      <Columns>
        <TextField select label="Customers may wish for a technician" value={draft.wish} onChange={(e) => set({ wish: e.target.value as Draft["wish"] })}>
          <MenuItem value="none">no</MenuItem>
          <MenuItem value="preferred">yes, if it can be</MenuItem>
          <MenuItem value="only">yes, and nobody else comes</MenuItem>
        </TextField>
      </Columns>
      <TechniciansField label="Technicians who do it" ids={draft.technicians} onIds={(technicians) => set({ technicians })} data={data} />
      <LimitsField limits={draft.limits} onLimits={(limits) => set({ limits })} wrong={wrong} />
      <FormControlLabel control={<Switch checked={draft.windows !== null} onChange={(e) => set({ windows: e.target.checked ? data.rules.windows : null })} />} label="Windows of its own" />
      {draft.windows && <PatternField parts={draft.windows} onParts={(windows) => set({ windows })} wrong={wrong} />}
      <FormControlLabel control={<Switch checked={draft.hours.length > 0} onChange={(e) => set({ hours: e.target.checked ? [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 480, closes: 1020 })) : [] })} />} label="Done at certain hours only" />
      {draft.hours.length > 0 && <HoursField title="Hours of this service" hours={draft.hours} onHours={(hours) => set({ hours })} wrong={wrong} />}
    </Box>
  );
}
