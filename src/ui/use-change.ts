"use client";
import { useSnackbar } from "notistack";
import { useCallback, useState } from "react";
import { change, type OperationInput, type OperationOutput } from "@/api/client";
import type { OperationName } from "@/api/names";
import type { Problem } from "@/core/problems";

/**
 * Sends an operation, says how it went, and keeps sentences for the fields. What was typed stays where
 * it is. `quiet` where the page itself shows what was refused.
 */
export function useChange<N extends OperationName>(name: N, { quiet = false } = {}) {
  const { enqueueSnackbar } = useSnackbar();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);

  const send = useCallback(
    async (input: OperationInput<N>, link?: string): Promise<{ value: OperationOutput<N> } | null> => {
      setBusy(true);
      const result = await change(name, input, link);
      setBusy(false);
      setProblem(result.ok ? null : result.problem);
      if (result.ok) return { value: result.value };
      if (!result.problem.fields && !quiet) enqueueSnackbar(result.problem.sentence, { variant: "error" });
      return null;
    },
    [name, quiet, enqueueSnackbar],
  );
  const wrong = useCallback((pointer: string) => problem?.fields?.[pointer], [problem]);
  const clear = useCallback(() => setProblem(null), []);
  return { send, busy, problem, wrong, clear };
}
