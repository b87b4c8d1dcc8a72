"use client";
import { useEffect, useRef } from "react";
import { type Step, steps } from "./draft";

const stepIn = (hash: string): Step | null => steps.find((step) => `#${step}` === hash) ?? null;

/** Each step is an entry of the browser's history, so that a phone's back goes a step back. `off`: where the page is not ours alone. */
export function useStepHistory(step: Step, off: boolean, show: (step: Step) => void): void {
  const begun = useRef(false);
  const shown = useRef(show);
  shown.current = show;
  useEffect(() => {
    if (off) return;
    const place = begun.current ? "pushState" : "replaceState";
    begun.current = true;
    if (stepIn(location.hash) !== step) history[place](history.state, "", `#${step}`);
  }, [step, off]);
  useEffect(() => {
    if (off) return;
    const back = () => shown.current(stepIn(location.hash) ?? "where");
    window.addEventListener("popstate", back);
    return () => window.removeEventListener("popstate", back);
  }, [off]);
}
