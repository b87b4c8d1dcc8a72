"use client";
import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import { useEffect, useState } from "react";
import { ask } from "@/api/client";

export interface FoundAddress {
  id: string;
  line: string;
  postcode: string;
  lng: number;
  lat: number;
}

/** An address chosen from the look-up while typing. */
export function AddressField({
  label,
  value,
  onValue,
  wrong,
  size = "small",
  nothing = "No address begins like this.",
}: {
  label: string;
  value: FoundAddress | null;
  onValue: (address: FoundAddress | null) => void;
  wrong?: string;
  size?: "small" | "medium";
  nothing?: string;
}) {
  const [text, setText] = useState("");
  const [found, setFound] = useState<FoundAddress[]>([]);
  const [asked, setAsked] = useState(false);

  useEffect(() => {
    if (text.trim().length < 2) return setFound([]);
    let current = true;
    void ask("find-address", { text }).then((result) => {
      if (!current) return;
      setFound(result.ok ? result.value : []);
      setAsked(true);
    });
    return () => void (current = false);
  }, [text]);

  return (
    <Autocomplete
      options={found}
      forcePopupIcon={false}
      value={value}
      filterOptions={(options) => options}
      getOptionLabel={(a) => [a.line, a.postcode].filter(Boolean).join(", ")}
      getOptionKey={(a) => a.id}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      onInputChange={(_, typed, reason) => reason === "input" && setText(typed)}
      onChange={(_, address) => onValue(address)}
      noOptionsText={text.trim().length < 2 ? "Type the beginning of the street" : asked ? nothing : "Looking…"}
      renderInput={(params) => <TextField {...params} label={label} size={size} error={!!wrong} helperText={wrong} />}
    />
  );
}
