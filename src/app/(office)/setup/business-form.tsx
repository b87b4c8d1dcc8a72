"use client";
import { useState } from "react";
import { useChange } from "@/ui/use-change";
import { Columns, Field, FormFrame, MoneyField, TimeField, useSavedNote, WholeField } from "./form-parts";
import type { SetupData } from "./setup-screen";

export function BusinessForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const [draft, setDraft] = useState(data.business);
  const { send, busy, problem, wrong } = useChange("save-business");
  const note = useSavedNote();
  const set = (change: Partial<typeof draft>) => setDraft({ ...draft, ...change });
  return (
    <FormFrame title="Business" problem={problem} busy={busy} onSave={() => void send(draft).then((done) => done && (note(draft.name), saved()))}>
      <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
      <Columns>
        <Field label="Phone" value={draft.phone} onChange={(e) => set({ phone: e.target.value })} wrong={wrong("/phone")} />
        <Field label="Mail" value={draft.mail} onChange={(e) => set({ mail: e.target.value })} wrong={wrong("/mail")} />
      </Columns>
      <Columns>
        <WholeField label="Invoices are due after, days" value={draft.paymentDays} onValue={(paymentDays) => set({ paymentDays })} wrong={wrong("/paymentDays")} />
        <WholeField label="Remind before a visit, hours" value={draft.reminderHours} onValue={(reminderHours) => set({ reminderHours })} wrong={wrong("/reminderHours")} />
      </Columns>
      <Columns>
        <TimeField label="Write to customers from" value={draft.messageFrom} onValue={(messageFrom) => set({ messageFrom })} wrong={wrong("/messageFrom")} />
        <TimeField label="Until" value={draft.messageTo} onValue={(messageTo) => set({ messageTo })} wrong={wrong("/messageTo")} />
      </Columns>
      <Columns>
        <WholeField label="Driving margin, minutes" value={draft.travelMarginMinutes} onValue={(travelMarginMinutes) => set({ travelMarginMinutes })} wrong={wrong("/travelMarginMinutes")} />
        <WholeField label="Driving margin, %" value={draft.travelMarginPercent} onValue={(travelMarginPercent) => set({ travelMarginPercent })} wrong={wrong("/travelMarginPercent")} />
      </Columns>
      <Columns>
        <WholeField label="Speed, km/h" value={draft.kmh} onValue={(kmh) => set({ kmh })} wrong={wrong("/kmh")} helperText="For estimates where no roads are known" />
        <WholeField label="Winding, %" value={draft.windingPercent} onValue={(windingPercent) => set({ windingPercent })} wrong={wrong("/windingPercent")} helperText="The way, of the straight line" />
        <MoneyField currency={data.currency} label={`An hour of work costs, ${data.currency}`} value={draft.labourCostMinor} onValue={(labourCostMinor) => set({ labourCostMinor })} wrong={wrong("/labourCostMinor")} helperText="All in, for margins" />
      </Columns>
    </FormFrame>
  );
}
