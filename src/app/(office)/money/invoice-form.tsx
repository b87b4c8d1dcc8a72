"use client";
import type { ViewOutput } from "@/api/client";
import { totalOf } from "@/core/money/amounts";
import { linesWithDiscount, priceOf } from "@/core/money/papers";
import { DateField } from "@/ui/date-field";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field, PercentField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { LineFields } from "@/ui/line-fields";
import { useLive } from "@/ui/live";
import { useKeptForm } from "@/ui/use-kept-form";
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import { nanoid } from "nanoid";
import { useState } from "react";
import { CustomerField } from "../customer-field";

type Choices = ViewOutput<"invoice-choices">;

interface InvoiceFormProps {
  currency: string;
  onMade: (invoiceId: number) => void;
}

/** An invoice made by hand: for whom, its lines, what is taken off, the words around them. */
export function InvoiceForm(props: InvoiceFormProps) {
  const { data, problem } = useLive("invoice-choices", {});
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!data) return <Skeleton variant="rounded" height={420} />;
  return <Form {...props} choices={data} />;
}

function Form({ currency, onMade, choices }: InvoiceFormProps & { choices: Choices }) {
  const { taxRates, catalogue, pricesIncludeTax } = choices;
  const [key] = useState(() => nanoid());
  const line = (description = "", unitMinor = 0, taxBp = taxRates[0]?.rateBp ?? 0) => ({
    description,
    quantity: 1,
    unitMinor,
    taxBp,
    discountBp: 0,
  });
  const { draft, set, wrong, frame, round } = useKeptForm({
    operation: "make-invoice",
    of: "new invoice",
    from: {
      customer: null as { id: number; name: string } | null,
      lines: [line()],
      discountBp: 0,
      before: "",
      after: choices.after,
      dueDate: null as string | null,
    },
    // Nobody is chosen yet: the door says so beside the field.
    input: ({ customer, ...typed }) => ({ ...typed, customerId: customer?.id ?? 0, key }),
    name: ({ customer }) => `The invoice to ${customer?.name ?? "nobody"}`,
    sent: true,
    saved: ({ invoiceId }) => onMade(invoiceId),
  });
  const complete = [
    ...draft.lines.flatMap((one) => [one.quantity, one.unitMinor, one.discountBp]),
    draft.discountBp,
  ].every(Number.isFinite);
  const priced = complete ? draft.lines.map((one) => priceOf(one, pricesIncludeTax)) : null;
  const totals =
    priced && totalOf(linesWithDiscount(priced, { discountBp: draft.discountBp, words: "", pricesIncludeTax }));
  return (
    <FormFrame
      key={round}
      {...frame}
      title="New invoice"
      save="Send the invoice"
      note="It is numbered, goes into the books and to the customer at once. What is sent is set right by a credit note."
    >
      <CustomerField
        customer={draft.customer}
        onCustomer={(customer) => set({ customer })}
        wrong={wrong("/customerId") && "Choose who it is for."}
      />
      <FormSection title="What for" note={pricesIncludeTax ? "Prices with tax" : "Prices without tax"}>
        <LineFields
          lines={draft.lines}
          onLines={(lines) => set({ lines })}
          currency={currency}
          taxRates={taxRates}
          wrong={wrong}
          totals={totals}
          fresh={{ discountBp: 0 }}
          beside={
            <Autocomplete
              key={draft.lines.length}
              size="small"
              options={catalogue}
              getOptionLabel={({ name }) => name}
              getOptionKey={({ name }) => name}
              onChange={(_, chosen) =>
                chosen &&
                set({
                  lines: [
                    ...draft.lines.filter((one) => one.description || one.unitMinor),
                    line(chosen.name, chosen.priceMinor, chosen.taxBp),
                  ],
                })
              }
              renderInput={(params) => <TextField {...params} label="From the catalogue" />}
              sx={{ width: 210 }}
            />
          }
        />
        {wrong("/lines") && (
          <Box role="alert" sx={{ color: "error.main", fontSize: 13.5 }}>
            {wrong("/lines")}
          </Box>
        )}
        <Columns>
          <PercentField
            label="Off all of it, %"
            value={draft.discountBp}
            onValue={(discountBp) => set({ discountBp })}
            wrong={wrong("/discountBp")}
          />
          <DateField
            label="Due, if not by their terms"
            value={draft.dueDate}
            onValue={(dueDate) => set({ dueDate })}
            wrong={wrong("/dueDate")}
          />
        </Columns>
      </FormSection>
      <FormSection title="Words" said={draft.before ? "with words of its own" : undefined}>
        <Field
          label="Above the lines"
          multiline
          minRows={2}
          value={draft.before}
          onChange={(e) => set({ before: e.target.value })}
          wrong={wrong("/before")}
        />
        <Field
          label="Below them"
          multiline
          minRows={2}
          value={draft.after}
          onChange={(e) => set({ after: e.target.value })}
          wrong={wrong("/after")}
        />
      </FormSection>
    </FormFrame>
  );
}
