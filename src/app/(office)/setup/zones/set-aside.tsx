"use client";
import { without } from "@/ui/form-frame";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Button from "@mui/material/Button";
import type { Zone } from "../data";

export function SetAside({ zone, saved }: { zone: Zone; saved: (id?: number) => void }) {
  const { send, busy } = useChange("set-zone-aside");
  const put = useChange("save-zone", { then: () => saved(zone.id) });
  const sayWithUndo = useUndo();
  const aside = async () => {
    if (!(await send({ id: zone.id }))) return;
    const stay = `${zone.promised} promised ${zone.promised === 1 ? "visit stays" : "visits stay"}`;
    sayWithUndo(`${zone.name} is archived${zone.promised ? `; ${stay}` : ""}`, () =>
      put.send(without(zone, "promised")),
    );
    saved();
  };
  return (
    <Button disabled={busy} onClick={() => void aside()}>
      Archive
    </Button>
  );
}
