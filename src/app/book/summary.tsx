"use client";
import { titleOf } from "@/core/catalogue/titles";
import type { PricedOrder } from "@/core/catalogue/order";
import { moneyWords } from "@/core/money/amounts";
import { daysWords, durationWords } from "@/core/time/words";
import { ink } from "@/ui/palette";
import ArrowBack from "@mui/icons-material/ArrowBack";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Business, Offer } from "./data";
import type { Chosen } from "./draft";

interface SummaryProps {
  chosen: readonly Chosen[];
  order: PricedOrder | null;
  offer: Offer | null;
  /** For how long the window is kept, once it is. */
  kept: ReactNode;
  business: Business;
  /** Prices are told at the end even where the owner does not show them before. */
  always: boolean;
  onBack: (() => void) | null;
  button: { words: string; ready: boolean; act: () => void };
  busy: boolean;
  note: string | null;
}

/** What is booked so far, what it costs and takes, and the one button that goes on. */
export function Summary({ chosen, order, offer, kept, business, always, onBack, button, busy, note }: SummaryProps) {
  const days = chosen[0]?.service.days ?? 1;
  const shows = always || chosen.every(({ service }) => service.showsPrice);
  const price = chosen.some(({ service }) => service.priceKind === "quote")
    ? "price on quote"
    : order && shows
      ? `${chosen.some(({ service }) => service.priceKind === "from") ? "from " : ""}${moneyWords(order.totalMinor, business.currency)}`
      : "";
  return (
    <Box
      component="footer"
      sx={{
        position: "sticky",
        bottom: 0,
        bgcolor: ink.plaster,
        borderTop: `1px solid ${ink.line}`,
        px: 5,
        py: 4,
        zIndex: 2,
        // Magnified until it would cover the page.
        "@media (max-width: 300px)": { position: "static" },
      }}
    >
      {order && (
        <Box sx={{ display: "flex", justifyContent: "space-between", gap: 4, mb: 1 }}>
          <Box sx={{ minWidth: 0 }}>
            {chosen.length > 2 ? `${chosen[0]!.service.name} and ${chosen.length - 1} more` : titleOf(chosen)}
            {chosen.every(({ service }) => service.showsMinutes) && (
              <Box component="span" sx={{ color: ink.ash }}>
                {" "}
                · {days > 1 ? `${days} days` : durationWords(order.minutes)}
              </Box>
            )}
          </Box>
          <Box sx={{ fontWeight: 700, whiteSpace: "nowrap" }}>{price}</Box>
        </Box>
      )}
      {offer && (
        <Box
          sx={{
            display: "flex",
            flexWrap: "wrap",
            justifyContent: "space-between",
            columnGap: 4,
            color: ink.ash,
            mb: 2,
          }}
        >
          <span>
            {daysWords([offer.date, ...offer.followingDays])}, {offer.words}
          </span>
          {kept}
        </Box>
      )}
      {note && (
        <Box role="note" sx={{ color: ink.ash, mb: 2 }}>
          {note}
        </Box>
      )}
      <Box sx={{ display: "flex", gap: 2 }}>
        {onBack && (
          <Button variant="outlined" onClick={onBack} aria-label="Back" sx={{ minWidth: 52, minHeight: 52 }}>
            <ArrowBack />
          </Button>
        )}
        <Button
          variant="contained"
          fullWidth
          disabled={busy || !button.ready}
          onClick={button.act}
          sx={{ minHeight: 52, fontSize: 17 }}
        >
          {busy ? "One moment…" : button.words}
        </Button>
      </Box>
    </Box>
  );
}
