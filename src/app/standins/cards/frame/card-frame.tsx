"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useState } from "react";

/** The stand-in card service's form. It hands a token to the page around it as soon as the number is whole. */
export function CardFrame({ cards }: { cards: { number: string; says: string }[] }) {
  const [number, setNumber] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [ready, setReady] = useState(false);

  const type = async (text: string) => {
    setNumber(text);
    setReady(false);
    tell(null);
    if (text.replace(/\D/g, "").length < 16) return setProblem(null);
    const response = await fetch("/standins/cards/tokens", {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ number: text }),
    });
    const { token, problem: said } = (await response.json()) as { token?: string; problem?: string };
    setProblem(token ? null : (said ?? "The card service does not answer. Try again."));
    setReady(!!token);
    tell(token ?? null);
  };
  const tell = (token: string | null) => window.parent.postMessage({ hogarCard: { token } }, window.location.origin);

  return (
    <Box component="main" sx={{ p: 3 }}>
      <TextField
        label="Card number"
        value={number}
        onChange={(e) => void type(e.target.value)}
        error={!!problem}
        helperText={problem ?? (ready ? "✓ The card can be used" : " ")}
        slotProps={{ htmlInput: { inputMode: "numeric", autoComplete: "cc-number" } }}
      />
      <Box sx={{ fontSize: 13.5, color: ink.ash, lineHeight: 1.7 }}>
        This card service is a stand-in. Its cards:
        {cards.map((card) => (
          <Box key={card.number}>
            <Box
              component="button"
              type="button"
              onClick={() => void type(card.number)}
              sx={{
                font: "inherit",
                border: 0,
                p: 0,
                background: "none",
                color: ink.lake,
                textDecoration: "underline",
                cursor: "pointer",
              }}
            >
              {card.number}
            </Box>{" "}
            {card.says}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
