"use client";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { dateWords, weekdayNames } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { Field, FormFrame, TimeField, useSavedNote } from "./form-parts";
import type { SetupData } from "./setup-screen";

type Technician = SetupData["technicians"][number];

export function TechnicianForm({ technician, data, saved }: { technician: Technician | null; data: SetupData; saved: (id?: number) => void }) {
  const [name, setName] = useState(technician?.name ?? "");
  const [phone, setPhone] = useState(technician?.phone ?? "");
  const [skills, setSkills] = useState(technician?.skills ?? []);
  const [hours, setHours] = useState(technician?.hours ?? weekdayNames.slice(0, 5).flatMap((_, weekday) => [{ weekday, opens: 480, closes: 720 }, { weekday, opens: 780, closes: 1020 }]));
  const { send, busy, problem, wrong } = useChange("save-technician");
  const note = useSavedNote();
  const setSpan = (at: number, change: Partial<(typeof hours)[number]>) => setHours(hours.map((h, i) => (i === at ? { ...h, ...change } : h)));
  const setSkill = (skillName: string, change: Partial<(typeof skills)[number]>) => setSkills(skills.map((s) => (s.name === skillName ? { ...s, ...change } : s)));

  const save = async () => {
    const done = await send({ id: technician?.id ?? null, name, phone, skills, hours });
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
            <DateField label="Valid until" clearable value={skill.validUntil} onValue={(validUntil) => setSkill(skill.name, { validUntil })} wrong={wrong(`/skills/${i}/validUntil`)} hint={skill.validUntil && skill.validUntil < data.today ? "Has ended" : undefined} width={200} />
          </Box>
        ))}
        <Box role="group" aria-label="Weekly hours">
          <Typography variant="h3" sx={{ mb: 2 }}>Weekly hours</Typography>
          {weekdayNames.map((day, weekday) => (
            <Box key={day} sx={{ display: "flex", gap: 3, py: 1.5, borderTop: `1px solid ${ink.line}`, alignItems: "flex-start", minHeight: 52 }}>
              <Box sx={{ width: 100, pt: 2 }}>{day}</Box>
              <Box sx={{ flex: 1, display: "grid", gap: 2 }}>
                {hours.map((span, at) => span.weekday === weekday && (
                  <Box key={at}>
                    <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
                      <TimeField label={`${day} from`} value={span.opens} onValue={(opens) => setSpan(at, { opens })} sx={{ width: 140 }} />
                      <TimeField label={`${day} to`} value={span.closes} onValue={(closes) => setSpan(at, { closes })} sx={{ width: 140 }} />
                      <IconButton aria-label={`Remove this span of ${day}`} onClick={() => setHours(hours.filter((_, i) => i !== at))}><Close fontSize="small" /></IconButton>
                    </Box>
                    {(wrong(`/hours/${at}`) ?? wrong(`/hours/${at}/opens`) ?? wrong(`/hours/${at}/closes`)) && <Box sx={{ color: "error.main", fontSize: 13 }}>{wrong(`/hours/${at}`) ?? "A time, such as 9:00"}</Box>}
                  </Box>
                ))}
              </Box>
              <Button size="small" startIcon={<Add />} aria-label={`Add a span to ${day}`} onClick={() => setHours([...hours, { weekday, ...nextSpan(hours.filter((h) => h.weekday === weekday)) }])}>Span</Button>
            </Box>
          ))}
        </Box>
      </FormFrame>
      {technician && <TimeOff technician={technician} today={data.today} saved={() => saved()} />}
    </>
  );
}

const nextSpan = (spans: { closes: number }[]) => {
  const from = spans.length ? Math.min(1320, Math.max(...spans.map((s) => s.closes)) + 30) : 480;
  return { opens: from, closes: Math.min(1440, from + 240) };
};

function TimeOff({ technician, today, saved }: { technician: Technician; today: string; saved: () => void }) {
  const [first, setFirst] = useState(today);
  const [last, setLast] = useState(today);
  const [reason, setReason] = useState("Ill");
  const add = useChange("record-time-off");
  const remove = useChange("remove-time-off");
  const note = useSavedNote();
  const record = async () => {
    const done = await add.send({ technicianId: technician.id, firstDate: first, lastDate: last, reason });
    if (!done) return;
    note(done.value.freed ? `${reason}: ${done.value.freed} visits wait in the tray; it` : reason);
    saved();
  };
  return (
    <Box component="section" sx={{ mt: 8 }}>
      <Typography variant="h3" sx={{ mb: 2 }}>Time off</Typography>
      {technician.timeOff.map((o) => (
        <Box key={o.id} sx={{ display: "flex", alignItems: "center", py: 1, borderTop: `1px solid ${ink.line}` }}>
          <Box sx={{ flex: 1 }}>{o.reason}: {dateWords(o.first_date)}{o.last_date !== o.first_date && ` to ${dateWords(o.last_date)}`}</Box>
          <Button size="small" onClick={() => void remove.send({ id: o.id }).then((done) => done && saved())}>Remove</Button>
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 2, mt: 2, alignItems: "flex-start" }}>
        <DateField label="First day" value={first} onValue={(day) => day && setFirst(day)} wrong={add.wrong("/firstDate")} />
        <DateField label="Last day" value={last} onValue={(day) => day && setLast(day)} wrong={add.wrong("/lastDate")} />
        <Field label="Reason" value={reason} onChange={(e) => setReason(e.target.value)} wrong={add.wrong("/reason")} />
        <Button variant="outlined" disabled={add.busy} onClick={() => void record()} sx={{ height: 40, flex: "none" }}>Add</Button>
      </Box>
    </Box>
  );
}
