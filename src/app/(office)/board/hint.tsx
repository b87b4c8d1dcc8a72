"use client";
import { ink } from "@/ui/palette";
import Paper from "@mui/material/Paper";
import Popper from "@mui/material/Popper";
import { type ReactNode, useEffect, useState } from "react";

const afterMs = 250;

/** One hover card for everything within that has `data-hint`: under the pointer, or where the keyboard is. */
export function Hints({ off, children }: { off: boolean; children: ReactNode }) {
  const [over, setOver] = useState<HTMLElement | null>(null);
  const [shown, setShown] = useState<HTMLElement | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => setShown(over), over ? afterMs : 0);
    return () => clearTimeout(timer);
  }, [over]);
  const hinted = (target: EventTarget) =>
    target instanceof HTMLElement ? target.closest<HTMLElement>("[data-hint]") : null;
  const anchor = off || !shown?.isConnected ? null : shown;
  return (
    <div
      style={{ display: "contents" }}
      onPointerOver={(event) => setOver(hinted(event.target))}
      onPointerLeave={() => setOver(null)}
      onFocus={(event) => setOver(hinted(event.target))}
      onBlur={() => setOver(null)}
    >
      {children}
      <Popper open={anchor !== null} anchorEl={anchor} placement="bottom" sx={{ zIndex: 1500, pointerEvents: "none" }}>
        <Paper sx={{ bgcolor: ink.ink, color: "#fff", fontSize: 13, px: 2.5, py: 1.5, maxWidth: 320, mt: 1 }}>
          {anchor?.dataset.hint}
        </Paper>
      </Popper>
    </div>
  );
}
