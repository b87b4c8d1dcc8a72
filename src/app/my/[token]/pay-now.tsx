"use client";
import { CardForm } from "@/ui/card-form";
import { TipField } from "@/ui/tip-field";
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
  tips,
  onAsked,
}: {
  purpose: "deposit" | "invoice";
  words: string;
  /** The cards we keep, the first of which pays unless another one is chosen. */
  kept: readonly { id: number; label: string }[];
  keepWords: string;
  token: string;
  /** In which currency a tip may be given; null where none is. */
  tips: string | null;
  onAsked: () => void;
}) {
  const [card, setCard] = useState<string | null>(null);
  const [keeps, setKeeps] = useState(false);
  const [other, setOther] = useState(kept.length === 0);
  const [tipMinor, setTip] = useState(0);
  const { send, busy } = useChange("pay-by-card", { then: onAsked });
  const pay = (cardToken: string | null, cardId?: number) =>
    void send({ purpose, cardToken, keepCard: keeps, tipMinor, ...(cardId !== undefined && { cardId }) }, token);
  const tip = tips && <TipField currency={tips} tipMinor={tipMinor} onTip={setTip} />;
  const button = { mt: 3, minHeight: 52, fontSize: 17 };
  if (kept.length > 0 && !other)
    return (
      <Box sx={{ mt: 5 }}>
        {tip}
        {kept.map(({ id, label }, i) => (
          <Button
            key={id}
            variant={i === 0 ? "contained" : "outlined"}
            fullWidth
            disabled={busy}
            onClick={() => pay(null, id)}
            sx={button}
          >
            {words} with the {label}
          </Button>
        ))}
        <Button fullWidth onClick={() => setOther(true)} sx={{ minHeight: 48 }}>
          Another card
        </Button>
      </Box>
    );
  return (
    <Box sx={{ mt: 5 }}>
      <CardForm onToken={setCard} />
      {tip}
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
