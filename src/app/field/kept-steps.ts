"use client";
import { useCallback, useEffect, useState } from "react";
import { change } from "@/api/client";

export type FieldStep = "on the way" | "on site" | "done" | "no access";

interface KeptStep {
  visitId: number;
  to: FieldStep;
  /** What of the checklist was ticked, when the step was taken. */
  ticked?: string[];
}

const key = "hogar field steps";

const ticksKey = "hogar field ticks";
type Ticks = Record<number, string[]>;

/** What is ticked of each visit's checklist, kept on the phone until the visit is over. */
export function useTicks() {
  const [ticks, setTicks] = useState<Ticks>({});
  useEffect(() => setTicks(JSON.parse(localStorage.getItem(ticksKey) ?? "{}") as Ticks), []);
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

/**
 * What was tapped is kept on the phone first and sent in order: through a tunnel nothing is lost,
 * and a step that arrives twice changes nothing. A step that is refused is dropped and told.
 */
export function useKeptSteps(onSent: () => void) {
  const [waiting, setWaiting] = useState<KeptStep[]>([]);
  const [sent, setSent] = useState<KeptStep[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const [offline, setOffline] = useState(false);

  useEffect(() => setWaiting(JSON.parse(localStorage.getItem(key) ?? "[]") as KeptStep[]), []);

  const keep = useCallback((steps: KeptStep[]) => {
    localStorage.setItem(key, JSON.stringify(steps));
    setWaiting(steps);
  }, []);

  const first = waiting[0];
  useEffect(() => {
    if (!first) return;
    let stopped = false;
    const send = async () => {
      const result = await change("advance-visit", first);
      if (stopped) return;
      if (!result.ok && result.problem.code === "offline") return setOffline(true);
      setOffline(false);
      setProblem(result.ok ? null : result.problem.sentence);
      if (result.ok) setSent((before) => [...before, first]);
      keep(waiting.slice(1));
      onSent();
    };
    void send();
    const again = setInterval(() => void send(), 5000);
    return () => {
      stopped = true;
      clearInterval(again);
    };
  }, [first, waiting, keep, onSent]);

  const tap = (step: KeptStep) => keep([...waiting, step]);
  /** Where a visit stands: as the server said last, or further on by what has been tapped since. */
  const stateOf = (visit: { id: number; state: string }): string =>
    [...sent, ...waiting]
      .filter((step) => step.visitId === visit.id)
      .reduce((state, { to }) => (rank[to]! > (rank[state] ?? 0) ? to : state), visit.state);
  return { tap, waiting, stateOf, offline, problem };
}

const rank: Record<string, number> = {
  promised: 0,
  "on the way": 1,
  "on site": 2,
  done: 3,
  "no access": 3,
  cancelled: 4,
};
