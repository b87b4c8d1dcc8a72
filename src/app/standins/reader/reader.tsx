"use client";
import { post } from "@/api/client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";

/** What the reader waits for, the latest first, with cards to hold to it. */
export function Reader({
  waiting,
  cards,
}: {
  waiting: { key: string; amount: string }[];
  cards: { number: string; says: string }[];
}) {
  const router = useRouter();
  const hold = async (key: string, number: string) => {
    await post("/standins/reader/hold", { key, number });
    router.refresh();
  };
  return (
    <Box component="main" sx={{ maxWidth: 460, mx: "auto", p: 6 }}>
      <Typography variant="h1">Card reader</Typography>
      {waiting.length === 0 && <Typography sx={{ mt: 4 }}>It waits for nothing.</Typography>}
      {waiting.map(({ key, amount }) => (
        <Box key={key} role="group" aria-label={amount} sx={{ mt: 5, pt: 4, borderTop: `1px solid ${ink.line}` }}>
          <Typography sx={{ fontSize: 26, fontWeight: 650 }}>{amount}</Typography>
          <Typography color="textSecondary" sx={{ mb: 2 }}>
            Hold a card here:
          </Typography>
          {cards.map(({ number, says }) => (
            <Button
              key={number}
              variant="outlined"
              fullWidth
              onClick={() => void hold(key, number)}
              sx={{ mb: 1, justifyContent: "space-between" }}
            >
              <span>ending {number.slice(-4)}</span>
              <span>{says}</span>
            </Button>
          ))}
        </Box>
      ))}
      <Button sx={{ mt: 5 }} onClick={() => router.refresh()}>
        Look again
      </Button>
    </Box>
  );
}
