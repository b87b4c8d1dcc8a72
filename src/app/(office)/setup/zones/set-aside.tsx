"use client";
import { without } from "@/ui/form-frame";
import { useChange } from "@/ui/use-change";
import { usePromisesFirst } from "@/ui/use-promises-first";
import { useUndo } from "@/ui/use-undo";
import Button from "@mui/material/Button";
import type { Zone } from "../data";

export function SetAside({ zone, saved }: { zone: Zone; saved: (id?: number) => void }) {
  const { send, busy } = useChange("set-zone-aside");
  const put = useChange("save-zone", { then: () => saved(zone.id) });
  const sayWithUndo = useUndo();
  const { asks, first, settle } = usePromisesFirst();
  const aside = async () => {
    const settled = await first("set-zone-aside", { id: zone.id });
    if (!settled || !(await send({ id: zone.id }))) return;
    await settle(settled);
    sayWithUndo(`${zone.name} is archived`, () => put.send(without(zone, "promised")));
    saved();
  };
  return (
    <>
      {asks}
      <Button disabled={busy} onClick={() => void aside()}>
        Archive
      </Button>
    </>
  );
}
