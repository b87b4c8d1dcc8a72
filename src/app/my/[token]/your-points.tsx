"use client";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dateWords } from "@/core/time/words";
import { AmountRow } from "@/ui/door-page";
import { useView } from "@/ui/use-view";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { counted } from "@/core/words";

const names = {
  paid: "Paid",
  refunded: "Refunded",
  used: "Used",
  "given back": "Given back",
  "by hand": "From us",
} as const;

/** Loyalty points: how many, what they take off, and how they came and went. Nothing where there are none. */
export function YourPoints({ token, currency, timeZone }: { token: string; currency: string; timeZone: string }) {
  const { data } = useView("my-points", {}, token);
  if (!data) return null;
  const { balance, worthMinor, rules, rows } = data;
  return (
    <Box component="section" aria-label="Your points" sx={{ mt: 6, "@media print": { display: "none" } }}>
      <Typography variant="h2">{counted(balance, "point")}</Typography>
      <Typography color="textSecondary" sx={{ mt: 1 }}>
        {rules === null
          ? "There are no new points at the moment."
          : balance >= rules.least
            ? `Worth ${moneyWords(worthMinor, currency)}: choose them when you book by the button below.`
            : `From ${rules.least} points on, they take something off your next booking.`}
      </Typography>
      {rows.length > 0 && (
        <Box component="details" sx={{ mt: 2 }}>
          <summary>How they came and went</summary>
          {rows.map(({ id, kind, points, words, at, what }) => (
            <AmountRow
              key={id}
              name={`${names[kind]}${what ? `, ${what}` : ""}${words ? `, ${words}` : ""}, ${dateWords(localDate(Math.floor(at / 60_000), timeZone))}`}
              value={points > 0 ? `+${points}` : `−${-points}`}
            />
          ))}
        </Box>
      )}
    </Box>
  );
}
