"use client";
import { counted } from "@/core/words";
import { moneyWords } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field, OptionalWholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { useKeptForm } from "@/ui/use-kept-form";
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import type { SetupData } from "../data";
import { ChecklistField } from "./checklist-field";
import { orderOf, WorkField } from "./work-field";

type Pattern = SetupData["jobPatterns"][number];
type Draft = Omit<Pattern, "id"> & { id: number | null };

const fresh: Draft = {
  id: null,
  name: "",
  items: [],
  note: "",
  checklist: [],
  minutes: null,
  crew: null,
  active: true,
};

/** A named piece of work: what is done, what the technician is told, and what its owner knows of time and people. */
export function PatternForm({
  pattern,
  data,
  saved,
}: {
  pattern: Pattern | null;
  data: SetupData;
  saved: (id: number) => void;
}) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-job-pattern",
    of: `patterns ${pattern?.id ?? "new"}`,
    from: (pattern ?? fresh) as Draft,
    input: (typed) => typed,
    name: (typed) => typed.name,
    saved: (value) => saved(value.id),
  });
  const order = orderOf(draft.items, data);
  return (
    <FormFrame
      key={round}
      title={pattern?.name ?? "New job pattern"}
      note="Used on the phone, in quotes and in repeats. What is agreed by it stays; forecasts of repeats follow what is changed here."
      {...frame}
    >
      <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
      <FormSection title="Work" said={counted(draft.items.length, "service")}>
        <WorkField items={draft.items} data={data} onItems={(items) => set({ items })} wrong={wrong} />
        <Box role="status" sx={{ fontSize: 14.5 }}>
          {order
            ? `By the catalogue ${moneyWords(order.totalMinor, data.currency)} and ${durationWords(order.minutes)}${order.crew > 1 ? ` for ${order.crew} people` : ""}.`
            : "Choose what is done."}
        </Box>
      </FormSection>
      <FormSection
        title="Time and people"
        said={draft.minutes === null && draft.crew === null ? "as its services" : "its own"}
        note="Empty: as its services have it together"
      >
        <Columns>
          <OptionalWholeField
            label="Minutes at the place"
            value={draft.minutes}
            onValue={(minutes) => set({ minutes })}
            wrong={wrong("/minutes")}
          />
          <OptionalWholeField
            label="People"
            value={draft.crew}
            onValue={(crew) => set({ crew })}
            wrong={wrong("/crew")}
          />
        </Columns>
      </FormSection>
      <FormSection title="Notes" said={draft.note ? "written" : "none"}>
        <Field
          label="What the technician is told"
          multiline
          minRows={3}
          value={draft.note}
          onChange={(e) => set({ note: e.target.value })}
          wrong={wrong("/note")}
        />
      </FormSection>
      <ChecklistField items={draft.checklist} onItems={(checklist) => set({ checklist })} wrong={wrong} />
      <FormControlLabel
        control={<Switch checked={draft.active} onChange={(e) => set({ active: e.target.checked })} />}
        label="Can be chosen"
      />
    </FormFrame>
  );
}
