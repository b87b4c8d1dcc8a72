"use client";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { weekdayNames } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { useChange } from "@/ui/use-change";
import { Absences } from "./absences";
import { Field, FormFrame, useSavedNote } from "./form-parts";
import { HoursField, LevelField, LimitsField } from "./rule-fields";
import type { SetupData } from "./setup-screen";

type Technician = SetupData["technicians"][number];

export function TechnicianForm({ technician, data, saved }: { technician: Technician | null; data: SetupData; saved: (id?: number) => void }) {
  const [name, setName] = useState(technician?.name ?? "");
  const [phone, setPhone] = useState(technician?.phone ?? "");
  const [skills, setSkills] = useState(technician?.skills ?? []);
  const [hours, setHours] = useState(technician?.hours ?? weekdayNames.slice(0, 5).flatMap((_, weekday) => [{ weekday, opens: 480, closes: 720 }, { weekday, opens: 780, closes: 1020 }]));
  const [limits, setLimits] = useState(technician?.limits ?? { window: null, day: null, week: null });
  const { send, busy, problem, wrong } = useChange("save-technician");
  const note = useSavedNote();
  const setSkill = (skillName: string, change: Partial<(typeof skills)[number]>) => setSkills(skills.map((s) => (s.name === skillName ? { ...s, ...change } : s)));

  const save = async () => {
    const done = await send({ id: technician?.id ?? null, name, phone, skills, hours, limits });
    if (!done) return;
    note(name);
    saved(done.value.id);
  };
  return (
    <>
      <FormFrame title={technician?.name ?? "New technician"} problem={problem} busy={busy} onSave={() => void save()}>
        <Field label="Name" value={name} onChange={(e) => setName(e.target.value)} wrong={wrong("/name")} />
        <Field label="Phone" value={phone} onChange={(e) => setPhone(e.target.value)} wrong={wrong("/phone")} />
        <Autocomplete multiple freeSolo options={data.skills} value={skills.map((s) => s.name)} onChange={(_, names) => setSkills(names.map((n) => skills.find((s) => s.name === n) ?? { name: n, level: 1, validUntil: null }))} renderInput={(params) => <TextField {...params} label="Skills" helperText="Choose, or type a new one and press Enter" />} />
        {skills.map((skill, i) => (
          <Box key={skill.name} sx={{ display: "flex", gap: 3, alignItems: "center", pl: 3 }}>
            <Box sx={{ width: 150 }}>{skill.name}</Box>
            <LevelField name={skill.name} level={skill.level} onLevel={(level) => setSkill(skill.name, { level })} />
            <DateField label="Valid until" clearable value={skill.validUntil} onValue={(validUntil) => setSkill(skill.name, { validUntil })} wrong={wrong(`/skills/${i}/validUntil`)} hint={skill.validUntil && skill.validUntil < data.today ? "Has ended" : undefined} width={200} />
          </Box>
        ))}
        <HoursField title="Weekly hours" hours={hours} onHours={setHours} wrong={wrong} />
        <LimitsField limits={limits} onLimits={setLimits} wrong={wrong} />
      </FormFrame>
      {technician && <Absences technician={technician} today={data.today} saved={() => saved()} />}
    </>
  );
}
