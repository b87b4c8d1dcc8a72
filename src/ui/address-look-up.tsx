"use client";
import { ask } from "@/api/client";
import Autocomplete from "@mui/material/Autocomplete";
import FormControl from "@mui/material/FormControl";
import FormHelperText from "@mui/material/FormHelperText";
import InputLabel from "@mui/material/InputLabel";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useEffect, useState } from "react";

export interface FoundAddress {
  id: string;
  line: string;
  postcode: string;
  lng: number;
  lat: number;
}

export interface AddressLookUpProps {
  label: string;
  value: FoundAddress | null;
  onValue: (address: FoundAddress | null) => void;
  wrong?: string;
  size?: "small" | "medium";
  nothing?: string;
  /** What was typed before this was there; then it takes the focus. Null where nobody has begun. */
  begun: string | null;
}

const wordsOf = (address: FoundAddress): string => [address.line, address.postcode].filter(Boolean).join(", ");

/** Finds addresses by what is typed of them. */
export function AddressLookUp({
  label,
  value,
  onValue,
  wrong,
  size = "small",
  nothing = "No address begins like this.",
  begun,
}: AddressLookUpProps) {
  const [typed, setTyped] = useState(value ? wordsOf(value) : (begun ?? ""));
  const [text, setText] = useState(begun ?? "");
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
      openOnFocus={begun !== null}
      value={value}
      inputValue={typed}
      filterOptions={(options) => options}
      getOptionLabel={wordsOf}
      getOptionKey={(a) => a.id}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      onInputChange={(_, now, reason) => {
        // Making itself ready is no reason to forget what somebody has typed.
        if (reason === "reset" && value === null && now === "") return;
        setTyped(now);
        if (reason === "input") setText(now);
      }}
      onChange={(_, address) => onValue(address)}
      noOptionsText={text.trim().length < 2 ? "Type the beginning of the street" : asked ? nothing : "Looking…"}
      // Not a TextField: it brings menus and lists along that nobody needs here.
      renderInput={({ id, disabled, slotProps }) => (
        <FormControl fullWidth size={size} error={!!wrong} disabled={disabled}>
          <InputLabel {...slotProps.inputLabel}>{label}</InputLabel>
          <OutlinedInput
            id={id}
            label={label}
            autoFocus={begun !== null}
            {...slotProps.input}
            slotProps={{ input: slotProps.htmlInput }}
          />
          {wrong && <FormHelperText>{wrong}</FormHelperText>}
        </FormControl>
      )}
    />
  );
}
