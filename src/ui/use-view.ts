"use client";
import type { ViewName } from "@/api/client";
import { ask, type ViewInput, type ViewOutput } from "@/api/client";
import type { Problem } from "@/core/problems";
import { useAgain } from "./use-again";
import { useCallback, useEffect, useState } from "react";

/** Reads a view in the browser; `null` as input reads nothing. An answer that has been overtaken is dropped. */
export function useView<N extends ViewName>(name: N, input: ViewInput<N> | null, link?: string) {
  const [state, setState] = useState<{ data: ViewOutput<N> | null; problem: Problem | null }>({
    data: null,
    problem: null,
  });
  const [round, setRound] = useState(0);
  const key = input === null ? null : JSON.stringify(input);

  useEffect(() => {
    if (key === null) return setState({ data: null, problem: null });
    let current = true;
    void ask(name, JSON.parse(key) as ViewInput<N>, link).then((result) => {
      if (current)
        setState(result.ok ? { data: result.value, problem: null } : { data: null, problem: result.problem });
    });
    return () => void (current = false);
  }, [name, key, link, round]);

  useAgain(state.problem?.code === "offline" ? () => setRound((n) => n + 1) : null);

  return { ...state, refresh: useCallback(() => setRound((n) => n + 1), []) };
}
