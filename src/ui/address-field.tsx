"use client";
import FormControl from "@mui/material/FormControl";
import FormHelperText from "@mui/material/FormHelperText";
import InputLabel from "@mui/material/InputLabel";
import OutlinedInput from "@mui/material/OutlinedInput";
import { type ComponentType, useEffect, useId, useState } from "react";
import type { AddressLookUpProps } from "./address-look-up";

export type { FoundAddress } from "./address-look-up";

/** An address chosen from the look-up while typing. The list that opens is loaded when somebody begins: it is the first field of the front door, and that has to be light. */
export function AddressField(props: Omit<AddressLookUpProps, "begun">) {
  const [text, setText] = useState("");
  const [begun, setBegun] = useState(props.value !== null);
  const [LookUp, setLookUp] = useState<ComponentType<AddressLookUpProps> | null>(null);
  const id = useId();

  useEffect(() => {
    if (begun) void import("./address-look-up").then((loaded) => setLookUp(() => loaded.AddressLookUp));
  }, [begun]);

  if (LookUp) return <LookUp {...props} begun={props.value === null ? text : null} />;
  const { label, size = "small", wrong } = props;
  return (
    <FormControl fullWidth size={size} error={!!wrong}>
      <InputLabel htmlFor={id}>{label}</InputLabel>
      <OutlinedInput
        id={id}
        label={label}
        value={text}
        autoComplete="off"
        onFocus={() => setBegun(true)}
        onChange={(event) => setText(event.target.value)}
        slotProps={{ input: { role: "combobox", "aria-expanded": false, "aria-autocomplete": "list" } }}
      />
      {wrong && <FormHelperText>{wrong}</FormHelperText>}
    </FormControl>
  );
}
