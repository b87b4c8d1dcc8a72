"use client";
import { moneyTyped, moneyWords, parseMoney } from "@/core/money/amounts";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { nanoid } from "nanoid";
import { useSnackbar } from "notistack";
import { useState } from "react";

/** Cash with its change, or a cheque, taken at the door. */
export function TakePayment({ visitId, dueMinor, currency }: { visitId: number; dueMinor: number; currency: string }) {
  const [open, setOpen] = useState(false);
  const [method, setMethod] = useState<"cash" | "cheque">("cash");
  const [typed, setTyped] = useState("");
  const [note, setNote] = useState("");
  const [key, setKey] = useState(() => nanoid());
  const { send, busy, wrong } = useChange("take-payment");
  const { enqueueSnackbar } = useSnackbar();
  const amount = (minor: number) => moneyWords(minor, currency);
  const given = typed.trim() === "" ? dueMinor : parseMoney(typed, currency);
  const takenMinor = Math.min(given ?? 0, dueMinor);
  const change = given === null ? 0 : given - takenMinor;
  const take = async () => {
    if (!(await send({ visitId, method, amountMinor: takenMinor, note: method === "cheque" ? note : "", key }))) return;
    setKey(nanoid());
    setTyped("");
    setNote("");
    setOpen(false);
    enqueueSnackbar(`${amount(takenMinor)} is recorded`, { variant: "success" });
  };
  if (!open)
    return (
      <Button variant="outlined" onClick={() => setOpen(true)} sx={{ minHeight: 48 }}>
        Take payment, {amount(dueMinor)}
      </Button>
    );
  return (
    <Box
      role="group"
      aria-label="Take payment"
      sx={{ borderTop: `1px solid ${ink.line}`, pt: 3, display: "grid", gap: 3 }}
    >
      <ToggleButtonGroup
        exclusive
        fullWidth
        value={method}
        onChange={(_, chosen: typeof method | null) => chosen && setMethod(chosen)}
        aria-label="How"
      >
        <ToggleButton value="cash" sx={{ minHeight: 48, textTransform: "none", fontSize: 16 }}>
          cash
        </ToggleButton>
        <ToggleButton value="cheque" sx={{ minHeight: 48, textTransform: "none", fontSize: 16 }}>
          cheque
        </ToggleButton>
      </ToggleButtonGroup>
      <TextField
        label={method === "cash" ? "Given to you" : "Amount of the cheque"}
        placeholder={moneyTyped(dueMinor, currency)}
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        error={given === null || !!wrong("/amountMinor")}
        helperText={given === null ? "Such as 89.50" : wrong("/amountMinor")}
        slotProps={{ htmlInput: { inputMode: "decimal" }, inputLabel: { shrink: true } }}
      />
      {method === "cheque" && (
        <TextField
          label="Number of the cheque"
          value={note}
          onChange={(e) => setNote(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 140 } }}
        />
      )}
      {given !== null && (
        <Box role="status" sx={{ fontSize: 17 }}>
          {change > 0 ? (
            method === "cash" ? (
              <>
                Change: <b>{amount(change)}</b>
              </>
            ) : (
              `Only ${amount(dueMinor)} is due: the cheque is for more.`
            )
          ) : takenMinor < dueMinor ? (
            `${amount(dueMinor - takenMinor)} stays open.`
          ) : (
            "It is paid in full."
          )}
        </Box>
      )}
      <Button
        variant="contained"
        disabled={busy || takenMinor <= 0 || (method === "cheque" && change > 0)}
        onClick={() => void take()}
        sx={{ minHeight: 52, fontSize: 17 }}
      >
        Record payment, {amount(takenMinor)}
      </Button>
      <Button onClick={() => setOpen(false)} sx={{ minHeight: 48 }}>
        Not now
      </Button>
    </Box>
  );
}
