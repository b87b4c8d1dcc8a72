"use client";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import { useState } from "react";
import { useChange } from "@/ui/use-change";
import { Columns, Field, FormFrame, MoneyField, useSavedNote, WholeField } from "./form-parts";
import type { SetupData } from "./setup-screen";

type Extra = SetupData["extras"][number];

export function ExtraForm({ extra, data, saved }: { extra: Extra | null; data: SetupData; saved: (id: number) => void }) {
  const [draft, setDraft] = useState<Omit<Extra, "id"> & { id: number | null }>(extra ?? { id: null, name: "", unit: "piece", priceMinor: 0, costMinor: 0, taxBp: 2100, active: true });
  const { send, busy, problem, wrong } = useChange("save-extra");
  const note = useSavedNote();
  const set = (change: Partial<typeof draft>) => setDraft({ ...draft, ...change });
  // What is sold for more than it costs, as a share of the cost.
  const markUp = draft.costMinor > 0 && draft.priceMinor >= 0 ? Math.round(((draft.priceMinor / (1 + (data.pricesIncludeTax ? draft.taxBp / 10_000 : 0)) - draft.costMinor) / draft.costMinor) * 100) : null;

  const save = async () => {
    const done = await send(draft);
    if (!done) return;
    note(draft.name);
    saved(done.value.id);
  };
  return (
    <FormFrame title={extra?.name ?? "New extra"} note="Bookings keep the price they were made at." problem={problem} busy={busy} onSave={() => void save()}>
      <Columns>
        <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
        <Field label="Unit" value={draft.unit} onChange={(e) => set({ unit: e.target.value })} wrong={wrong("/unit")} helperText="What one of it is: piece, metre" />
      </Columns>
      <Columns>
        <MoneyField currency={data.currency} label={`Price, ${data.currency}`} value={draft.priceMinor} onValue={(priceMinor) => set({ priceMinor })} wrong={wrong("/priceMinor")} helperText={markUp === null ? undefined : `Mark-up ${markUp}%`} />
        <MoneyField currency={data.currency} label={`It costs you, ${data.currency}`} value={draft.costMinor} onValue={(costMinor) => set({ costMinor })} wrong={wrong("/costMinor")} helperText="Without tax" />
        <WholeField label="Tax, %" value={draft.taxBp / 100} onValue={(percent) => set({ taxBp: percent * 100 })} wrong={wrong("/taxBp")} />
      </Columns>
      <FormControlLabel control={<Switch checked={draft.active} onChange={(e) => set({ active: e.target.checked })} />} label="Can be added" />
    </FormFrame>
  );
}
