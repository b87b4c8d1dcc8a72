"use client";
import type { ViewOutput } from "@/api/client";
import { useLive } from "@/ui/live";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import TextField from "@mui/material/TextField";
import { useState } from "react";

type Numbers = ViewOutput<"account-numbers">;

/** The owner's own number of each account, for the journal. */
export function AccountNumbers() {
  const { data } = useLive("account-numbers", {});
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button disabled={!data} onClick={() => setOpen(true)}>
        Account numbers…
      </Button>
      {open && data && <Form known={data} onClose={() => setOpen(false)} />}
    </>
  );
}

function Form({ known, onClose }: { known: Numbers; onClose: () => void }) {
  const [numbers, setNumbers] = useState(known);
  const { send, busy } = useChange("save-account-numbers", { compares: true });
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <DialogTitle>Account numbers</DialogTitle>
      <DialogContent>
        <Box sx={{ display: "grid", gap: 3, pt: 1 }}>
          {numbers.map(({ account, number }, i) => (
            <TextField
              key={account}
              size="small"
              label={account}
              value={number}
              onChange={(e) =>
                setNumbers(numbers.map((one, j) => (j === i ? { ...one, number: e.target.value } : one)))
              }
              slotProps={{ htmlInput: { maxLength: 20 } }}
            />
          ))}
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Not now</Button>
        <Button variant="contained" disabled={busy} onClick={async () => (await send({ numbers })) && onClose()}>
          Save
        </Button>
      </DialogActions>
    </Dialog>
  );
}
