"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { dateWords } from "@/core/time/words";
import { AmountRow, DoorPage } from "@/ui/door-page";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { PayOwed } from "./pay-owed";

/** All that a customer owes: each open invoice with the way to pay it, and the account that led there. */
export function OwedPage({ view, token }: { view: ViewOutput<"my-account">; token: string }) {
  const { statement } = view;
  const amount = (minor: number) => moneyWords(minor, view.currency);
  const { phone } = statement.seller;
  return (
    <DoorPage look={view.look} business={statement.seller}>
      <Typography variant="h1">Your account</Typography>
      <Box role="status" sx={{ fontSize: 19, mt: 2, mb: 4 }}>
        {view.openMinor > 0 ? (
          <>
            <b>{amount(view.openMinor)}</b> is open in all
          </>
        ) : (
          "Nothing is open: thank you."
        )}
      </Box>
      <PayOwed view={view} token={token} />
      <Typography variant="h2" sx={{ mt: 6, mb: 2 }}>
        How it came to that
      </Typography>
      {statement.entries.map((entry, i) => (
        <AmountRow key={i} name={`${dateWords(entry.date)}, ${entry.words}`} value={amount(entry.amountMinor)} />
      ))}
      <AmountRow name="Together" value={amount(statement.totalMinor)} strong />
      <Button
        variant="outlined"
        href={`/owed/${token}/statement.pdf`}
        sx={{ mt: 4, "@media print": { display: "none" } }}
      >
        Statement as PDF
      </Button>
      <Typography color="textSecondary" sx={{ mt: 3 }}>
        Anything to ask? Call <a href={`tel:${phone.replace(/[^\d+]/g, "")}`}>{phone}</a>.
      </Typography>
    </DoorPage>
  );
}
