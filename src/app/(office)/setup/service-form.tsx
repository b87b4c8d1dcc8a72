"use client";
import Autocomplete from "@mui/material/Autocomplete";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { useChange } from "@/ui/use-change";
import { Columns, Field, FormFrame, MoneyField, promisedNote, useSavedNote, WholeField } from "./form-parts";
import type { SetupData } from "./setup-screen";

type Service = SetupData["services"][number];
const fresh = { id: null, code: "", name: "", category: "", description: "", priceMinor: 0, taxBp: 2100, minutes: 60, beforeMinutes: 0, afterMinutes: 0, crew: 1, skills: [] as string[], deposit: { kind: "none" as Service["deposit"]["kind"], value: 0 }, active: true };

export function ServiceForm({ service, data, saved }: { service: Service | null; data: SetupData; saved: (id: number) => void }) {
  const [draft, setDraft] = useState<Omit<typeof fresh, "id"> & { id: number | null }>(service ?? fresh);
  const { send, busy, problem, wrong } = useChange("save-service");
  const note = useSavedNote();
  const set = (change: Partial<typeof draft>) => setDraft({ ...draft, ...change });

  const save = async () => {
    const { id, code, name, category, description, priceMinor, taxBp, minutes, beforeMinutes, afterMinutes, crew, skills, deposit, active } = draft;
    const done = await send({ id, code, name, category, description, priceMinor, taxBp, minutes, beforeMinutes, afterMinutes, crew, skills, deposit, active });
    if (!done) return;
    note(name);
    saved(done.value.id);
  };
  return (
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
      <Autocomplete multiple freeSolo options={data.skills} value={draft.skills} onChange={(_, skills) => set({ skills })} renderInput={(params) => <TextField {...params} label="Skills needed" helperText="Choose, or type a new one and press Enter" />} />
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
    </FormFrame>
  );
}
