"use client";
import { dayShort } from "@/core/time/words";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import { type PickedWindow, PickerSkeleton, WindowPicker } from "@/ui/window-picker";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { useSnackbar } from "notistack";
import { useState } from "react";
import type { RepeatDetails } from "./data";

/** The date about which somebody is asked: where it stands, and what a person does about it. */
export function AskSection({ repeat, mayChange }: { repeat: RepeatDetails; mayChange: boolean }) {
  const { ask, nextToAsk } = repeat;
  const [booking, setBooking] = useState(false);
  const askNow = useChange("ask-now");
  const leaveOut = useChange("leave-out-asked");
  const { enqueueSnackbar } = useSnackbar();
  const date = ask?.date ?? nextToAsk;
  if (date === null) return null;
  const about = { repeatId: repeat.id, date };
  const askThem = async () => {
    if (await askNow.send(about)) enqueueSnackbar(`${repeat.customer.name} is asked`, { variant: "success" });
  };
  const skip = async () => {
    if (await leaveOut.send(about)) enqueueSnackbar("Left out this time", { variant: "success" });
  };
  return (
    <SheetSection title="Asked first">
      <Box sx={{ fontSize: 14.5, mb: 2, color: ask?.state === "for us" ? ink.ember : ink.ink }}>
        {dayShort(date)} {date.slice(0, 4)}: {asked(ask)}
        {ask?.answer && ` “${ask.answer}”`}
      </Box>
      {mayChange && (
        <Stack direction="row" spacing={2} sx={{ flexWrap: "wrap" }}>
          {ask && (
            <Button variant="contained" aria-expanded={booking} onClick={() => setBooking(!booking)}>
              Book it…
            </Button>
          )}
          <Button variant="outlined" disabled={askNow.busy} onClick={() => void askThem()}>
            {ask?.times ? "Ask once more" : "Ask by link now"}
          </Button>
          {ask && (
            <Button variant="outlined" disabled={leaveOut.busy} onClick={() => void skip()}>
              Leave it out
            </Button>
          )}
        </Stack>
      )}
      {booking && ask && <BookAgain about={about} name={repeat.customer.name} onDone={() => setBooking(false)} />}
    </SheetSection>
  );
}

const asked = (ask: RepeatDetails["ask"]): string =>
  ask === null
    ? "not asked yet."
    : ask.state === "asked"
      ? `asked on ${dayShort(ask.asked_on!)}${ask.times > 1 ? `, ${ask.times} times` : ""}, no answer yet.`
      : ask.times > 0
        ? `asked ${ask.times === 1 ? "once" : `${ask.times} times`}; waits for you. Phone them.`
        : "waits for you. Phone them.";

function BookAgain({
  about,
  name,
  onDone,
}: {
  about: { repeatId: number; date: string };
  name: string;
  onDone: () => void;
}) {
  const { data: offers, problem } = useLive("again-offers", about);
  const [chosen, setChosen] = useState<PickedWindow | null>(null);
  const { send, busy } = useChange("book-again");
  const { enqueueSnackbar } = useSnackbar();
  const book = async ({ date, from, to }: PickedWindow) => {
    if (!(await send({ ...about, window: { date, from, to } }))) return;
    enqueueSnackbar(`${name} is booked, and told`, { variant: "success" });
    onDone();
  };
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!offers) return <PickerSkeleton />;
  if (offers.length === 0) return <Box sx={{ mt: 3, color: ink.ash }}>Nobody has room around this day.</Box>;
  return (
    <Box sx={{ mt: 3 }}>
      <WindowPicker offers={offers} chosen={chosen} onChoose={setChosen} />
      <Button
        variant="contained"
        fullWidth
        disabled={!chosen || busy}
        onClick={() => chosen && void book(chosen)}
        sx={{ mt: 2 }}
      >
        {chosen ? `Book ${dayShort(chosen.date)}, ${chosen.words}` : "Choose a time"}
      </Button>
    </Box>
  );
}
