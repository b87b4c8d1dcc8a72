"use client";
import { useState } from "react";
import { useChange } from "@/ui/use-change";
import { Columns, Field, FormFrame, MoneyField, OptionalWholeField, promisedNote, TimeField, useSavedNote, WeekdaysField, WholeField, without } from "./form-parts";
import { LimitsField, TechniciansField } from "./rule-fields";
import type { SetupData } from "./setup-screen";

type Zone = SetupData["zones"][number];
type Draft = Omit<Zone, "id" | "postcodes" | "promised"> & { id: number | null };

export function ZoneForm({ zone, data, saved }: { zone: Zone | null; data: SetupData; saved: (id: number) => void }) {
  const { currency } = data;
  const [draft, setDraft] = useState<Draft>(zone ? without(zone, "postcodes", "promised") : { technicians: [], limits: { window: null, day: null, week: null }, windingPercent: null, kmh: null, id: null, name: "", weekdays: 31, serveFrom: 7 * 60, serveTo: 19 * 60, noticeMinutes: 0, surchargeMinor: 0, smallestOrderMinor: 0 });
  const [postcodes, setPostcodes] = useState(zone?.postcodes.join("\n") ?? "");
  const { send, busy, problem, wrong } = useChange("save-zone");
  const note = useSavedNote();
  const set = (change: Partial<Draft>) => setDraft({ ...draft, ...change });

  const save = async () => {
    const list = postcodes.split(/[\n,;]+/).map((p) => p.trim()).filter(Boolean);
    const done = await send({ ...draft, postcodes: list });
    if (!done) return;
    note(draft.name);
    saved(done.value.id);
  };
  return (
    <FormFrame title={zone?.name ?? "New zone"} note={promisedNote(zone?.promised ?? 0)} problem={problem} busy={busy} onSave={() => void save()}>
      <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
      <Field label="Postcodes" multiline minRows={3} value={postcodes} onChange={(e) => setPostcodes(e.target.value)} wrong={wrong("/postcodes")} helperText="One a line: MW 101, a range MW 101-109, or a beginning MW 1*" />
      <WeekdaysField label="Served on" value={draft.weekdays} onValue={(weekdays) => set({ weekdays })} wrong={wrong("/weekdays")} />
      <Columns>
        <TimeField label="From" value={draft.serveFrom} onValue={(serveFrom) => set({ serveFrom })} wrong={wrong("/serveFrom")} />
        <TimeField label="To" value={draft.serveTo} onValue={(serveTo) => set({ serveTo })} wrong={wrong("/serveTo")} />
        <WholeField label="Notice, hours" value={draft.noticeMinutes / 60} onValue={(hours) => set({ noticeMinutes: hours * 60 })} wrong={wrong("/noticeMinutes")} />
      </Columns>
      <Columns>
        <MoneyField currency={currency} label={`Surcharge, ${currency}`} value={draft.surchargeMinor} onValue={(surchargeMinor) => set({ surchargeMinor })} wrong={wrong("/surchargeMinor")} />
        <MoneyField currency={currency} label={`Smallest order, ${currency}`} value={draft.smallestOrderMinor} onValue={(smallestOrderMinor) => set({ smallestOrderMinor })} wrong={wrong("/smallestOrderMinor")} />
      </Columns>
      <TechniciansField label="Technicians who go there" ids={draft.technicians} onIds={(technicians) => set({ technicians })} data={data} />
      <LimitsField limits={draft.limits} onLimits={(limits) => set({ limits })} wrong={wrong} />
      <Columns>
        <OptionalWholeField label="Speed, km/h" value={draft.kmh} onValue={(kmh) => set({ kmh })} wrong={wrong("/kmh")} helperText={`For estimates where no roads are known. Empty: ${data.business.kmh}`} />
        <OptionalWholeField label="Winding, %" value={draft.windingPercent} onValue={(windingPercent) => set({ windingPercent })} wrong={wrong("/windingPercent")} helperText={`The way, of the straight line. Empty: ${data.business.windingPercent}`} />
      </Columns>
    </FormFrame>
  );
}
