"use client";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Button from "@mui/material/Button";
import type { Technician } from "../data";

/** Somebody leaves; what was promised goes to the tray, what was done stays. */
export function Leaving({ technician, saved }: { technician: Technician; saved: (id?: number) => void }) {
  const sayWithUndo = useUndo();
  const { send, busy } = useChange("set-technician-active", {
    then({ freed }, { active }) {
      if (active) return saved(technician.id);
      const waits = freed
        ? `${freed} ${freed === 1 ? "visit waits" : "visits wait"} in the tray.`
        : "No visit was waiting.";
      sayWithUndo(`${technician.name} has left the team. ${waits}`, back, freed ? "warning" : "success");
      saved();
    },
  });
  const leave = () => send({ id: technician.id, active: false });
  const back = () => send({ id: technician.id, active: true });
  return technician.active ? (
    <Button disabled={busy} onClick={() => void leave()}>
      {technician.promised
        ? `Deactivate: ${technician.promised} ${technician.promised === 1 ? "visit goes" : "visits go"} to the tray`
        : "Deactivate"}
    </Button>
  ) : (
    <Button disabled={busy} variant="outlined" onClick={() => void back()}>
      Is back on the team
    </Button>
  );
}
