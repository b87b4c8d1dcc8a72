"use client";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import { useState } from "react";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import type { RepeatDetails } from "./data";
import { OtherWorkFields, type Others, PatternField } from "./pattern-fields";
import { OpenedForm } from "./term-fields";

/** What is done at its dates: the usual, the first time, and every so many times. */
export function WorkForm({ repeat, onDone }: { repeat: RepeatDetails; onDone: () => void }) {
  const { usual, first, nth } = repeat.work;
  const before = {
    patternId: usual,
    firstPatternId: first,
    nth: nth && { every: nth.every, patternId: nth.pattern },
  };
  const [patternId, setPatternId] = useState(usual);
  const [others, setOthers] = useState<Others>({ firstPatternId: before.firstPatternId, nth: before.nth });
  const { send, busy, wrong } = useChange("set-repeat-work");
  const sayWithUndo = useUndo();
  const save = async () => {
    if (!(await send({ repeatId: repeat.id, patternId, ...others }))) return;
    onDone();
    sayWithUndo("Its visits are done so from now on", () => send({ repeatId: repeat.id, ...before }));
  };
  if (repeat.patterns.length === 0)
    return (
      <Alert severity="info" sx={{ mt: 3 }}>
        There are no job patterns yet: name the work that comes back in{" "}
        <LinkBox href="/setup/job-patterns?id=new" sx={{ color: ink.lake }}>
          Set-up
        </LinkBox>
        .
      </Alert>
    );
  const forecasts = repeat.coming.filter(({ state }) => state === "forecast").length;
  return (
    <OpenedForm
      says={
        <>
          {forecasts === 1 ? "1 forecast is" : `${forecasts} forecasts are`} laid out anew with the time and the price
          of this work; what is promised stays as it was agreed.
        </>
      }
      disabled={busy}
      onDo={() => void save()}
    >
      <Box>
        <PatternField
          label="Usually"
          none={`as agreed: ${repeat.service}`}
          patterns={repeat.patterns}
          value={patternId}
          onValue={setPatternId}
        />
      </Box>
      <OtherWorkFields patterns={repeat.patterns} value={others} onValue={setOthers} wrong={wrong} />
    </OpenedForm>
  );
}
