"use client";
import type { ViewOutput } from "@/api/client";
import { monthWords } from "@/core/time/words";
import { CardForm } from "@/ui/card-form";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { useState } from "react";

type View = ViewOutput<"my-visit">;

/** The cards we keep, in the order in which they are charged: added, put first, taken away; and whether that happens by itself. */
export function YourCards({ view, token, onChanged }: { view: View; token: string; onChanged: () => void }) {
  const [adding, setAdding] = useState(false);
  const first = useChange("charge-card-first", { then: onChanged });
  const remove = useChange("remove-card", { then: onChanged });
  const agree = useChange("agree-collection", { then: onChanged });
  const busy = first.busy || remove.busy;
  return (
    <Box component="section" aria-label="Your cards" sx={{ mt: 6, "@media print": { display: "none" } }}>
      <Typography variant="h2" sx={{ mb: 2 }}>
        Your cards
      </Typography>
      {view.cards.length === 0 && <Typography>We keep none. Leave one, and you need not type it again.</Typography>}
      {view.cards.map((card, i) => (
        <Box
          key={card.id}
          role="group"
          aria-label={card.label}
          sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "center", py: 1 }}
        >
          <Box sx={{ flex: 1, minWidth: 180 }}>
            {card.label}
            {card.expires && `, until ${monthWords(`${card.expires}-01`)}`}
            {i === 0 && view.cards.length > 1 && <b> · first</b>}
          </Box>
          {i > 0 && (
            <Button disabled={busy} onClick={() => void first.send({ cardId: card.id }, token)} sx={{ minHeight: 44 }}>
              Use this first
            </Button>
          )}
          <Button disabled={busy} onClick={() => void remove.send({ cardId: card.id }, token)} sx={{ minHeight: 44 }}>
            Remove
          </Button>
        </Box>
      ))}
      {adding ? (
        <AddCard
          token={token}
          keepWords={view.cardWords}
          onDone={() => {
            setAdding(false);
            onChanged();
          }}
        />
      ) : (
        <Button variant="outlined" onClick={() => setAdding(true)} sx={{ mt: 2, minHeight: 48 }}>
          {view.cards.length ? "Add another card" : "Add a card"}
        </Button>
      )}
      {view.offersCollection && view.cards.length > 0 && (
        <FormControlLabel
          sx={{ mt: 3, alignItems: "flex-start", display: "flex" }}
          control={
            <Checkbox
              checked={view.collects}
              disabled={agree.busy}
              onChange={(e) => void agree.send({ agreed: e.target.checked }, token)}
              sx={{ pt: 0 }}
            />
          }
          label={view.collectsWords}
        />
      )}
    </Box>
  );
}

function AddCard({ token, keepWords, onDone }: { token: string; keepWords: string; onDone: () => void }) {
  const [card, setCard] = useState<string | null>(null);
  const { send, busy } = useChange("add-card", { then: onDone });
  return (
    <Box sx={{ mt: 2 }}>
      <CardForm onToken={setCard} />
      <Typography color="textSecondary" sx={{ mt: 2 }}>
        {keepWords}
      </Typography>
      <Button
        variant="contained"
        fullWidth
        disabled={!card || busy}
        onClick={() => void send({ cardToken: card! }, token)}
        sx={{ mt: 2, minHeight: 52, fontSize: 17 }}
      >
        Keep this card
      </Button>
    </Box>
  );
}
