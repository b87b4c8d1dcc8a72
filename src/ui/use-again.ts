"use client";
import { useEffect, useRef } from "react";

const everyMs = 5_000;

/** Does what failed again by itself, as soon as there is a connection; `null` where nothing has failed. */
export function useAgain(again: (() => void) | null): void {
  const latest = useRef(again);
  latest.current = again;
  const waits = again !== null;
  useEffect(() => {
    if (!waits) return;
    const run = () => latest.current?.();
    window.addEventListener("online", run);
    const timer = setInterval(run, everyMs);
    return () => {
      window.removeEventListener("online", run);
      clearInterval(timer);
    };
  }, [waits]);
}
