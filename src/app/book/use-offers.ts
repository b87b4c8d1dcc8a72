"use client";
import { ask, type ViewInput } from "@/api/client";
import type { Problem } from "@/core/problems";
import { useView } from "@/ui/use-view";
import { useState } from "react";
import type { Offer } from "./data";

interface Further {
  /** The first look that these follow. */
  after: object;
  windows: Offer[];
  next: string | null;
}

/** The windows that are offered, soonest first: the first days at once, further ones when they are asked for. */
export function useOffers(asked: ViewInput<"offers"> | null) {
  const first = useView("offers", asked);
  const [more, setMore] = useState<Further | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  // What followed another question is none of these.
  const further = more !== null && more.after === first.data ? more : null;
  const next = further ? further.next : (first.data?.next ?? null);
  const later = async () => {
    if (!asked || !first.data || next === null) return;
    const result = await ask("offers", { ...asked, from: next });
    setProblem(result.ok ? null : result.problem);
    if (result.ok)
      setMore({
        after: first.data,
        windows: [...(further?.windows ?? []), ...result.value.windows],
        next: result.value.next,
      });
  };
  return {
    offers: first.data && [...first.data.windows, ...(further?.windows ?? [])],
    problem: first.problem ?? problem,
    later: next === null ? null : later,
  };
}
