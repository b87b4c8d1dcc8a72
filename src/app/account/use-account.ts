"use client";
import { post } from "@/api/client";
import type { Problem } from "@/core/problems";
import { useRefresh } from "@/ui/live";
import { useState } from "react";

/** Sends a change of one's own way in, and keeps the sentences for its fields. */
export function useAccount<T>(what: "password" | "add-second-factor" | "remove-second-factor") {
  const refresh = useRefresh();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const send = async (input: object): Promise<{ value: T } | null> => {
    setBusy(true);
    const result = await post<T>(`/api/account/${what}`, input);
    setBusy(false);
    setProblem(result.ok ? null : result.problem);
    if (!result.ok) return null;
    refresh();
    return { value: result.value };
  };
  const wrong = (field: string) => problem?.fields?.[field];
  return { send, busy, wrong, sentence: problem && !problem.fields ? problem.sentence : null };
}
