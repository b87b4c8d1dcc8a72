"use client";
import { type FieldStep } from "@/core/visits/states";
import { DateField } from "@/ui/date-field";
import { useChange } from "@/ui/use-change";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { useState } from "react";
import type { VisitDetails } from "./data";

const stepWords: Record<FieldStep, string> = {
  "on the way": "On the way",
  "on site": "On site",
  done: "Done",
  "no access": "No access",
};

export function Steps({ visit, ticked }: { visit: VisitDetails; ticked: string[] }) {
  const { send, busy, wrong } = useChange("advance-visit");
  const [on, setOn] = useState(visit.date);
  const isLate = visit.date < visit.today;
  return (
    <Stack direction="row" spacing={2} sx={{ mt: 3 }}>
      {isLate && visit.steps.length > 0 && (
        <DateField label="It was on" value={on} onValue={(day) => day && setOn(day)} wrong={wrong("/on")} width={170} />
      )}
      {visit.steps.map((to) => (
        <Button
          key={to}
          variant="outlined"
          disabled={busy}
          onClick={() => void send({ visitId: visit.id, to, ticked, ...(isLate && { on }) })}
        >
          {stepWords[to]}
        </Button>
      ))}
    </Stack>
  );
}
