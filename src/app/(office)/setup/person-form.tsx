"use client";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { roles, type Role } from "@/core/people/permissions";
import { useChange } from "@/ui/use-change";
import { Field, FormFrame, useSavedNote } from "./form-parts";
import type { SetupData } from "./setup-screen";

export function PersonForm({ person, data, saved }: { person: SetupData["people"][number] | null; data: SetupData; saved: (id?: number) => void }) {
  const [draft, setDraft] = useState(person ?? { id: null, name: "", mail: "", role: "dispatcher" as Role, technicianId: null as number | null, active: true, sessions: 0 });
  const [password, setPassword] = useState("");
  const { send, busy, problem, wrong } = useChange("save-person");
  const end = useChange("end-sessions");
  const note = useSavedNote();
  const set = (change: Partial<typeof draft>) => setDraft({ ...draft, ...change });

  const save = async () => {
    const { id, name, mail, role, technicianId, active } = draft;
    const done = await send({ id, name, mail, role, technicianId, active, ...(password && { password }) });
    if (!done) return;
    setPassword("");
    note(name);
    saved(done.value.id);
  };
  return (
    <FormFrame title={person?.name ?? "New person"} problem={problem} busy={busy} onSave={() => void save()}>
      <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
      <Field label="Mail" value={draft.mail} onChange={(e) => set({ mail: e.target.value })} wrong={wrong("/mail")} />
      <TextField select label="Role" value={draft.role} onChange={(e) => set({ role: e.target.value as Role })}>
        {Object.entries(roles).map(([role, { name }]) => <MenuItem key={role} value={role}>{name}</MenuItem>)}
      </TextField>
      <TextField select label="Technician" value={draft.technicianId ?? ""} onChange={(e) => set({ technicianId: Number(e.target.value) || null })} error={!!wrong("/technicianId")} helperText={wrong("/technicianId") ?? "Whose day this person sees on the phone"}>
        <MenuItem value="">nobody’s</MenuItem>
        {data.technicians.map((t) => <MenuItem key={t.id} value={t.id}>{t.name}</MenuItem>)}
      </TextField>
      <Field label={person ? "New password" : "Password"} type="password" autoComplete="new-password" value={password} onChange={(e) => setPassword(e.target.value)} wrong={wrong("/password")} helperText={person ? "Left empty, it stays" : "At least 10 characters"} />
      <FormControlLabel control={<Switch checked={draft.active} onChange={(e) => set({ active: e.target.checked })} />} label="May sign in" />
      {person && person.sessions > 0 && (
        <Button variant="outlined" sx={{ justifySelf: "start" }} onClick={() => void end.send({ personId: person.id }).then((done) => done && (note(`Ended ${done.value.ended} sessions; it`), saved()))}>
          End {person.sessions === 1 ? "the session" : `${person.sessions} sessions`}
        </Button>
      )}
    </FormFrame>
  );
}
