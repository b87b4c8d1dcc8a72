"use client";
import type { ViewOutput } from "@/api/client";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { isEntry, type Waiting } from "./data";
import { DeclineForm } from "./decline-form";

/** What can be done with several at once. `onDone` says what was done: they are no longer chosen then. */
export function ChosenBar({
  chosen,
  view: { people, meId },
  onDone,
}: {
  chosen: readonly Waiting[];
  view: Pick<ViewOutput<"incoming">, "people" | "meId">;
  onDone: (words: string) => void;
}) {
  const [declining, setDeclining] = useState(false);
  const approve = useChange("approve-bookings", {
    then: (_, { jobIds }) => onDone(`${jobIds.length} confirmed, and told`),
  });
  const answer = useChange("answer-requests", { then: (_, { ids }) => onDone(`${ids.length} answered`) });
  const takeOn = useChange("take-on", { then: () => onDone("Handed over") });
  const taken = chosen.map(({ kind, id }) => ({ kind, id }));
  const entries = chosen.filter(isEntry).map(({ kind, id }) => ({ kind, id }));
  const bookings = chosen.filter((e) => e.kind === "booking" && e.forUs);
  const requests = chosen.filter((e) => e.kind === "request");
  return (
    <>
      <b>{chosen.length} chosen</b>
      {bookings.length > 0 && (
        <Button
          variant="contained"
          size="small"
          disabled={approve.busy}
          onClick={() => void approve.send({ jobIds: bookings.map((e) => e.id) })}
        >
          Confirm {bookings.length} {bookings.length === 1 ? "booking" : "bookings"}
        </Button>
      )}
      {requests.length > 0 && (
        <Button
          variant="outlined"
          size="small"
          disabled={answer.busy}
          onClick={() => void answer.send({ ids: requests.map((e) => e.id) })}
        >
          Answered by phone
        </Button>
      )}
      {entries.length > 0 && (
        <Button size="small" onClick={() => setDeclining(!declining)} aria-expanded={declining}>
          Decline…
        </Button>
      )}
      <TextField
        select
        label="Who is on it"
        size="small"
        value=""
        onChange={(e) => void takeOn.send({ entries: taken, personId: Number(e.target.value) || null })}
        sx={{ width: 170 }}
      >
        {people.map((p) => (
          <MenuItem key={p.id} value={p.id}>
            {p.id === meId ? `${p.name} (me)` : p.name}
          </MenuItem>
        ))}
        <MenuItem value="0">nobody</MenuItem>
      </TextField>
      {declining && entries.length > 0 && (
        <Box sx={{ width: "100%", maxWidth: 640 }}>
          <DeclineForm entries={entries} onDone={() => onDone(`${entries.length} declined, and told`)} />
        </Box>
      )}
    </>
  );
}
