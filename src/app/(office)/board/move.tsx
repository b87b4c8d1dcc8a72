"use client";
import { dayWords, windowWords } from "@/core/time/words";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import { useSnackbar } from "notistack";

export interface AskedMove {
  visit: { id: number; customer: string; windowFrom: number; windowTo: number };
  date: string;
  technicianIds: number[];
  from: number;
  to: number;
  /** Who had it, for undoing; nobody where it was unplaced. */
  before: number[];
  /** Of a time that several customers share, this one only. */
  alone?: boolean;
}

/** Moves a visit and offers to undo it. */
export function useMove() {
  const { send } = useChange("move-visit");
  const { enqueueSnackbar } = useSnackbar();
  const sayWithUndo = useUndo();
  return async (wish: AskedMove): Promise<boolean> => {
    const done = await send({
      visitId: wish.visit.id,
      technicianIds: wish.technicianIds,
      date: wish.date,
      fromMinute: wish.from,
      toMinute: wish.to,
      ...(wish.alone && { alone: true }),
    });
    if (!done) return false;
    const words = done.value.told
      ? `${wish.visit.customer} is told of the new time`
      : `${wish.visit.customer} is placed`;
    const undo = () =>
      send({
        visitId: wish.visit.id,
        technicianIds: wish.before,
        date: wish.date,
        fromMinute: wish.visit.windowFrom,
        toMinute: wish.visit.windowTo,
        ...(wish.alone && { alone: true }),
      });
    // What a customer has been told is not taken back behind their back.
    if (wish.before.length && !done.value.told) sayWithUndo(words, undo);
    else enqueueSnackbar(words, { variant: "success" });
    return true;
  };
}

/** Asked before a customer is told of another window. */
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
      {wish && (
        <>
          <DialogTitle>Promise another window?</DialogTitle>
          <DialogContent>
            {wish.visit.customer} was promised {windowWords(wish.visit.windowFrom, wish.visit.windowTo)} and will be
            told the new time: {dayWords(wish.date)}, {windowWords(wish.from, wish.to)}.
          </DialogContent>
          <DialogActions>
            <Button onClick={onNo}>Leave it</Button>
            <Button variant="contained" onClick={() => onYes(wish)}>
              Move and tell {wish.visit.customer}
            </Button>
          </DialogActions>
        </>
      )}
    </Dialog>
  );
}
