"use client";
import { weekdayNames } from "@/core/time/words";
import { counted } from "@/core/words";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field, MoneyField, PercentField, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { InvoiceSection } from "./invoice-section";
import { ImageField } from "@/ui/image-field";
import { useKeptForm } from "@/ui/use-kept-form";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { SetupData } from "../data";
import { PlaceField } from "./place-field";

const currencies = typeof Intl.supportedValuesOf === "function" ? Intl.supportedValuesOf("currency") : ["EUR"];
const timeZones = typeof Intl.supportedValuesOf === "function" ? Intl.supportedValuesOf("timeZone") : ["Europe/Lisbon"];

/** Who the business is, how it writes, its taxes and texts, and what it counts with. */
const freshRate = { name: "Reduced", rateBp: 0, zeroKind: "zero rated", words: "" } as const;
const standardRate = { name: "Standard", rateBp: 2100 };

export function BusinessForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-business",
    of: "business",
    from: data.business,
    input: (b) => b,
    name: (b) => b.name,
    saved: () => saved(),
  });
  const rates = draft.taxRates;
  const setRate = (at: number, change: Partial<(typeof rates)[number]>) =>
    set({ taxRates: rates.map((r, i) => (i === at ? { ...r, ...change } : r)) });
  return (
    <FormFrame title="Business" key={round} {...frame}>
      <ImageField label="Logo" purpose="mark" token={draft.mark} onToken={(mark) => set({ mark })} />
      <Field label="Name" value={draft.name} onChange={(e) => set({ name: e.target.value })} wrong={wrong("/name")} />
      <PlaceField label="Address" place={draft.place} onPlace={(place) => set({ place })} wrong={wrong("/place")} />
      <Columns>
        <Field
          label="Phone"
          value={draft.phone}
          onChange={(e) => set({ phone: e.target.value })}
          wrong={wrong("/phone")}
        />
        <Field
          label="Email"
          value={draft.mail}
          onChange={(e) => set({ mail: e.target.value })}
          wrong={wrong("/mail")}
        />
        <Field
          label="Site"
          value={draft.site}
          onChange={(e) => set({ site: e.target.value })}
          wrong={wrong("/site")}
          placeholder="https://"
        />
      </Columns>
      <Columns>
        <Field
          label="Registration number"
          value={draft.registration}
          onChange={(e) => set({ registration: e.target.value })}
          wrong={wrong("/registration")}
        />
        <Field
          label="Tax number"
          value={draft.taxNumber}
          onChange={(e) => set({ taxNumber: e.target.value })}
          wrong={wrong("/taxNumber")}
        />
      </Columns>
      <FormSection title="How you write and count" said={draft.currency}>
        <Columns>
          {data.currencyStays ? (
            <TextField
              label="Currency"
              value={draft.currency}
              helperText="Stays: work is priced in it"
              slotProps={{ input: { readOnly: true } }}
            />
          ) : (
            <Autocomplete
              options={currencies}
              value={draft.currency}
              disableClearable
              onChange={(_, currency) => set({ currency })}
              renderInput={(params) => (
                <TextField {...params} label="Currency" error={!!wrong("/currency")} helperText={wrong("/currency")} />
              )}
            />
          )}
          <Autocomplete
            options={timeZones}
            value={draft.timeZone}
            disableClearable
            onChange={(_, timeZone) => set({ timeZone })}
            renderInput={(params) => (
              <TextField {...params} label="Time zone" error={!!wrong("/timeZone")} helperText={wrong("/timeZone")} />
            )}
          />
          <TextField
            select
            label="Weeks begin on"
            value={draft.weekStart}
            onChange={(e) => set({ weekStart: Number(e.target.value) })}
          >
            {weekdayNames.map((name, i) => (
              <MenuItem key={name} value={i}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="Clock"
            value={draft.clockHours}
            onChange={(e) => set({ clockHours: Number(e.target.value) as 12 | 24 })}
          >
            <MenuItem value={24}>24 hours, 13:30</MenuItem>
            <MenuItem value={12}>12 hours, 1:30 pm</MenuItem>
          </TextField>
        </Columns>
      </FormSection>
      <FormSection
        title="Tax"
        said={counted(rates.length, "rate")}
        note="Services and extras choose one of these rates. What was booked keeps its own."
      >
        <TextField
          select
          label="Prices are"
          value={draft.pricesIncludeTax ? "with" : "without"}
          onChange={(e) => set({ pricesIncludeTax: e.target.value === "with" })}
          sx={{ maxWidth: 260 }}
        >
          <MenuItem value="with">with tax included</MenuItem>
          <MenuItem value="without">without tax, which is added</MenuItem>
        </TextField>
        {rates.map((rate, at) => (
          <Box key={at} sx={{ display: "flex", gap: 3, alignItems: "flex-start" }}>
            <Field
              label="Rate is called"
              value={rate.name}
              onChange={(e) => setRate(at, { name: e.target.value })}
              wrong={wrong(`/taxRates/${at}/name`)}
              sx={{ maxWidth: 260 }}
            />
            <PercentField
              label="Tax, %"
              value={rate.rateBp}
              onValue={(rateBp) => setRate(at, { rateBp })}
              wrong={wrong(`/taxRates/${at}/rateBp`)}
              sx={{ width: 120 }}
            />
            <IconButton
              aria-label={`Remove the rate ${rate.name}`}
              onClick={() => set({ taxRates: rates.filter((_, i) => i !== at) })}
            >
              <Close fontSize="small" />
            </IconButton>
            {rate.rateBp === 0 && (
              <>
                <TextField
                  select
                  label="Such work is"
                  value={rate.zeroKind}
                  onChange={(e) => setRate(at, { zeroKind: e.target.value as typeof rate.zeroKind })}
                  sx={{ width: 160 }}
                >
                  <MenuItem value="zero rated">taxed at zero</MenuItem>
                  <MenuItem value="exempt">exempt</MenuItem>
                </TextField>
                <Field
                  label="Why, on invoices"
                  value={rate.words}
                  onChange={(e) => setRate(at, { words: e.target.value })}
                  wrong={wrong(`/taxRates/${at}/words`)}
                  sx={{ flexGrow: 1 }}
                />
              </>
            )}
          </Box>
        ))}
        <Box>
          <Button
            size="small"
            startIcon={<Add />}
            onClick={() => set({ taxRates: [...rates, { ...freshRate, ...(rates.length === 0 && standardRate) }] })}
          >
            Tax rate
          </Button>
        </Box>
      </FormSection>
      <FormSection
        title="Texts"
        said={draft.terms ? "with terms" : "no terms"}
        note="The terms stand at the front door before the last button, and on documents."
      >
        <Field
          label="Terms"
          multiline
          minRows={3}
          value={draft.terms}
          onChange={(e) => set({ terms: e.target.value })}
          wrong={wrong("/terms")}
        />
        <Field
          label="On quotes"
          multiline
          minRows={2}
          value={draft.quoteText}
          onChange={(e) => set({ quoteText: e.target.value })}
          wrong={wrong("/quoteText")}
        />
        <Field
          label="On invoices"
          multiline
          minRows={2}
          value={draft.invoiceText}
          onChange={(e) => set({ invoiceText: e.target.value })}
          wrong={wrong("/invoiceText")}
        />
      </FormSection>
      <InvoiceSection
        billing={draft.billing}
        paymentDays={draft.paymentDays}
        currency={draft.currency}
        services={data.services}
        onBilling={(billing) => set({ billing })}
        wrong={wrong}
      />
      <FormSection title="Payment" said={`due after ${counted(draft.paymentDays, "day")}`}>
        <Columns>
          <WholeField
            label="Invoices are due after, days"
            value={draft.paymentDays}
            onValue={(paymentDays) => set({ paymentDays })}
            wrong={wrong("/paymentDays")}
          />
        </Columns>
      </FormSection>
      <FormSection title="Driving and cost" said={draft.kmh ? `${draft.kmh} km/h` : undefined}>
        <Columns>
          <WholeField
            label="Driving margin, minutes"
            value={draft.travelMarginMinutes}
            onValue={(travelMarginMinutes) => set({ travelMarginMinutes })}
            wrong={wrong("/travelMarginMinutes")}
          />
          <WholeField
            label="Driving margin, %"
            value={draft.travelMarginPercent}
            onValue={(travelMarginPercent) => set({ travelMarginPercent })}
            wrong={wrong("/travelMarginPercent")}
          />
          <WholeField
            label="Speed, km/h"
            value={draft.kmh}
            onValue={(kmh) => set({ kmh })}
            wrong={wrong("/kmh")}
            helperText="Where no roads are known"
          />
          <WholeField
            label="Winding, %"
            value={draft.windingPercent}
            onValue={(windingPercent) => set({ windingPercent })}
            wrong={wrong("/windingPercent")}
            helperText="The way, of the straight line"
          />
          <MoneyField
            currency={data.currency}
            label={`An hour costs, ${data.currency}`}
            value={draft.labourCostMinor}
            onValue={(labourCostMinor) => set({ labourCostMinor })}
            wrong={wrong("/labourCostMinor")}
            helperText="Of work, where no pay is known"
          />
        </Columns>
      </FormSection>
      <FormSection
        title="What is kept"
        said={counted(draft.keepChangesDays, "day")}
        note="Who changed something, and when, is kept for ever. What it was before and after is kept for this long; of prices, for ever."
      >
        <WholeField
          label="Keep before and after, days"
          value={draft.keepChangesDays}
          onValue={(keepChangesDays) => set({ keepChangesDays })}
          wrong={wrong("/keepChangesDays")}
          sx={{ maxWidth: 260 }}
        />
      </FormSection>
    </FormFrame>
  );
}
