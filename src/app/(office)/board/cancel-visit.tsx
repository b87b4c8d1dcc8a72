"use client";
import { moneyWords } from "@/core/money/amounts";
import { visitStates } from "@/core/visits/states";
import { SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useState } from "react";
import type { VisitDetails } from "./data";

export function Cancel({ visit }: { visit: VisitDetails }) {
  const [asking, setAsking] = useState(false);
  const [refund, setRefund] = useState(true);
  const [fee, setFee] = useState(false);
  const [all, setAll] = useState(false);
  const others = visit.comes?.who.filter((one) => one.id !== visit.id && visitStates.allows("cancel", one.state)) ?? [];
  const { send, busy } = useChange("cancel-visit", { then: () => setAsking(false) });
  return (
    <SheetSection title="Cancel">
      <Button color="error" variant="outlined" size="small" onClick={() => setAsking(true)}>
        Cancel this visit…
      </Button>
      <Dialog open={asking} onClose={() => setAsking(false)}>
        <DialogTitle>Cancel the visit at {visit.customer.name}?</DialogTitle>
        <DialogContent>
          {visit.begunElsewhere &&
            "Work has begun on another day: this day alone is cancelled, and what is done is billed. "}
          {all ? `All ${others.length + 1} customers are` : "The customer is"} told by email. This cannot be taken back.
          {others.length > 0 && (
            <FormControlLabel
              sx={{ display: "flex", mt: 3 }}
              control={<Checkbox checked={all} onChange={(e) => setAll(e.target.checked)} />}
              label={`Cancel the whole time: ${others.map((one) => one.customer).join(", ")} as well`}
            />
          )}
          {((!!visit.depositMinor && !visit.begunElsewhere) || all) && (
            <FormControlLabel
              sx={{ display: "flex", mt: 3 }}
              control={<Checkbox checked={refund} onChange={(e) => setRefund(e.target.checked)} />}
              label={
                all ? "Pay back deposits" : `Pay back the deposit of ${moneyWords(visit.depositMinor!, visit.currency)}`
              }
            />
          )}
          {visit.state === "no access" && visit.noAccessMinor > 0 && (
            <FormControlLabel
              sx={{ display: "flex", mt: 3 }}
              control={<Checkbox checked={fee} onChange={(e) => setFee(e.target.checked)} />}
              label={`Ask ${moneyWords(visit.noAccessMinor, visit.currency)}, since nobody let us in`}
            />
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setAsking(false)}>Keep it</Button>
          <Button
            color="error"
            variant="contained"
            disabled={busy}
            onClick={() => void send({ visitId: visit.id, refundDeposit: refund, chargeNoAccess: fee, all })}
          >
            Cancel and tell
          </Button>
        </DialogActions>
      </Dialog>
    </SheetSection>
  );
}
