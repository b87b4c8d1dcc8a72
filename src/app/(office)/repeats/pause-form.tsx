"use client";
import { addDays } from "@/core/time/dates";
import { DateField } from "@/ui/date-field";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { useState } from "react";
import type { RepeatDetails } from "./data";
import { TogetherField } from "./together-field";

/** Nobody comes from one day to another: what that does is said before. */
export function PauseForm({ repeat, onDone }: { repeat: RepeatDetails; onDone: () => void }) {
  const [first, setFirst] = useState(addDays(repeat.today, 1));
  const [last, setLast] = useState(addDays(repeat.today, 30));
  const [together, setTogether] = useState(repeat.together.length > 0);
  const { send, busy, wrong } = useChange("pause-repeat");
  const endPause = useChange("end-pause");
  const sayWithUndo = useUndo();
  const inside = repeat.coming.filter(({ date }) => first <= date && date <= last);
  const promised = inside.filter(({ state }) => state !== null && state !== "forecast").length;
  const pause = async () => {
    const done = await send({ repeatId: repeat.id, first, last, together });
    if (!done) return;
    onDone();
    sayWithUndo("The repeat pauses", async () => {
      for (const pause of done.value.pauses) await endPause.send(pause);
    });
  };
  return (
    <Box sx={{ mt: 3, p: 3, bgcolor: ink.plaster, borderRadius: "6px" }}>
      <Stack direction="row" spacing={2}>
        <DateField label="From" value={first} onValue={(day) => day && setFirst(day)} wrong={wrong("/first")} />
        <DateField label="Until" value={last} onValue={(day) => day && setLast(day)} wrong={wrong("/last")} />
      </Stack>
      <TogetherField repeat={repeat} value={together} onValue={setTogether} />
      <Box role="status" sx={{ my: 3, fontSize: 14.5 }}>
        {inside.length - promised === 1 ? "1 date does" : `${inside.length - promised} dates do`} not take place.
        {promised > 0 &&
          ` ${promised} promised ${promised === 1 ? "visit stays" : "visits stay"}: move or cancel them on the board.`}
      </Box>
      <Button variant="contained" disabled={busy || last < first} onClick={() => void pause()}>
        Pause
      </Button>
    </Box>
  );
}
