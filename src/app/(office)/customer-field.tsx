"use client";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useState } from "react";

/** A customer, looked for by name, phone or street. */
export function CustomerField({
  label = "Customer",
  customer,
  without,
  onCustomer,
  wrong,
}: {
  label?: string;
  customer: { id: number; name: string } | null;
  /** Somebody who is not meant. */
  without?: number;
  onCustomer: (customer: { id: number; name: string } | null) => void;
  wrong?: string;
}) {
  const [text, setText] = useState("");
  const { data: found } = useLive("find", text.trim().length < 2 ? null : { text });
  const options: { id: number; name: string; detail?: string }[] = (found?.customers ?? []).filter(
    ({ id }) => id !== without,
  );
  return (
    <Autocomplete
      options={options}
      value={customer as (typeof options)[number] | null}
      filterOptions={(all) => all}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      getOptionLabel={(one) => one.name}
      getOptionKey={(one) => one.id}
      onInputChange={(_, value) => setText(value)}
      onChange={(_, value) => onCustomer(value && { id: value.id, name: value.name })}
      noOptionsText={text.trim().length < 2 ? "Type a part of the name, phone or street" : "Nobody is found"}
      renderOption={({ key, ...props }, option) => (
        <li key={key} {...props}>
          {option.name}
          <Box component="span" sx={{ color: ink.ash, ml: 2 }}>
            {option.detail}
          </Box>
        </li>
      )}
      renderInput={(params) => (
        <TextField {...params} label={label} autoFocus error={!!wrong} helperText={wrong} sx={{ mt: 1 }} />
      )}
    />
  );
}
