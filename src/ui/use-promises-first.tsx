"use client";
import { ask, change, type ViewInput } from "@/api/client";
import dynamic from "next/dynamic";
import { type ReactNode, useCallback, useRef, useState } from "react";
import { useAfterChange } from "./after-change";
import type { Settled, TouchedPromises } from "./touched-dialog";

type Touching = ViewInput<"touched-promises">["operation"];
const TouchedDialog = dynamic(() => import("./touched-dialog").then((m) => m.TouchedDialog));

/** Changes of set-up that can touch what is promised. */
const touching: readonly string[] = [
  "save-technician",
  "save-zone",
  "set-zone-aside",
  "take-zones",
  "save-service",
  "save-opening",
  "save-special-day",
  "take-special-days",
] satisfies Touching[];

/**
 * Before set-up is changed: which promises could not be kept then, and what becomes of each. `first` asks, where there are
 * such, and answers null where the change is better not made; `settle` does what was chosen, once it is made.
 */
export function usePromisesFirst(): {
  asks: ReactNode;
  first: (operation: string, input: unknown) => Promise<Settled | null>;
  settle: (settled: Settled) => Promise<void>;
} {
  const [open, setOpen] = useState<{ touched: TouchedPromises; answer: (settled: Settled | null) => void } | null>(
    null,
  );
  const afterChange = useAfterChange();
  const isAsking = useRef(false);
  const first = useCallback(async (operation: string, input: unknown): Promise<Settled | null> => {
    if (!touching.includes(operation)) return new Map();
    // Pressed again while it is asked: that is one change, not two.
    if (isAsking.current) return null;
    isAsking.current = true;
    const touched = await ask("touched-promises", { operation: operation as Touching, change: input });
    // What is typed wrong is said by the change itself.
    if (!touched.ok || touched.value.n === 0) {
      isAsking.current = false;
      return new Map();
    }
    return new Promise((resolve) =>
      setOpen({
        touched: touched.value,
        answer(settled) {
          setOpen(null);
          isAsking.current = false;
          resolve(settled);
        },
      }),
    );
  }, []);
  const settle = useCallback(
    async (settled: Settled) => {
      // What cannot be done waits on Today like all the others.
      for (const [visitId, how] of settled) await change("settle-unkept", { visitId, how });
      if (settled.size) await afterChange();
    },
    [afterChange],
  );
  return { asks: open && <TouchedDialog touched={open.touched} onAnswer={open.answer} />, first, settle };
}
