"use client";
import { addDays } from "@/core/time/dates";
import { dateWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { useLive, useShown } from "@/ui/live";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useState } from "react";

/** Up to which day nothing is posted any more. */
export function CloseBooks() {
  const { today } = useShown("money", {});
  const { data } = useLive("books-closed", {});
  const [open, setOpen] = useState(false);
  const [to, setTo] = useState<string | null>(null);
  const { send, busy, wrong } = useChange("close-books");
  const sayWithUndo = useUndo();
  if (!data) return null;
  const before = data.closedTo;
  const close = async () => {
    if (!(await send({ to }))) return;
    setOpen(false);
    sayWithUndo(to ? `The books are closed up to ${dateWords(to)}` : "The books are open", () => send({ to: before }));
  };
  return (
    <>
      <Button
        onClick={() => {
          setTo(before ?? addDays(`${today.slice(0, 7)}-01`, -1));
          setOpen(true);
        }}
      >
        {before ? `Closed up to ${dateWords(before)}…` : "Close the books…"}
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} maxWidth="xs" fullWidth>
        <DialogTitle>Close the books</DialogTitle>
        <DialogContent sx={{ display: "grid", gap: 3 }}>
          <p>
            Nothing is posted on a closed day any more: what comes later for it is posted on the first day that is open.
          </p>
          <DateField label="Closed up to" value={to} onValue={setTo} wrong={wrong("/to")} clearable />
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setOpen(false)}>Not now</Button>
          <Button variant="contained" disabled={busy || to === before} onClick={() => void close()}>
            {to ? `Close up to ${dateWords(to)}` : "Open all days"}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
