"use client";
import type { OperationInput, OperationName, OperationOutput } from "@/api/client";
import { type ChangedByBoth, mergeDrafts } from "@/core/merging";
import { useChange } from "@/ui/use-change";
import { useAfterChange, useKnownChange } from "./after-change";
import { usePromisesFirst } from "./use-promises-first";
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
 * A form with one button: a draft that survives a reload, sentences for the fields. Where somebody else has saved the same
 * since it was opened, what only one of the two has changed is kept, and what both have is shown to be chosen from. `frame`
 * goes to the FormFrame, `round` is its key.
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
  const [both, setBoth] = useState<Chosen<D>[]>([]);
  /** The change as of which what is saved was read anew, to be put together with the draft. */
  const [toMerge, setToMerge] = useState<number | null>(null);
  const begun = useRef(JSON.stringify(from));
  const since = useRef(useKnownChange());
  const { send, busy, problem, wrong, clear } = useChange(operation);
  const { asks, first, settle } = usePromisesFirst();
  const readAgain = useAfterChange();
  const { enqueueSnackbar } = useSnackbar();

  useEffect(() => {
    const kept = readKept<D>(key);
    if (!kept) return;
    setRestored(kept.base === begun.current ? "as it was" : "changed");
    show(mergeDrafts(JSON.parse(kept.base) as D, { ...from, ...kept.draft }, from));
    // Only when the form is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);

  useEffect(() => {
    if (problem?.code !== "changed-meanwhile") return;
    const { asOf } = problem.details as { asOf: number };
    void Promise.resolve(readAgain()).then(() => setToMerge(asOf));
  }, [problem, readAgain]);

  useEffect(() => {
    if (toMerge === null) return;
    setToMerge(null);
    const merged = mergeDrafts(JSON.parse(begun.current) as D, draft, from);
    begun.current = JSON.stringify(from);
    since.current = toMerge;
    show(merged);
    setRestored(null);
    // Nothing is to be chosen: it is saved as it was asked for.
    if (merged.both.length === 0) void save(merged.draft);
    // Once for each time it was read anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [toMerge]);

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
  const show = (merged: ReturnType<typeof mergeDrafts<D>>) => {
    replace(merged.draft);
    setBoth(merged.both.map((one) => ({ ...one, taken: "mine" })));
    setRound((n) => n + 1);
  };
  const set = (change: Partial<D>) => replace({ ...draft, ...change });
  const choose = (field: keyof D & string, taken: "mine" | "theirs") => {
    const one = both.find((b) => b.field === field)!;
    replace({ ...draft, [field]: one[taken] });
    setBoth(both.map((b) => (b.field === field ? { ...b, taken } : b)));
    setRound((n) => n + 1);
  };
  const discard = () => {
    localStorage.removeItem(key);
    setDraft(from);
    setRestored(null);
    setBoth([]);
    setRound((n) => n + 1);
    clear();
  };
  const save = async (what: D) => {
    const settled = await first(operation, input(what));
    if (!settled) return;
    // What is made or sent writes over nobody.
    const done = await send(input(what), undefined, operation.startsWith("save-") ? since.current : undefined);
    setError(!done);
    if (!done) return;
    localStorage.removeItem(key);
    begun.current = JSON.stringify(what);
    since.current = done.asOf;
    setRestored(null);
    setBoth([]);
    await settle(settled);
    enqueueSnackbar(`${name(what)} is ${sent ? "sent" : "saved"}`, { variant: "success" });
    saved(done.value);
  };
  const isMerging = problem?.code === "changed-meanwhile" && both.length === 0;
  return {
    draft,
    set,
    replace,
    wrong,
    round,
    frame: {
      busy,
      problem: error && !isMerging ? problem : null,
      restored,
      both,
      asks,
      onChoose: (field: string, taken: "mine" | "theirs") => choose(field as keyof D & string, taken),
      onDiscard: discard,
      onSave: () => void save(draft),
    },
  };
}

type Chosen<D> = ChangedByBoth<D> & { taken: "mine" | "theirs" };

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
