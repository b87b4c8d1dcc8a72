"use client";
import { markUpOf, priceFromMarkUp } from "@/core/catalogue/prices";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field, MoneyField, TaxField, WholeField } from "@/ui/form-parts";
import { useKeptForm } from "@/ui/use-kept-form";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import type { SetupData } from "../data";

type Extra = SetupData["extras"][number];
type Draft = Omit<Extra, "id"> & { id: number | null };

export function ExtraForm({
  extra,
  data,
  saved,
}: {
  extra: Extra | null;
  data: SetupData;
  saved: (id: number) => void;
}) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-extra",
    of: `extras ${extra?.id ?? "new"}`,
    from: (extra ?? {
      id: null,
      name: "",
      unit: "piece",
      priceMinor: 0,
      costMinor: 0,
      taxBp: data.business.taxRates[0]?.rateBp ?? 2100,
      active: true,
    }) as Draft,
    input: (d) => d,
    name: (d) => d.name,
    saved: (value) => saved(value.id),
  });
  const taxOn = data.pricesIncludeTax ? draft.taxBp : 0;
  const markUp = markUpOf(draft, taxOn);
  return (
    <FormFrame
      title={extra?.name ?? "New extra"}
      note="Bookings keep the price they were made at."
      key={round}
      {...frame}
    >
      <Columns>
        <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
        <Field
          label="Unit"
          value={draft.unit}
          onChange={(e) => set({ unit: e.target.value })}
          wrong={wrong("/unit")}
          helperText="What one of it is: piece, metre"
        />
      </Columns>
      <Columns>
        <MoneyField
          currency={data.currency}
          label={`It costs you, ${data.currency}`}
          value={draft.costMinor}
          onValue={(costMinor) => set({ costMinor })}
          wrong={wrong("/costMinor")}
          helperText="Without tax"
        />
        <WholeField
          label="Mark-up, %"
          value={markUp === null ? 0 : Math.round(markUp / 100)}
          onValue={(percent) =>
            Number.isFinite(percent) &&
            draft.costMinor > 0 &&
            set({ priceMinor: priceFromMarkUp(draft.costMinor, percent * 100, taxOn) })
          }
          disabled={draft.costMinor === 0}
          helperText={draft.costMinor === 0 ? "Say first what it costs" : "Works the price out"}
        />
        <MoneyField
          currency={data.currency}
          label={`Price, ${data.currency}`}
          value={draft.priceMinor}
          onValue={(priceMinor) => set({ priceMinor })}
          wrong={wrong("/priceMinor")}
          helperText={data.pricesIncludeTax ? "With tax" : "Without tax"}
        />
        <TaxField
          taxRates={data.business.taxRates}
          taxBp={draft.taxBp}
          onTax={(taxBp) => set({ taxBp })}
          wrong={wrong("/taxBp")}
        />
      </Columns>
      <FormControlLabel
        control={<Switch checked={draft.active} onChange={(e) => set({ active: e.target.checked })} />}
        label="Can be added"
      />
    </FormFrame>
  );
}
