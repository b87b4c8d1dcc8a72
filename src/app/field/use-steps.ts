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

const ticksKey = "hogar field ticks";
type Ticks = Record<number, string[]>;

/** What is ticked of each visit's checklist, kept on the phone until the visit is over. */
export function useTicks() {
  const [ticks, setTicks] = useState<Ticks>({});
  useEffect(() => setTicks(readTicks()), []);
  const tick = (visitId: number, ids: string[]) => {
    const next = { ...ticks, [visitId]: ids };
    localStorage.setItem(ticksKey, JSON.stringify(next));
    setTicks(next);
  };
  return {
    ticksOf: (visit: { id: number; checklist: readonly { id: string; done: boolean }[] }) =>
      ticks[visit.id] ?? visit.checklist.filter((item) => item.done).map((item) => item.id),
    tick,
  };
}

function readTicks(): Ticks {
  try {
    const kept = JSON.parse(localStorage.getItem(ticksKey) ?? "{}") as unknown;
    return typeof kept === "object" && kept !== null ? (kept as Ticks) : {};
  } catch {
    return {};
  }
}
