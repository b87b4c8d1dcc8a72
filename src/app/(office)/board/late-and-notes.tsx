"use client";
import { SheetSection } from "@/ui/side-sheet";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { VisitDetails } from "./data";

const minutesLate = [10, 20, 30, 45, 60] as const;

/** Tells the customer that we are late, by one press. */
export function RunningLate({ visit }: { visit: VisitDetails }) {
  const { send, busy } = useChange("tell-late");
  const [told, setTold] = useState<number | null>(null);
  if (visit.state !== "promised" && visit.state !== "on the way") return null;
  return (
    <SheetSection title="Running late">
      <Box role="group" aria-label="Tell the customer" sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
        {minutesLate.map((minutes) => (
          <Button
            key={minutes}
            size="small"
            variant="outlined"
            disabled={busy}
            onClick={async () => {
              if (await send({ visitId: visit.id, minutes })) setTold(minutes);
            }}
          >
            {minutes} min
          </Button>
        ))}
      </Box>
      <Box role="status" sx={{ color: ink.ash, fontSize: 14, mt: 1 }}>
        {told ? `The customer is told: about ${told} minutes later` : "Tells the customer at once"}
      </Box>
    </SheetSection>
  );
}

/** What the team says of a visit among themselves. */
export function TeamNotes({ visitId }: { visitId: number }) {
  const { data } = useLive("visit-notes", { visitId });
  const [words, setWords] = useState("");
  const { send, busy } = useChange("write-note", { then: () => setWords("") });
  return (
    <SheetSection title="Among the team">
      {data?.notes.map((note) => (
        <Box key={note.id} sx={{ borderTop: `1px solid ${ink.line}`, py: 1.5, fontSize: 14.5 }}>
          <Box sx={{ whiteSpace: "pre-wrap" }}>{note.words}</Box>
          <Box sx={{ color: ink.ash, fontSize: 13 }}>
            {note.writtenBy}, {note.when}
          </Box>
        </Box>
      ))}
      <Box
        component="form"
        onSubmit={(e) => {
          e.preventDefault();
          void send({ threadId: null, visitId, words });
        }}
        sx={{ display: "flex", gap: 2, mt: 2 }}
      >
        <TextField
          size="small"
          multiline
          fullWidth
          label="Say something to the team"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        <Button type="submit" disabled={busy || !words.trim()}>
          Note it
        </Button>
      </Box>
    </SheetSection>
  );
}
