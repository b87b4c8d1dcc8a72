import type { OperationInput } from "@/api/client";
import { Columns, Field } from "@/ui/form-parts";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

type Billing = NonNullable<OperationInput<"save-customer">["billing"]>;

export const billingWords = {
  job: "each job as soon as it is done",
  month: "all of a month on one invoice",
  hand: "when somebody makes the invoice",
} as const;
const taxWords: Record<Billing["taxKind"], string> = {
  standard: "as usual",
  "reverse charge": "reverse charge: they account for it",
  exempt: "exempt",
};

/** How somebody is billed, from when their days to pay are counted, and what tax they pay. */
export function BillingFields({
  billing,
  usual,
  ownDays,
  onBilling,
}: {
  billing: Billing;
  /** As the business has it; null where that is not known yet. */
  usual: keyof typeof billingWords | null;
  ownDays: boolean;
  onBilling: (billing: Billing) => void;
}) {
  const set = (part: Partial<Billing>) => onBilling({ ...billing, ...part });
  return (
    <>
      <TextField
        select
        label="Billed"
        value={billing.by ?? ""}
        onChange={(e) => set({ by: (e.target.value || null) as Billing["by"] })}
      >
        <MenuItem value="">as everybody{usual && `: ${billingWords[usual]}`}</MenuItem>
        {Object.entries(billingWords).map(([by, words]) => (
          <MenuItem key={by} value={by}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      {ownDays && <PaymentFromField from={billing.paymentFrom} onFrom={(paymentFrom) => set({ paymentFrom })} />}
      <Columns>
        <TextField
          select
          label="Tax"
          value={billing.taxKind}
          onChange={(e) => set({ taxKind: e.target.value as Billing["taxKind"] })}
        >
          {Object.entries(taxWords).map(([kind, words]) => (
            <MenuItem key={kind} value={kind}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <Field
          label="Their tax number"
          value={billing.taxNumber}
          onChange={(e) => set({ taxNumber: e.target.value })}
          slotProps={{ htmlInput: { maxLength: 60 } }}
        />
      </Columns>
    </>
  );
}

/** From when the days are counted in which an invoice is due. */
export const PaymentFromField = ({
  from,
  onFrom,
}: {
  from: Billing["paymentFrom"];
  onFrom: (from: Billing["paymentFrom"]) => void;
}) => (
  <TextField
    select
    label="Days to pay count from"
    value={from}
    onChange={(e) => onFrom(e.target.value as Billing["paymentFrom"])}
  >
    <MenuItem value="invoice">the invoice</MenuItem>
    <MenuItem value="end of month">the end of its month</MenuItem>
  </TextField>
);
