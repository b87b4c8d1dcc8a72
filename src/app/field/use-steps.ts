import { change } from "@/api/client";
import { furtherOf, type VisitState } from "@/core/visits/states";
import { useEffect, useRef, useState } from "react";
import { type KeptStep, makeStepQueue, type StepOnPhone, type StepQueue } from "./step-queue";

/** The steps taken on this phone. Each one that is accepted calls `onSent`. */
export function useSteps(onSent: () => void) {
  const queue = useRef<StepQueue | null>(null);
  const [steps, setSteps] = useState<StepOnPhone[]>([]);
  const sent = useRef(onSent);
  useEffect(() => void (sent.current = onSent), [onSent]);

  useEffect(() => {
    const opened = makeStepQueue({
      storage: localStorage,
      // One tab at a time, where the browser knows how: two open pages share what is kept.
      send: (step) =>
        inTurn(() => change("advance-visit", step)).then((result) => {
          sent.current();
          return result;
        }),
      onChange: () => setSteps(opened.steps()),
    });
    queue.current = opened;
    setSteps(opened.steps());
    return opened.close;
  }, []);

  /** Where a visit stands: as the server said last, or further on by what has been tapped since. */
  const stateOf = (visit: { id: number; state: VisitState }): VisitState =>
    steps
      .filter((step) => step.visitId === visit.id && step.state !== "refused")
      .reduce((state, step) => furtherOf(state, step.to), visit.state);
  return {
    take: (step: KeptStep) => queue.current?.take(step),
    dismiss: (id: number) => queue.current?.dismiss(id),
    kept: steps.filter((step) => step.state === "kept"),
    refused: steps.filter((step) => step.state === "refused"),
    stateOf,
  };
}

const inTurn = <T>(send: () => Promise<T>): Promise<T> =>
  "locks" in navigator ? (navigator.locks.request("hogar field steps", send) as Promise<T>) : send();

/** What is ticked of each visit's checklist, kept on the phone until the visit is over. */
export function useTicks() {
  const [ticks, keep] = useKept<string[]>("hogar field ticks");
  return {
    ticksOf: (visit: { id: number; checklist: readonly { id: string; done: boolean }[] }) =>
      ticks[visit.id] ?? visit.checklist.filter((item) => item.done).map((item) => item.id),
    tick: keep,
  };
}

/** In how many months each customer is to be asked again, as it was chosen on this phone; null is not at all. */
export function useAgain() {
  const [chosen, keep] = useKept<number | null>("hogar field again");
  return {
    againOf: (visit: { id: number; againMonths: number | null }) =>
      chosen[visit.id] === undefined ? visit.againMonths : chosen[visit.id]!,
    setAgain: keep,
  };
}

/** Something chosen for a visit, kept on the phone: a page that is loaded anew has it still. */
function useKept<T>(key: string): [Record<number, T>, (visitId: number, value: T) => void] {
  const [kept, setKept] = useState<Record<number, T>>({});
  useEffect(() => setKept(readKept<T>(key)), [key]);
  const keep = (visitId: number, value: T) => {
    const next = { ...kept, [visitId]: value };
    localStorage.setItem(key, JSON.stringify(next));
    setKept(next);
  };
  return [kept, keep];
}

function readKept<T>(key: string): Record<number, T> {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? "{}") as unknown;
    return typeof kept === "object" && kept !== null ? (kept as Record<number, T>) : {};
  } catch {
    return {};
  }
}
