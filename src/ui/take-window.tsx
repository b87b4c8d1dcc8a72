"use client";
import { windowIn } from "@/core/time/local-words";
import { dayWords } from "@/core/time/words";
import { type PickedWindow, PickerSkeleton, WindowPicker } from "@/ui/window-picker";
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useState } from "react";

/** Windows of which a customer takes one with one press. */
export function TakeWindow({
  offers,
  problem,
  none,
  timeZone,
  busy,
  verb = "Book",
  onOurWayBp,
  onTake,
}: {
  offers: readonly PickedWindow[] | null;
  problem: { sentence: string } | null;
  /** What is said where nothing is free. */
  none: string;
  timeZone: string;
  busy: boolean;
  verb?: string;
  /** What is taken off where we are near anyway. */
  onOurWayBp?: number;
  /** Answers whether it was taken: where it was not, another one is chosen. */
  onTake: (window: PickedWindow) => Promise<boolean>;
}) {
  const [chosen, setChosen] = useState<PickedWindow | null>(null);
  const take = async (window: PickedWindow) => {
    if (!(await onTake(window))) setChosen(null);
  };
  return (
    <>
      {problem && (
        <Alert severity="warning" sx={{ mt: 3, fontSize: 16 }}>
          {problem.sentence}
        </Alert>
      )}
      {!offers && !problem && <PickerSkeleton />}
      {offers?.length === 0 && <Typography>{none}</Typography>}
      {offers && offers.length > 0 && (
        <>
          <WindowPicker offers={offers} chosen={chosen} onOurWayBp={onOurWayBp} onChoose={setChosen} />
          <Button
            variant="contained"
            fullWidth
            disabled={!chosen || busy}
            onClick={() => chosen && void take(chosen)}
            sx={{ minHeight: 52, fontSize: 17, mt: 3 }}
          >
            {busy
              ? "One moment…"
              : chosen
                ? `${verb} ${dayWords(chosen.date)}, ${windowIn(chosen.from, chosen.to, timeZone)}`
                : "Choose a time"}
          </Button>
        </>
      )}
    </>
  );
}
