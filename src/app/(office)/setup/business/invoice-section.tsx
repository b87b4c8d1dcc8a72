import type { ViewOutput } from "@/api/client";
import { billingWords, PaymentFromField } from "@/app/(office)/customers/billing-fields";
import { dueWords } from "@/core/money/due";
import { nextNumber } from "@/core/money/numbers";
import { Columns, Field } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

type Billing = ViewOutput<"setup">["business"]["billing"];

/** How invoices are numbered, when they are made and when they are due. */
export function InvoiceSection({
  billing,
  paymentDays,
  onBilling,
  wrong,
}: {
  billing: Billing;
  paymentDays: number;
  onBilling: (billing: Billing) => void;
  wrong: (field: string) => string | undefined;
}) {
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
    </FormSection>
  );
}
