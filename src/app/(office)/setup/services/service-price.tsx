"use client";
import { flatPrice } from "@/core/catalogue/prices";
import { moneyWords } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { Columns, MoneyField, PercentField, TaxField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { ServiceDraft, SetupData } from "../data";

export interface About {
  draft: ServiceDraft;
  set: (change: Partial<ServiceDraft>) => void;
  data: SetupData;
  wrong: (path: string) => string | undefined;
}

const kinds: Record<ServiceDraft["priceKind"], string> = {
  fixed: "a price",
  from: "a price to begin from",
  quote: "on quote, told after a visit",
};

/** What it costs, how that is shown, and how it came about. */
export function ServicePrice({ draft, set, data, wrong }: About) {
  const [open, setOpen] = useState<"flat" | "history" | null>(null);
  const onQuote = draft.priceKind === "quote";
  return (
    <FormSection title="Price" said={onQuote ? "on quote" : moneyWords(draft.priceMinor, data.currency)}>
      <Columns>
        <TextField
          select
          label="It has"
          value={draft.priceKind}
          onChange={(e) =>
            set({
              priceKind: e.target.value as ServiceDraft["priceKind"],
              ...(e.target.value === "quote" && { deposit: { kind: "none", value: 0 } }),
            })
          }
        >
          {Object.entries(kinds).map(([kind, words]) => (
            <MenuItem key={kind} value={kind}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <MoneyField
          currency={data.currency}
          label={`${onQuote ? "The visit costs" : "Price"}, ${data.currency}`}
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
      <Box>
        <FormControlLabel
          control={<Switch checked={draft.showsPrice} onChange={(e) => set({ showsPrice: e.target.checked })} />}
          label="Customers see the price before they choose"
        />
        <Button size="small" aria-expanded={open === "flat"} onClick={() => setOpen(open === "flat" ? null : "flat")}>
          Work it out
        </Button>
        {draft.id !== null && (
          <Button
            size="small"
            aria-expanded={open === "history"}
            onClick={() => setOpen(open === "history" ? null : "history")}
          >
            What it cost before
          </Button>
        )}
      </Box>
      {open === "flat" && <FlatPrice draft={draft} set={set} data={data} wrong={wrong} />}
      {open === "history" && draft.id !== null && <History serviceId={draft.id} currency={data.currency} />}
      {!onQuote && (
        <Columns>
          <TextField
            select
            label="Deposit"
            value={draft.deposit.kind}
            onChange={(e) => set({ deposit: { kind: e.target.value as ServiceDraft["deposit"]["kind"], value: 0 } })}
            error={!!wrong("/deposit/kind")}
            helperText={wrong("/deposit/kind")}
          >
            <MenuItem value="none">none</MenuItem>
            <MenuItem value="fixed">a fixed amount</MenuItem>
            <MenuItem value="percent">a share of the price</MenuItem>
            <MenuItem value="full">the whole price</MenuItem>
          </TextField>
          {draft.deposit.kind === "fixed" && (
            <MoneyField
              currency={data.currency}
              label={`Deposit, ${data.currency}`}
              value={draft.deposit.value}
              onValue={(value) => set({ deposit: { kind: "fixed", value } })}
              wrong={wrong("/deposit/value")}
            />
          )}
          {draft.deposit.kind === "percent" && (
            <PercentField
              label="Deposit, %"
              value={draft.deposit.value}
              onValue={(value) => set({ deposit: { kind: "percent", value } })}
              wrong={wrong("/deposit/value")}
            />
          )}
          {draft.deposit.kind !== "full" && (
            <FormControlLabel
              control={<Switch checked={draft.mayPayAll} onChange={(e) => set({ mayPayAll: e.target.checked })} />}
              label="Customers may pay all of it while booking"
            />
          )}
        </Columns>
      )}
    </FormSection>
  );
}

/** A price of labour and materials, which says how it comes about. */
function FlatPrice({ draft, set, data }: About) {
  const [hour, setHour] = useState(6000);
  const [materials, setMaterials] = useState(0);
  const [markUp, setMarkUp] = useState(3000);
  const amount = (minor: number) => moneyWords(minor, data.currency);
  const inputs = [hour, materials, markUp, draft.minutes, draft.crew];
  const parts = inputs.every(Number.isFinite)
    ? flatPrice({
        labourMinorPerHour: hour,
        minutes: draft.beforeMinutes + draft.minutes + draft.afterMinutes,
        crew: draft.crew,
        materialsMinor: materials,
        markUpBp: markUp,
        taxBp: data.pricesIncludeTax ? draft.taxBp : 0,
      })
    : null;
  return (
    <Box
      role="group"
      aria-label="Work the price out"
      sx={{ bgcolor: ink.plaster, p: 4, borderRadius: "6px", display: "grid", gap: 3 }}
    >
      <Columns>
        <MoneyField
          currency={data.currency}
          label={`You ask for an hour, ${data.currency}`}
          value={hour}
          onValue={setHour}
          helperText="Without tax"
        />
        <MoneyField
          currency={data.currency}
          label={`Materials cost, ${data.currency}`}
          value={materials}
          onValue={setMaterials}
        />
        <PercentField label="Mark-up on them, %" value={markUp} onValue={setMarkUp} />
      </Columns>
      {parts && (
        <Box aria-live="polite">
          {durationWords(draft.beforeMinutes + draft.minutes + draft.afterMinutes)}
          {draft.crew > 1 && ` × ${draft.crew} people`} at {amount(hour)} an hour is {amount(parts.labourMinor)}
          {materials > 0 && `, materials with mark-up ${amount(parts.materialsMinor)}`}
          {parts.taxMinor > 0 && `, tax ${amount(parts.taxMinor)}`}: <b>{amount(parts.totalMinor)}</b>
        </Box>
      )}
      <Box>
        <Button
          variant="outlined"
          size="small"
          disabled={!parts}
          onClick={() => parts && set({ priceMinor: parts.totalMinor })}
        >
          Take this price
        </Button>
      </Box>
    </Box>
  );
}

function History({ serviceId, currency }: { serviceId: number; currency: string }) {
  const { data, problem } = useLive("price-history", { serviceId });
  if (problem) return <Box>{problem.sentence}</Box>;
  return (
    <Box component="ul" aria-label="Prices before" sx={{ m: 0, pl: 5 }}>
      {data?.map((change) => (
        <li key={`${change.at} ${change.afterMinor}`}>
          {new Date(change.at).toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" })}:{" "}
          {change.beforeMinor === null
            ? moneyWords(change.afterMinor, currency)
            : `${moneyWords(change.beforeMinor, currency)} to ${moneyWords(change.afterMinor, currency)}`}
          , {change.who}
        </li>
      ))}
    </Box>
  );
}
