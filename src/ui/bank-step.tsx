"use client";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";

/** The customer's bank asks once more: they go there, or take another card. */
export function BankStep({
  address,
  of,
  token,
  onLeft,
}: {
  address: string;
  /** What the link is of. */
  of: "invoice" | "owed";
  token: string;
  onLeft: () => void;
}) {
  const { send, busy } = useChange("take-another-card-for", { then: onLeft });
  return (
    <Box sx={{ mt: 4, "@media print": { display: "none" } }}>
      <Button
        variant="contained"
        fullWidth
        href={`${address}?back=${encodeURIComponent(`/${of}/${token}`)}`}
        sx={{ height: 52, fontSize: 17 }}
      >
        Confirm with your bank
      </Button>
      <Button fullWidth disabled={busy} onClick={() => void send({ token, of })} sx={{ mt: 2, height: 48 }}>
        Pay with another card
      </Button>
    </Box>
  );
}
