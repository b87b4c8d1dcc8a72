import type { ViewOutput } from "@/api/client";
import { billingWords, PaymentFromField } from "@/app/(office)/customers/billing-fields";
import { dueWords } from "@/core/money/due";
import { nextNumber } from "@/core/money/numbers";
import { Columns, Field, MoneyField, PercentField, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { TextBlocks } from "./text-blocks";

type Billing = ViewOutput<"setup">["business"]["billing"];

/** Days as they are typed, in order, each once. */
const daysTyped = (text: string): number[] =>
  [...new Set(text.split(/[^\d]+/).map(Number))].filter((day) => day > 0).sort((a, b) => a - b);

/** How invoices are numbered, when they are made and when they are due. */
export function InvoiceSection({
  billing,
  paymentDays,
  currency,
  services,
  onBilling,
  wrong,
}: {
  billing: Billing;
  paymentDays: number;
  currency: string;
  services: readonly { id: number; name: string }[];
  onBilling: (billing: Billing) => void;
  wrong: (field: string) => string | undefined;
}) {
  const [followUps, setFollowUps] = useState(billing.quoteFollowUps.join(", "));
  const set = (part: Partial<Billing>) => onBilling({ ...billing, ...part });
  const like = (prefix: string) => `Such as ${nextNumber(prefix, 2027, 11).label}`;
  return (
    <FormSection
      title="Invoices"
      said={`like ${nextNumber(billing.invoicePrefix, 2027, 11).label}, due ${dueWords({ days: paymentDays, from: billing.paymentFrom })}`}
      note="Numbers begin anew with each year and have no gaps. What was sent keeps its number."
    >
      <Columns>
        <Field
          label="Invoice numbers begin with"
          value={billing.invoicePrefix}
          onChange={(e) => set({ invoicePrefix: e.target.value })}
          wrong={wrong("/billing/invoicePrefix")}
          helperText={like(billing.invoicePrefix)}
        />
        <Field
          label="Credit note numbers begin with"
          value={billing.creditPrefix}
          onChange={(e) => set({ creditPrefix: e.target.value })}
          wrong={wrong("/billing/creditPrefix")}
          helperText={like(billing.creditPrefix)}
        />
        <TextField
          select
          label="Customers are billed"
          value={billing.by}
          onChange={(e) => set({ by: e.target.value as Billing["by"] })}
        >
          {Object.entries(billingWords).map(([by, words]) => (
            <MenuItem key={by} value={by}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <PaymentFromField from={billing.paymentFrom} onFrom={(paymentFrom) => set({ paymentFrom })} />
      </Columns>
      <Field
        label="Bank account for transfers"
        value={billing.bankAccount}
        onChange={(e) => set({ bankAccount: e.target.value })}
        wrong={wrong("/billing/bankAccount")}
        helperText="Printed at the foot of invoices"
      />
      <Field
        label="On invoices to customers who are exempt from tax"
        value={billing.exemptWords}
        onChange={(e) => set({ exemptWords: e.target.value })}
        wrong={wrong("/billing/exemptWords")}
      />
      <Columns>
        <WholeField
          label="Late fee, days after it was due"
          value={billing.lateFeeDays ?? 0}
          onValue={(days) => set({ lateFeeDays: days === 0 ? null : days })}
          wrong={wrong("/billing/lateFeeDays")}
          helperText={billing.lateFeeDays === null ? "0: no late fee" : undefined}
        />
        <MoneyField
          currency={currency}
          label={`Late fee, ${currency}`}
          value={billing.lateFeeMinor}
          onValue={(lateFeeMinor) => set({ lateFeeMinor })}
          wrong={wrong("/billing/lateFeeMinor")}
        />
        <PercentField
          label="and of what is open, %"
          value={billing.lateFeeBp}
          onValue={(lateFeeBp) => set({ lateFeeBp })}
          wrong={wrong("/billing/lateFeeBp")}
        />
        <MoneyField
          currency={currency}
          label={`When a bank takes a payment back, ${currency}`}
          value={billing.returnFeeMinor}
          onValue={(returnFeeMinor) => set({ returnFeeMinor })}
          wrong={wrong("/billing/returnFeeMinor")}
          helperText={billing.returnFeeMinor === 0 ? "0: nothing" : "On an invoice of its own"}
        />
      </Columns>
      <Columns>
        <WholeField
          label="Customers may pay in monthly parts, at most"
          value={billing.partsMost}
          onValue={(most) => set({ partsMost: Math.min(12, Math.max(1, most)) })}
          wrong={wrong("/billing/partsMost")}
          helperText={billing.partsMost === 1 ? "1: as a whole, unless you split an invoice yourself" : undefined}
        />
        <MoneyField
          currency={currency}
          label={`from a sum of, ${currency}`}
          value={billing.partsFromMinor}
          onValue={(partsFromMinor) => set({ partsFromMinor })}
          wrong={wrong("/billing/partsFromMinor")}
        />
      </Columns>
      <TextField
        select
        label="First and last month of a price by the month"
        value={billing.partMonths}
        onChange={(e) => set({ partMonths: e.target.value as "whole" | "days" })}
        helperText="Where it begins or ends within a month"
      >
        <MenuItem value="whole">are billed whole</MenuItem>
        <MenuItem value="days">are billed by their days</MenuItem>
      </TextField>
      <Field
        label="Ask again about a quote, days after it was sent"
        value={followUps}
        onChange={(e) => {
          setFollowUps(e.target.value);
          set({ quoteFollowUps: daysTyped(e.target.value) });
        }}
        wrong={wrong("/billing/quoteFollowUps")}
        helperText="Such as 3, 10; empty: never"
      />
      <FormControlLabel
        control={<Checkbox checked={billing.tips} onChange={(e) => set({ tips: e.target.checked })} />}
        label="Customers may give a tip when they pay"
      />
      <TextBlocks
        blocks={billing.textBlocks}
        services={services}
        onBlocks={(textBlocks) => set({ textBlocks })}
        wrong={wrong}
      />
    </FormSection>
  );
}
