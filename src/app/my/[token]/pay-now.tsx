"use client";
import { CardForm } from "@/ui/card-form";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useState } from "react";

export function PayNow({
  purpose,
  words,
  kept,
  keepWords,
  token,
  onAsked,
}: {
  purpose: "deposit" | "invoice";
  words: string;
  kept: string | null;
  keepWords: string;
  token: string;
  onAsked: () => void;
}) {
  const [card, setCard] = useState<string | null>(null);
  const [keeps, setKeeps] = useState(false);
  const [other, setOther] = useState(kept === null);
  const { send, busy } = useChange("pay-by-card", { then: onAsked });
  const pay = (cardToken: string | null) => void send({ purpose, cardToken, keepCard: keeps }, token);
  const button = { mt: 3, height: 52, fontSize: 17 };
  if (kept !== null && !other)
    return (
      <Box sx={{ mt: 5 }}>
        <Button variant="contained" fullWidth disabled={busy} onClick={() => pay(null)} sx={button}>
          {words} with the {kept}
        </Button>
        <Button fullWidth onClick={() => setOther(true)} sx={{ height: 48 }}>
          Another card
        </Button>
      </Box>
    );
  return (
    <Box sx={{ mt: 5 }}>
      <CardForm onToken={setCard} />
      <FormControlLabel
        control={<Checkbox checked={keeps} onChange={(e) => setKeeps(e.target.checked)} />}
        label={keepWords}
      />
      <Button variant="contained" fullWidth disabled={!card || busy} onClick={() => pay(card)} sx={button}>
        {words}
      </Button>
    </Box>
  );
}
