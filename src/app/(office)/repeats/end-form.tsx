"use client";
import { dayShort } from "@/core/time/words";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { RepeatDetails } from "./data";
import { TogetherField } from "./together-field";

/** Ends a repeat, with the reason: what that does is said before. */
export function EndForm({ repeat, onDone }: { repeat: RepeatDetails; onDone: () => void }) {
  const [reason, setReason] = useState("");
  const [together, setTogether] = useState(repeat.together.length > 0);
  const end = useChange("end-repeat");
  const resume = useChange("resume-repeat");
  const sayWithUndo = useUndo();
  const forecasts = repeat.coming.filter(({ state }) => state === "forecast").length;
  const promised = repeat.coming.filter(({ state }) => state !== null && state !== "forecast");
  const endIt = async () => {
    if (!(await end.send({ repeatId: repeat.id, reason, together }))) return;
    onDone();
    sayWithUndo(`${repeat.customer.name}’s repeat is ended`, async () => {
      for (const { id } of [repeat, ...(together ? repeat.together : [])]) await resume.send({ repeatId: id });
    });
  };
  return (
    <Box sx={{ mt: 3, p: 3, bgcolor: ink.plaster, borderRadius: "6px", display: "grid", gap: 3 }}>
      <TextField
        label="Why, for ourselves"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        slotProps={{ htmlInput: { maxLength: 300 } }}
      />
      <TogetherField repeat={repeat} value={together} onValue={setTogether} />
      <Box role="status" sx={{ fontSize: 14.5 }}>
        {forecasts === 1 ? "1 forecast goes" : `${forecasts} forecasts go`}.
        {promised.length > 0 &&
          ` Promised and told, ${promised.map(({ day }) => dayShort(day!)).join(", ")} ${promised.length === 1 ? "stays" : "stay"}: cancel on the board what is not to be.`}{" "}
        Nobody is told of the end.
      </Box>
      <Button
        variant="contained"
        color="error"
        disabled={end.busy}
        onClick={() => void endIt()}
        sx={{ justifySelf: "start" }}
      >
        End it
      </Button>
    </Box>
  );
}
