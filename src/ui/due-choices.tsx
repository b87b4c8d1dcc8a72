"use client";
import { moneyWords } from "@/core/money/amounts";
import { addDays } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";

/** What a customer may say about an invoice that is open: not to this card this time, or on which day they pay. */
export function DueChoices({
  token,
  coming: { charge, promised },
  currency,
  today,
  onChanged,
}: {
  /** Of the invoice's own link. */
  token: string;
  coming: { charge: { date: string; minor: number; card: string } | null; promised: string | null };
  currency: string;
  today: string;
  onChanged: () => void;
}) {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState("");
  const [day, setDay] = useState(addDays(today, 7));
  const object = useChange("object-to-charge", { then: onChanged });
  const promise = useChange("promise-payment", {
    then: () => {
      setOpen(false);
      onChanged();
    },
  });
  return (
    <Box component="section" aria-label="When it is paid" sx={{ mt: 4, display: "grid", gap: 3 }}>
      {charge && (
        <Alert severity="info" sx={{ fontSize: 16 }}>
          {moneyWords(charge.minor, currency)} is charged to your {charge.card} on {dayWords(charge.date)}.
          <TextField
            label="Why not? (if you like)"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            multiline
            fullWidth
            slotProps={{ htmlInput: { maxLength: 600 } }}
            sx={{ display: "block", mt: 2, bgcolor: "#fff" }}
          />
          <Button
            color="inherit"
            variant="outlined"
            disabled={object.busy}
            onClick={() => void object.send({ token, words })}
            sx={{ display: "block", mt: 2, minHeight: 44 }}
          >
            Not this time
          </Button>
        </Alert>
      )}
      {promised && (
        <Alert severity="success" sx={{ fontSize: 16 }}>
          You pay on {dayWords(promised)}. Until then we do not remind you.
        </Alert>
      )}
      {!open && (
        <Button onClick={() => setOpen(true)} sx={{ minHeight: 48, justifySelf: "start" }}>
          {promised ? "Another day" : "I pay on another day"}
        </Button>
      )}
      {open && (
        <Box sx={{ display: "flex", gap: 2, alignItems: "flex-start", flexWrap: "wrap" }}>
          <DateField
            label="I pay on"
            width={200}
            value={day}
            onValue={(to) => to && setDay(to)}
            wrong={promise.wrong("/day")}
          />
          <Button
            variant="outlined"
            disabled={promise.busy}
            onClick={() => void promise.send({ token, day })}
            sx={{ minHeight: 48 }}
          >
            Promise it
          </Button>
        </Box>
      )}
    </Box>
  );
}
