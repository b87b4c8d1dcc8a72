"use client";
import { moneyWords } from "@/core/money/amounts";
import { loadedCost, type Pay } from "@/core/money/pay";
import { Columns, MoneyField, PercentField, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

/** What somebody is paid, and what an hour then costs, all in. */
export function PayFields({
  pay,
  onPay,
  currency,
  wrong,
}: {
  pay: Pay;
  onPay: (change: Partial<Pay>) => void;
  currency: string;
  wrong: (path: string) => string | undefined;
}) {
  const cost =
    Number.isFinite(pay.amountMinor) && Number.isFinite(pay.employerBp) && Number.isFinite(pay.hours)
      ? loadedCost(pay)
      : null;
  return (
    <FormSection
      title="Pay"
      said={pay.kind === "none" ? "not said" : moneyWords(pay.amountMinor, currency)}
      note="Seen by those who change the set-up. It makes margins right, and nothing else."
    >
      <Columns>
        <TextField
          select
          label="Paid"
          value={pay.kind}
          onChange={(e) => onPay({ kind: e.target.value as Pay["kind"] })}
        >
          <MenuItem value="none">not said</MenuItem>
          <MenuItem value="hourly">by the hour</MenuItem>
          <MenuItem value="salary">a salary a month</MenuItem>
        </TextField>
        {pay.kind !== "none" && (
          <MoneyField
            currency={currency}
            label={`${pay.kind === "hourly" ? "An hour" : "A month"}, ${currency}`}
            value={pay.amountMinor}
            onValue={(amountMinor) => onPay({ amountMinor })}
            wrong={wrong("/pay/amountMinor")}
          />
        )}
        {pay.kind === "salary" && (
          <WholeField
            label="Paid hours a month"
            value={pay.hours}
            onValue={(hours) => onPay({ hours })}
            wrong={wrong("/pay/hours")}
          />
        )}
        {pay.kind !== "none" && (
          <PercentField
            label="The employer adds, %"
            value={pay.employerBp}
            onValue={(employerBp) => onPay({ employerBp })}
            wrong={wrong("/pay/employerBp")}
          />
        )}
      </Columns>
      {cost !== null && <Box aria-live="polite">An hour costs {moneyWords(cost, currency)}, all in.</Box>}
    </FormSection>
  );
}
