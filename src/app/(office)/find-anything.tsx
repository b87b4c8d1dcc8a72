"use client";
import { dayShort } from "@/core/time/words";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import TextField from "@mui/material/TextField";
import { useRouter } from "next/navigation";
import { useState } from "react";

interface Found {
  group: "Screens" | "Customers" | "Visits" | "Incoming" | "Begin";
  words: string;
  detail: string;
  href: string;
  act?: () => void;
}

/** Whether some word of these begins with what is typed. */
const begins = (words: string, text: string): boolean =>
  ` ${words.toLowerCase()}`.includes(` ${text.trim().toLowerCase()}`);

/** Ctrl/Cmd+K: any customer, visit or screen. */
export function FindAnything({
  open,
  onClose,
  screens,
  onNewCustomer,
}: {
  open: boolean;
  onClose: () => void;
  /** Null where somebody may not. */
  onNewCustomer: (() => void) | null;
  screens: { href: string; word: string }[];
}) {
  const router = useRouter();
  const [text, setText] = useState("");
  const { data } = useLive("find", text.trim().length < 2 ? null : { text });
  const found = [
    ...[...screens, { href: "/book", word: "Front door" }]
      .filter(({ word }) => word.toLowerCase().startsWith(text.trim().toLowerCase()))
      .map(({ href, word }): Found => ({ group: "Screens", words: word, detail: "", href })),
    ...(data?.customers ?? []).map((c): Found => ({
      group: "Customers",
      words: c.name,
      detail: [c.archived ? "archived" : "", c.detail].filter(Boolean).join(" · "),
      href: `/customers/${c.id}`,
    })),
    ...(data?.visits ?? []).map((v): Found => ({
      group: "Visits",
      words: `${v.name}, ${v.service}`,
      detail: `${dayShort(v.date)}, ${v.line}`,
      href: `/board?date=${v.date}&visit=${v.id}`,
    })),
    ...(data?.waiting ?? []).map((w): Found => ({
      group: "Incoming",
      words: `${w.name}, ${w.key}`,
      detail: w.where,
      href: `/incoming?open=${encodeURIComponent(w.key)}`,
    })),
    ...(onNewCustomer && begins("New customer", text)
      ? [{ group: "Begin", words: "New customer", detail: "N", href: "#new", act: onNewCustomer } as const]
      : []),
  ];

  const close = () => {
    setText("");
    onClose();
  };
  return (
    <Dialog
      open={open}
      onClose={close}
      maxWidth="sm"
      fullWidth
      slotProps={{ paper: { sx: { position: "absolute", top: 80, overflow: "visible" } } }}
      aria-label="Find anything"
    >
      <Autocomplete
        open
        options={found}
        filterOptions={(options) => options}
        groupBy={(option) => option.group}
        getOptionLabel={(option) => option.words}
        getOptionKey={(option) => option.href + option.words}
        inputValue={text}
        onInputChange={(_, value, reason) => reason !== "reset" && setText(value)}
        onChange={(_, option) => {
          if (!option) return;
          close();
          if (option.act) option.act();
          else router.push(option.href);
        }}
        autoHighlight
        noOptionsText="Nothing of this name. Try a street or a part of the number."
        renderOption={({ key, ...props }, option) => (
          <Box
            component="li"
            key={key}
            {...props}
            sx={{ display: "flex", justifyContent: "space-between !important", gap: 4 }}
          >
            <span>{option.words}</span>
            <Box component="span" sx={{ color: ink.ash, fontSize: 14 }}>
              {option.detail}
            </Box>
          </Box>
        )}
        renderInput={(params) => (
          <TextField
            {...params}
            autoFocus
            placeholder="A name, phone, street, tag or screen"
            aria-label="Find anything"
            sx={{ p: 3 }}
          />
        )}
      />
    </Dialog>
  );
}
