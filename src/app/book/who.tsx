"use client";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import type { Draft } from "./draft";

export function Who({ draft, wrong, onType }: { draft: Draft; wrong: (pointer: string) => string | undefined; onType: (part: Partial<Draft>) => void }) {
  const field = (name: "name" | "mail" | "phone") => ({
    value: draft[name], error: !!wrong(`/customer/${name}`), helperText: wrong(`/customer/${name}`), size: "medium" as const,
    onChange: (e: { target: { value: string } }) => onType({ [name]: e.target.value }),
  });
  return (
    <Stack spacing={4} sx={{ mt: 4 }}>
      <TextField label="Name" autoComplete="name" {...field("name")} />
      <TextField label="Mail" type="email" autoComplete="email" {...field("mail")} />
      <TextField label="Phone" type="tel" autoComplete="tel" {...field("phone")} />
      <TextField label="Anything we should know" multiline minRows={2} size="medium" value={draft.note} onChange={(e) => onType({ note: e.target.value })} error={!!wrong("/note")} helperText={wrong("/note") ?? "A gate code, a dog, where to park"} />
      <FormControlLabel control={<Checkbox checked={draft.reminders} onChange={(e) => onType({ reminders: e.target.checked })} />} label="Remind me the day before, by mail and text" />
    </Stack>
  );
}
