"use client";
import { change, type OperationInput, type OperationName, type OperationOutput } from "@/api/client";
import type { Problem } from "@/core/problems";
import { useSnackbar } from "notistack";
import { useCallback, useRef, useState } from "react";
import { useAfterChange, useKnownChange } from "./after-change";

interface ChangeOptions<N extends OperationName> {
  /** The page itself shows what was refused. */
  quiet?: boolean;
  /** It saves what was there before: where somebody else has saved it since, that is said first, and shown. */
  compares?: boolean;
  /** What follows when it is done. */
  then?: (value: OperationOutput<N>, input: OperationInput<N>) => void;
}

/**
 * Sends an operation, says how it went, and keeps sentences for the fields. What was typed stays where
 * it is. In the office what is on the screen is read again afterwards.
 */
export function useChange<N extends OperationName>(
  name: N,
  { quiet = false, compares = false, then }: ChangeOptions<N> = {},
) {
  const { enqueueSnackbar } = useSnackbar();
  const afterChange = useAfterChange();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const follows = useRef(then);
  follows.current = then;
  const known = useRef(useKnownChange());

  const send = useCallback(
    async (
      input: OperationInput<N>,
      link?: string,
      since?: number,
    ): Promise<{ value: OperationOutput<N>; asOf?: number | undefined } | null> => {
      setBusy(true);
      const result = await change(name, input, link, compares ? known.current : since);
      setBusy(false);
      setProblem(result.ok ? null : result.problem);
      if (result.ok) {
        if (compares) known.current = result.asOf;
        void afterChange();
        follows.current?.(result.value, input);
        return { value: result.value, asOf: result.asOf };
      }
      const meanwhile = result.problem.code === "changed-meanwhile";
      if (meanwhile && compares) {
        known.current = (result.problem.details as { asOf: number }).asOf;
        void afterChange();
      }
      // A form that compares by itself shows what both have changed.
      if (!result.problem.fields && !quiet && (!meanwhile || compares))
        enqueueSnackbar(result.problem.sentence, { variant: "error" });
      return null;
    },
    [name, quiet, compares, enqueueSnackbar, afterChange],
  );
  const wrong = useCallback((pointer: string) => problem?.fields?.[pointer], [problem]);
  const clear = useCallback(() => setProblem(null), []);
  return { send, busy, problem, wrong, clear };
}
