"use client";
import { type FieldStep } from "@/core/visits/states";
import { useChange } from "@/ui/use-change";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import type { VisitDetails } from "./data";

const stepWords: Record<FieldStep, string> = {
  "on the way": "On the way",
  "on site": "On site",
  done: "Done",
  "no access": "No access",
};

export function Steps({ visit, ticked }: { visit: VisitDetails; ticked: string[] }) {
  const { send, busy } = useChange("advance-visit");
  return (
    <Stack direction="row" spacing={2} sx={{ mt: 3 }}>
      {visit.steps.map((to) => (
        <Button
          key={to}
          variant="outlined"
          disabled={busy}
          onClick={() => void send({ visitId: visit.id, to, ticked })}
        >
          {stepWords[to]}
        </Button>
      ))}
    </Stack>
  );
}
