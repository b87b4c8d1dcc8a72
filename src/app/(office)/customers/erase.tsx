"use client";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useRouter } from "next/navigation";
import type { Customer } from "./data";

/** Asks before who somebody was goes for good, and says what goes, what stays, and what stands in the way. */
export function Erase({ customer, onClose }: { customer: Customer; onClose: () => void }) {
  const router = useRouter();
  const { send, busy } = useChange("erase-customer", {
    then: () => router.push("/customers"),
  });
  const blocked = customer.inTheWay.length > 0;
  return (
    <Dialog open onClose={onClose} maxWidth="sm" fullWidth>
      <DialogTitle>Erase {customer.name}?</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 3 }}>
        {blocked && (
          <Alert severity="warning">
            There is still {customer.inTheWay.join(", ")}. Cancel or settle them first, then erase.
          </Alert>
        )}
        <Box>
          <b>Goes for good:</b> name, phone, email, addresses, notes, tags, pictures, answers, messages, cards, links,
          and all of this in the record of changes.
        </Box>
        <Box>
          <b>Stays, as the law asks:</b> invoices and payments with their numbers and sums, and which work was done on
          which day. They are shown as “Erased customer”.
        </Box>
        <Box>This cannot be undone. Backups that were made before still hold what was erased.</Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Keep them</Button>
        <Button
          color="error"
          variant="contained"
          disabled={busy || blocked}
          onClick={() => void send({ customerId: customer.id })}
        >
          {busy ? "Erasing…" : "Erase for good"}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
