"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords, sum } from "@/core/money/amounts";
import { dayShort } from "@/core/time/words";
import { MoneyField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { SignatureField } from "@/ui/signature-field";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import { useState } from "react";

type Out = ViewOutput<"money-overview">["out"][number];

/** What a technician has taken is counted: it is signed for by whoever counts it. */
export function CashOut({ out, currency }: { out: Out; currency: string }) {
  const [open, setOpen] = useState(false);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [countedMinor, setCounted] = useState(0);
  const [difference, setDifference] = useState("");
  const [signature, setSignature] = useState({ name: out.technician, drawing: "" });
  const { send, busy, wrong } = useChange("hand-over-cash");
  const { enqueueSnackbar } = useSnackbar();
  const amount = (minor: number) => moneyWords(minor, currency);
  const given = out.payments.filter(({ id }) => !left.has(id));
  const comesTo = sum(given.map(({ minor }) => minor));
  const record = async () => {
    const done = await send({
      technicianId: out.technicianId,
      paymentIds: given.map(({ id }) => id),
      countedMinor,
      ...(difference.trim() && countedMinor !== comesTo && { difference }),
      signed: signature.drawing ? signature : null,
    });
    if (!done) return;
    setOpen(false);
    enqueueSnackbar(`${amount(countedMinor)} from ${out.technician} is counted`, { variant: "success" });
  };
  return (
    <>
      <Button variant="outlined" onClick={() => setOpen(true)}>
        Count…
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} maxWidth="xs" fullWidth>
        <DialogTitle>{out.technician} hands over</DialogTitle>
        <DialogContent sx={{ display: "grid", gap: 3 }}>
          <Box role="group" aria-label="What was handed over">
            {out.payments.map(({ id, customer, method, minor, day }) => (
              <FormControlLabel
                key={id}
                sx={{ display: "flex", mr: 0, "& .MuiFormControlLabel-label": { flex: 1 } }}
                control={
                  <Checkbox
                    size="small"
                    checked={!left.has(id)}
                    onChange={(e) =>
                      setLeft(new Set(e.target.checked ? [...left].filter((one) => one !== id) : [...left, id]))
                    }
                  />
                }
                label={
                  <Box sx={{ display: "flex", justifyContent: "space-between", gap: 3 }}>
                    <span>
                      {customer}, {method}, {dayShort(day)}
                    </span>
                    <span>{amount(minor)}</span>
                  </Box>
                }
              />
            ))}
          </Box>
          <Box sx={{ color: ink.ash }}>
            It comes to <b>{amount(comesTo)}</b>.
          </Box>
          <MoneyField
            currency={currency}
            label={`Counted, ${currency}`}
            value={countedMinor}
            onValue={setCounted}
            wrong={wrong("/countedMinor")}
          />
          {countedMinor > 0 && countedMinor !== comesTo && (
            <TextField
              label={countedMinor < comesTo ? "Why it is too little" : "Why it is too much"}
              value={difference}
              onChange={(e) => setDifference(e.target.value)}
              helperText={`${amount(Math.abs(countedMinor - comesTo))} ${countedMinor < comesTo ? "are missing" : "are over"}: with a reason it counts as it is`}
              slotProps={{ htmlInput: { maxLength: 200 } }}
            />
          )}
          <SignatureField
            label="Handed over by"
            signature={signature}
            onSignature={setSignature}
            problem={wrong("/signed")}
          />
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>Not now</Button>
          <Button variant="contained" disabled={busy || given.length === 0} onClick={() => void record()}>
            Sign for it
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
