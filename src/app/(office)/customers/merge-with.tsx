"use client";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import TextField from "@mui/material/TextField";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { type Customer, latest } from "./data";

/** Two who are one: looked for, put side by side, and one of them kept. It can be taken back. */
export function MergeWith({ customer, onClose }: { customer: Customer; onClose: () => void }) {
  const router = useRouter();
  const undoable = useUndo();
  const [text, setText] = useState("");
  const [otherId, setOtherId] = useState<number | null>(null);
  const { data: found } = useLive("find", text.trim().length < 2 ? null : { text });
  const { data: other } = useLive("customer", otherId === null ? null : { id: otherId, ...latest });
  const merge = useChange("merge-customers");
  const split = useChange("split-customers");
  const keep = async (kept: Customer, gone: Customer) => {
    const done = await merge.send({ keepId: kept.id, goneId: gone.id });
    if (!done) return;
    onClose();
    undoable(`They are one customer now: ${kept.name}`, () => split.send({ pairId: done.value.pairId }));
    if (kept.id !== customer.id) router.push(`/customers/${kept.id}`);
  };
  const options = (found?.customers ?? []).filter((c) => c.id !== customer.id);
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>Merge {customer.name} with another customer</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 4 }}>
        <Autocomplete
          options={options}
          filterOptions={(all) => all}
          getOptionLabel={(c) => c.name}
          getOptionKey={(c) => c.id}
          onInputChange={(_, value) => setText(value)}
          onChange={(_, value) => setOtherId(value?.id ?? null)}
          noOptionsText={text.trim().length < 2 ? "Type a part of the name, phone or street" : "Nobody is found"}
          renderOption={({ key, ...props }, option) => (
            <li key={key} {...props}>
              {option.name}
              <Box component="span" sx={{ color: ink.ash, ml: 2 }}>
                {option.detail}
              </Box>
            </li>
          )}
          renderInput={(params) => <TextField {...params} label="The other customer" autoFocus sx={{ mt: 1 }} />}
        />
        {other && (
          <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 5 }}>
            {(
              [
                [customer, other],
                [other, customer],
              ] as const
            ).map(([one, gone]) => (
              <Box
                key={one.id}
                sx={{ borderTop: `1px solid ${ink.line}`, pt: 2, display: "grid", gap: 1, alignContent: "start" }}
              >
                <b>{one.name}</b>
                <span>{one.phone}</span>
                <span>{one.mail}</span>
                {one.sites.map((site) => (
                  <span key={site.id}>
                    {site.line}, {site.postcode}
                  </span>
                ))}
                <span>{one.visits.coming.length + one.visits.pastCount} visits</span>
                <Button
                  variant="outlined"
                  disabled={merge.busy}
                  onClick={() => void keep(one, gone)}
                  sx={{ justifySelf: "start", mt: 1 }}
                >
                  Keep this one
                </Button>
              </Box>
            ))}
          </Box>
        )}
        <Box sx={{ color: ink.ash, fontSize: 14 }}>
          Sites, visits, invoices, messages and all else go to the one who is kept. It can be undone.
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
