"use client";
import { moneyTyped, moneyWords, parseMoney, sum } from "@/core/money/amounts";
import { giveTo } from "@/core/money/applying";
import { ink } from "@/ui/palette";
import { SheetSection } from "@/ui/side-sheet";
import type { LocalDate } from "@/core/time/dates";
import { DateField } from "@/ui/date-field";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { nanoid } from "nanoid";
import { useSnackbar } from "notistack";
import { useState } from "react";

interface Open {
  id: number;
  number: string;
  openMinor: number;
}

interface ReceiveFormProps {
  customerId: number;
  customer: string;
  currency: string;
  /** What one payment may pay: ticked are those it is meant for. */
  open: readonly Open[];
  meant: readonly number[];
}

type Method = "cash" | "bank" | "cheque";
const methods: Record<Method, { words: string; note: string | null }> = {
  bank: { words: "transfer", note: "Marked with" },
  cash: { words: "cash", note: null },
  cheque: { words: "cheque", note: "Number of the cheque" },
};

/** Cash, a cheque or a transfer: which invoices it pays, the oldest first, and what stays as credit, said before it is recorded. */
export function ReceiveForm({ customerId, customer, currency, open, meant }: ReceiveFormProps) {
  const [method, setMethod] = useState<Method>("bank");
  const [note, setNote] = useState("");
  const [on, setOn] = useState<LocalDate | null>(null);
  const [ticked, setTicked] = useState<ReadonlySet<number>>(new Set(meant));
  const chosen = open.filter(({ id }) => ticked.has(id));
  const due = sum(chosen.map(({ openMinor }) => openMinor));
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? moneyTyped(due, currency);
  const [key, setKey] = useState(() => nanoid());
  const { send, busy, wrong } = useChange("record-payment");
  const { enqueueSnackbar } = useSnackbar();
  const amountMinor = parseMoney(text, currency);
  const parts = amountMinor === null ? [] : giveTo(amountMinor, chosen);
  const rest = (amountMinor ?? 0) - sum(parts.map((part) => part.amountMinor));
  const amount = (minor: number) => moneyWords(minor, currency);
  const record = async () => {
    if (amountMinor === null) return;
    if (
      !(await send({
        customerId,
        method,
        amountMinor,
        note,
        ...(on && { on }),
        invoices: parts.map(({ invoice, amountMinor: part }) => ({ invoiceId: invoice.id, amountMinor: part })),
        key,
      }))
    )
      return;
    setKey(nanoid());
    // What was typed for the next payment while this one was on its way stays.
    setTyped((now) => (now === typed ? null : now));
    setNote((now) => (now === note ? "" : now));
    enqueueSnackbar(`${amount(amountMinor)} is recorded`, { variant: "success" });
  };
  return (
    <SheetSection title="Money received">
      <Stack direction="row" spacing={2} sx={{ alignItems: "flex-start" }}>
        <TextField select label="How" value={method} onChange={(e) => setMethod(e.target.value as Method)}>
          {Object.entries(methods).map(([name, { words }]) => (
            <MenuItem key={name} value={name}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="Amount"
          value={text}
          onChange={(e) => setTyped(e.target.value)}
          error={amountMinor === null || !!wrong("/amountMinor")}
          helperText={amountMinor === null ? "Such as 89.50" : wrong("/amountMinor")}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
        />
        <Button
          variant="contained"
          disabled={busy || !amountMinor}
          onClick={() => void record()}
          sx={{ height: 40, flex: "none" }}
        >
          Record payment
        </Button>
      </Stack>
      <Box sx={{ mt: 2 }}>
        <DateField label="Came on, if not today" value={on} onValue={setOn} wrong={wrong("/on")} />
      </Box>
      {methods[method].note && (
        <TextField
          label={methods[method].note}
          value={note}
          onChange={(e) => setNote(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 140 } }}
          sx={{ mt: 2 }}
          fullWidth
        />
      )}
      {open.length > 1 && (
        <Box role="group" aria-label="What it pays" sx={{ mt: 2 }}>
          {open.map(({ id, number, openMinor }) => (
            <FormControlLabel
              key={id}
              sx={{ display: "flex" }}
              control={
                <Checkbox
                  size="small"
                  checked={ticked.has(id)}
                  onChange={(e) =>
                    setTicked(new Set(e.target.checked ? [...ticked, id] : [...ticked].filter((one) => one !== id)))
                  }
                />
              }
              label={`Invoice ${number}, ${amount(openMinor)} open`}
            />
          ))}
        </Box>
      )}
      {!!amountMinor && (
        <Box role="status" sx={{ mt: 2, fontSize: 14.5, color: ink.ash }}>
          {parts.length > 0 &&
            `Pays ${parts.map((part) => `${amount(part.amountMinor)} of invoice ${part.invoice.number}`).join(", ")}. `}
          {rest > 0 && `${amount(rest)} stays with ${customer} as credit, and pays the next invoice.`}
        </Box>
      )}
    </SheetSection>
  );
}
