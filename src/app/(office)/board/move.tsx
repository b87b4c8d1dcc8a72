"use client";
import type { OperationInput } from "@/api/client";
import { dayWords, windowWords } from "@/core/time/words";
import { useChange } from "@/ui/use-change";
import { useView } from "@/ui/use-view";
import { Ahead } from "../repeats/ahead";
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

type Which = OperationInput<"move-repeat-visit">["which"];
type Along = NonNullable<OperationInput<"move-repeat-visit">["along"]>;

const alongWords: Record<Along, string> = {
  "its day": "Those on this day of the week or month",
  "every day": "Every one, by as many days",
};

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
  /** Of a repeat, those that come after it too, or all that are not promised; and which of its days are meant. */
  which?: Which;
  along?: Along;
}

/** Moves a visit and offers to undo it. */
export function useMove() {
  const moveOne = useChange("move-visit");
  const moveRepeat = useChange("move-repeat-visit");
  const undoOnwards = useChange("undo-repeat-change");
  const { enqueueSnackbar } = useSnackbar();
  const sayWithUndo = useUndo();
  return async ({ visit, which = "this", along, alone, ...wish }: AskedMove): Promise<boolean> => {
    const send = (technicianIds: number[], fromMinute: number, toMinute: number) => {
      const place = { visitId: visit.id, technicianIds, date: wish.date, fromMinute, toMinute };
      return visit.repeatId === null
        ? moveOne.send({ ...place, ...(alone && { alone }) })
        : moveRepeat.send({ ...place, which, ...(which !== "this" && along && { along }) });
    };
    const done = await send(wish.technicianIds, wish.from, wish.to);
    if (!done) return false;
    const words = [
      done.value.told ? `${visit.customer} is told of the new time in a minute` : `${visit.customer} is placed`,
      which === "later" && "and those after it come likewise",
      which === "all" && "and all that nobody was promised come likewise",
    ]
      .filter(Boolean)
      .join(", ");
    if (which !== "this")
      sayWithUndo(
        `${words}.${done.value.told ? " Whoever has heard of it by then is told again if you take it back" : ""}`,
        () => undoOnwards.send({ repeatId: visit.repeatId! }),
      );
    else if (wish.before.length) sayWithUndo(words, () => send(wish.before, visit.windowFrom, visit.windowTo));
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
  const [which, setWhich] = useState<Which>("this");
  const [along, setAlong] = useState<Along>("its day");
  const { visit, tells } = wish;
  const comesBack = visit.repeatId !== null;
  const place = { technicianIds: wish.technicianIds, date: wish.date, fromMinute: wish.from, toMinute: wish.to };
  const { data: ahead } = useView(
    "repeat-change-ahead",
    comesBack ? { move: { visitId: visit.id, ...place, which, along } } : null,
  );
  const ways = ahead?.ways ?? [];
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
            value={which}
            onChange={(e) => setWhich(e.target.value as Which)}
            sx={{ mt: 3 }}
          >
            <FormControlLabel value="this" control={<Radio />} label="This one only" />
            <FormControlLabel
              value="later"
              control={<Radio />}
              label="From now on: this day, window and technician; what is promised moves along"
            />
            <FormControlLabel
              value="all"
              control={<Radio />}
              label="All that nobody was promised yet; what is promised stays"
            />
          </RadioGroup>
        )}
        {ways.length > 1 && (
          <RadioGroup
            aria-label="Which days are meant"
            value={along}
            onChange={(e) => setAlong(e.target.value as Along)}
            sx={{ mt: 2, pl: 4 }}
          >
            {ways.map((way) => (
              <FormControlLabel key={way} value={way} control={<Radio />} label={alongWords[way]} />
            ))}
          </RadioGroup>
        )}
        {comesBack && <Ahead ahead={ahead} />}
      </DialogContent>
      <DialogActions>
        <Button onClick={onNo}>Leave it</Button>
        <Button
          variant="contained"
          disabled={comesBack && ahead?.problem !== null}
          onClick={() => onYes({ ...wish, ...(comesBack && { which, along }) })}
        >
          {tells ? `Move and tell ${visit.customer}` : "Move"}
        </Button>
      </DialogActions>
    </>
  );
}
