"use client";
import type { ViewName } from "@/api/client";
import { ask, type ViewInput, type ViewOutput } from "@/api/client";
import { useCallback, useState } from "react";

/**
 * A view that came with the page and can be read again. Where the network is gone, what was read last
 * stays: reloading the page would lose it in a tunnel.
 */
export function useFresh<N extends ViewName>(
  initial: ViewOutput<N>,
  name: N,
  input: ViewInput<N>,
  link?: string,
): [ViewOutput<N>, () => void] {
  const [view, setView] = useState(initial);
  const key = JSON.stringify(input);
  const refresh = useCallback(() => {
    void ask(name, JSON.parse(key) as ViewInput<N>, link).then((result) => result.ok && setView(result.value));
  }, [name, key, link]);
  return [view, refresh];
}
