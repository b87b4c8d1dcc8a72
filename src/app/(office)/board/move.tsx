"use client";
import { dayWords, windowWords } from "@/core/time/words";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import { useSnackbar } from "notistack";
import { useState } from "react";

export interface AskedMove {
  visit: { id: number; customer: string; windowFrom: number; windowTo: number; repeatId: number | null };
  date: string;
  technicianIds: number[];
  from: number;
  to: number;
  /** Who had it, for undoing; nobody where it was unplaced. */
  before: number[];
  /** Its customer has been promised another window, and is told. */
  tells: boolean;
  /** Of a time that several customers share, this one only. */
  alone?: boolean;
  /** Of a repeat, those that come after it too. */
  onwards?: boolean;
}

/** Moves a visit and offers to undo it. */
export function useMove() {
  const moveOne = useChange("move-visit");
  const moveRepeat = useChange("move-repeat-visit");
  const undoOnwards = useChange("undo-repeat-change");
  const { enqueueSnackbar } = useSnackbar();
  const sayWithUndo = useUndo();
  return async ({ visit, onwards = false, alone, ...wish }: AskedMove): Promise<boolean> => {
    const send = (technicianIds: number[], fromMinute: number, toMinute: number) => {
      const place = { visitId: visit.id, technicianIds, date: wish.date, fromMinute, toMinute };
      return visit.repeatId === null
        ? moveOne.send({ ...place, ...(alone && { alone }) })
        : moveRepeat.send({ ...place, onwards });
    };
    const done = await send(wish.technicianIds, wish.from, wish.to);
    if (!done) return false;
    const words = [
      done.value.told ? `${visit.customer} is told of the new time` : `${visit.customer} is placed`,
      onwards && "and those after it come likewise",
    ]
      .filter(Boolean)
      .join(", ");
    // What a customer has been told is not taken back behind their back; what was agreed for later is.
    if (onwards) sayWithUndo(words, () => undoOnwards.send({ repeatId: visit.repeatId! }));
    else if (wish.before.length && !done.value.told)
      sayWithUndo(words, () => send(wish.before, visit.windowFrom, visit.windowTo));
    else enqueueSnackbar(words, { variant: "success" });
    return true;
  };
}

/** Asked before a customer is told of another window, and where a visit comes back: whether those after it move along. */
export function MoveQuestion({
  wish,
  onYes,
  onNo,
}: {
  wish: AskedMove | null;
  onYes: (wish: AskedMove) => void;
  onNo: () => void;
}) {
  return (
    <Dialog open={!!wish} onClose={onNo}>
      {wish && <Question wish={wish} onYes={onYes} onNo={onNo} />}
    </Dialog>
  );
}

function Question({ wish, onYes, onNo }: { wish: AskedMove; onYes: (wish: AskedMove) => void; onNo: () => void }) {
  const [onwards, setOnwards] = useState(false);
  const { visit, tells } = wish;
  const comesBack = visit.repeatId !== null;
  return (
    <>
      <DialogTitle>{tells ? "Promise another window?" : "Only this one?"}</DialogTitle>
      <DialogContent>
        {tells
          ? `${visit.customer} was promised ${windowWords(visit.windowFrom, visit.windowTo)} and will be told the new time: ${dayWords(wish.date)}, ${windowWords(wish.from, wish.to)}.`
          : `${visit.customer}: ${dayWords(wish.date)}, ${windowWords(wish.from, wish.to)}.`}
        {comesBack && (
          <RadioGroup
            aria-label="Which visits of the repeat"
            value={onwards ? "onwards" : "one"}
            onChange={(e) => setOnwards(e.target.value === "onwards")}
            sx={{ mt: 3 }}
          >
            <FormControlLabel value="one" control={<Radio />} label="This one only" />
            <FormControlLabel
              value="onwards"
              control={<Radio />}
              label="From now on: this day, window and technician"
            />
          </RadioGroup>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onNo}>Leave it</Button>
        <Button variant="contained" onClick={() => onYes({ ...wish, ...(comesBack && { onwards }) })}>
          {tells ? `Move and tell ${visit.customer}` : "Move"}
        </Button>
      </DialogActions>
    </>
  );
}
