"use client";
import { OrderForm } from "@/ui/order-form";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import type { Business } from "./data";
import { type Draft, photoOfField } from "./draft";

/** Who it is for, what the owner asks of everybody, and what one agrees to. */
export function Who({
  draft,
  business,
  wrong,
  onType,
  onEnter,
}: {
  draft: Draft;
  business: Business;
  wrong: (pointer: string) => string | undefined;
  onType: (part: Partial<Draft>) => void;
  /** Enter in a field goes on. */
  onEnter: () => void;
}) {
  const field = (name: "name" | "mail" | "phone") => ({
    name,
    required: true,
    value: draft[name],
    error: !!wrong(`/customer/${name}`),
    helperText: wrong(`/customer/${name}`),
    size: "medium" as const,
    onChange: (e: { target: { value: string } }) => onType({ [name]: e.target.value }),
  });
  const problems = Object.fromEntries(
    business.fields.flatMap(({ id }) => (wrong(`/fields/${id}`) ? [[id, wrong(`/fields/${id}`)!]] : [])),
  );
  return (
    <Stack
      component="form"
      noValidate
      spacing={4}
      sx={{ mt: 4 }}
      onSubmit={(e) => {
        e.preventDefault();
        onEnter();
      }}
    >
      <TextField label="Name" autoComplete="name" {...field("name")} />
      <TextField label="Email" type="email" autoComplete="email" {...field("mail")} />
      <TextField label="Phone" type="tel" autoComplete="tel" {...field("phone")} />
      {business.fields.length > 0 && (
        <OrderForm
          questions={business.fields}
          extras={[]}
          answers={draft.fields}
          chosen={[]}
          currency={business.currency}
          problems={problems}
          photoPlace={photoOfField}
          onAnswers={(fields) => onType({ fields })}
          onChosen={() => {}}
        />
      )}
      <div>
        <FormControlLabel
          control={<Checkbox checked={draft.reminders} onChange={(e) => onType({ reminders: e.target.checked })} />}
          label={business.consents.reminders}
        />
        <FormControlLabel
          control={<Checkbox checked={draft.offers} onChange={(e) => onType({ offers: e.target.checked })} />}
          label={business.consents.offers}
        />
      </div>
      {/* A form with several fields goes on by Enter where it has a button of its own. */}
      <button type="submit" hidden />
    </Stack>
  );
}
