"use client";
import type { OperationInput, OperationName, OperationOutput } from "@/api/client";
import { useChange } from "@/ui/use-change";
import { useSnackbar } from "notistack";
import { useEffect, useRef, useState } from "react";

interface KeptForm<D, N extends OperationName> {
  operation: N;
  /** Which form it is: what is typed is kept under this name until it is saved. */
  of: string;
  /** What is saved now, or what a new one begins with. */
  from: D;
  input: (draft: D) => OperationInput<N>;
  /** What is said when it is saved. */
  name: (draft: D) => string;
  saved: (value: OperationOutput<N>) => void;
  /** It goes to somebody. */
  sent?: boolean;
  /** What is never kept in the browser. */
  secret?: readonly (keyof D)[];
}

/**
 * A form with one button: a draft that survives a reload, sentences for the fields. `frame` goes
 * to the FormFrame, `round` is its key.
 */
export function useKeptForm<D extends object, N extends OperationName>({
  operation,
  of,
  from,
  input,
  name,
  saved,
  sent = false,
  secret = [],
}: KeptForm<D, N>) {
  const key = `hogar set-up ${of}`;
  const [draft, setDraft] = useState(from);
  /** What was typed is back; `changed` where somebody has saved another since. */
  const [restored, setRestored] = useState<"as it was" | "changed" | null>(null);
  // Fields that keep their own text are made anew where the draft changes under them.
  const [round, setRound] = useState(0);
  const [error, setError] = useState(false);
  const begun = useRef(JSON.stringify(from));
  const { send, busy, problem, wrong, clear } = useChange(operation);
  const { enqueueSnackbar } = useSnackbar();

  useEffect(() => {
    const kept = readKept<D>(key);
    if (!kept) return;
    setDraft({ ...from, ...kept.draft });
    setRestored(kept.base === begun.current ? "as it was" : "changed");
    setRound((n) => n + 1);
    // Only when the form is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);

  const replace = (next: D) => {
    setDraft(next);
    if (JSON.stringify(next) === begun.current) localStorage.removeItem(key);
    else
      localStorage.setItem(
        key,
        JSON.stringify({
          base: begun.current,
          draft: { ...next, ...Object.fromEntries(secret.map((name) => [name, from[name]])) },
        }),
      );
  };
  const set = (change: Partial<D>) => replace({ ...draft, ...change });
  const discard = () => {
    localStorage.removeItem(key);
    setDraft(from);
    setRestored(null);
    setRound((n) => n + 1);
    clear();
  };
  const save = async () => {
    const done = await send(input(draft));
    setError(!done);
    if (!done) return;
    localStorage.removeItem(key);
    begun.current = JSON.stringify(draft);
    setRestored(null);
    enqueueSnackbar(`${name(draft)} is ${sent ? "sent" : "saved"}`, { variant: "success" });
    saved(done.value);
  };
  return {
    draft,
    set,
    replace,
    wrong,
    round,
    frame: { busy, problem: error ? problem : null, restored, onDiscard: discard, onSave: () => void save() },
  };
}

/** What is typed and not saved stays on this device until whoever typed it signs out. */
export function forgetTyped(): void {
  for (const key of Object.keys(localStorage)) if (key.startsWith("hogar set-up ")) localStorage.removeItem(key);
}

function readKept<D>(key: string): { base: string; draft: Partial<D> } | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "null") as { base: string; draft: Partial<D> } | null;
  } catch {
    return null;
  }
}
