"use client";
import { useEffect } from "react";

const typing = "input, textarea, [contenteditable], [role=dialog], [role=menu], [role=listbox]";

/** Keys of a screen, by their letter: they do nothing while somebody types or something is open over it, nor with Ctrl, Cmd or Alt. */
export function useKeys(keys: Record<string, () => void>): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { target } = event;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (target instanceof HTMLElement && target.closest(typing)) return;
      const act = keys[event.key.toLowerCase()];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
}
