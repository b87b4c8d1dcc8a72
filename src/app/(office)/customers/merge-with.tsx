"use client";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { CustomerField } from "../customer-field";
import { type Customer, latest } from "./data";
import { type ChosenTerms, TermsToChoose, termsTaken } from "./terms-to-choose";

/** Two who are one: looked for, put side by side, and one of them kept. It can be taken back. */
export function MergeWith({ customer, onClose }: { customer: Customer; onClose: () => void }) {
  const router = useRouter();
  const undoable = useUndo();
  const [chosen, setChosen] = useState<{ id: number; name: string } | null>(null);
  const { data: other } = useLive("customer", chosen && { id: chosen.id, ...latest });
  const { data: differing } = useLive("merging-terms", chosen && { oneId: customer.id, otherId: chosen.id });
  const [whose, setWhose] = useState<ChosenTerms>({});
  const merge = useChange("merge-customers");
  const split = useChange("split-customers");
  const keep = async (kept: Customer, gone: Customer) => {
    const done = await merge.send({
      keepId: kept.id,
      goneId: gone.id,
      takes: termsTaken(differing?.terms ?? [], whose, gone.id),
    });
    if (!done) return;
    onClose();
    undoable(`They are one customer now: ${kept.name}`, () => split.send({ pairId: done.value.pairId }));
    if (kept.id !== customer.id) router.push(`/customers/${kept.id}`);
  };
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth>
      <DialogTitle>Merge {customer.name} with another customer</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 4 }}>
        <CustomerField label="The other customer" customer={chosen} without={customer.id} onCustomer={setChosen} />
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
                  disabled={merge.busy || !differing}
                  onClick={() => void keep(one, gone)}
                  sx={{ justifySelf: "start", mt: 1 }}
                >
                  Keep this one
                </Button>
              </Box>
            ))}
            {differing && (
              <TermsToChoose terms={differing.terms} sides={[customer, other]} chosen={whose} onChosen={setWhose} />
            )}
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
