"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords, sum } from "@/core/money/amounts";
import { CardForm } from "@/ui/card-form";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import { useState } from "react";

/** Charges what is open of some invoices to a card that we keep, or to one that the customer says on the phone. */
export function ChargeCard({
  customerId,
  account,
  onDone,
}: {
  customerId: number;
  account: ViewOutput<"customer-account">;
  onDone: () => void;
}) {
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [cardId, setCardId] = useState<number | null>(account.cards[0]?.id ?? null);
  const [typed, setTyped] = useState<string | null>(null);
  const { send, busy, wrong } = useChange("charge-invoices");
  const { enqueueSnackbar } = useSnackbar();
  const amount = (minor: number) => moneyWords(minor, account.currency);
  const chosen = account.open.filter(({ id }) => !left.has(id));
  const charge = async () => {
    const done = await send({
      customerId,
      invoiceIds: chosen.map(({ id }) => id),
      cardId,
      cardToken: cardId === null ? typed : null,
    });
    if (!done) return;
    enqueueSnackbar(`${amount(done.value.amountMinor)} is being charged`, { variant: "success" });
    onDone();
  };
  return (
    <Box role="group" aria-label="Charge a card" sx={{ mt: 3, display: "grid", gap: 2, maxWidth: 460 }}>
      {account.open.map(({ id, number, openMinor }) => (
        <FormControlLabel
          key={id}
          control={
            <Checkbox
              size="small"
              checked={!left.has(id)}
              onChange={(e) =>
                setLeft(new Set(e.target.checked ? [...left].filter((one) => one !== id) : [...left, id]))
              }
            />
          }
          label={`${number}, ${amount(openMinor)}`}
        />
      ))}
      <TextField
        select
        size="small"
        label="Card"
        value={cardId ?? "typed"}
        onChange={(e) => setCardId(e.target.value === "typed" ? null : Number(e.target.value))}
        error={!!wrong("/cardId")}
        helperText={wrong("/cardId")}
      >
        {account.cards.map(({ id, label }) => (
          <MenuItem key={id} value={id}>
            {label}
          </MenuItem>
        ))}
        <MenuItem value="typed">one that they say now</MenuItem>
      </TextField>
      {cardId === null && <CardForm onToken={setTyped} />}
      <Button
        variant="contained"
        disabled={busy || chosen.length === 0 || (cardId === null && !typed)}
        onClick={() => void charge()}
        sx={{ justifySelf: "start" }}
      >
        Charge {amount(sum(chosen.map(({ openMinor }) => openMinor)))}
      </Button>
    </Box>
  );
}
