"use client";
import { tabStore } from "@/ui/tab-store";
import { useCallback, useEffect, useState } from "react";
import { type Draft, emptyDraft } from "./draft";

export type ChangeDraft = Partial<Draft> | ((now: Draft) => Partial<Draft>);

/** Drafts of another shape are begun anew. */
const key = "hogar booking 4";

/** A new draft of somebody who comes by a link of theirs; with what they were offered, where that is why they come. */
export const beginAgain = (known: Pick<Draft, "address"> & Partial<Draft>): void =>
  tabStore.write(
    key,
    JSON.stringify({ ...emptyDraft, ...known, step: known.address ? "what" : "where" } satisfies Draft),
  );

/** A preview begins anew each time and leaves the draft of the tab alone. */
export function useDraft(preview = false) {
  const [draft, setDraft] = useState<Draft>(emptyDraft);
  const [ready, setReady] = useState(false);
  useEffect(() => {
    if (preview) return setReady(true);
    try {
      const kept = tabStore.read(key);
      if (kept) setDraft({ ...emptyDraft, ...(JSON.parse(kept) as Draft) });
    } catch {
      // What cannot be read is begun anew.
    }
    setReady(true);
  }, [preview]);
  useEffect(() => {
    if (ready && !preview) tabStore.write(key, JSON.stringify(draft));
  }, [draft, ready, preview]);
  /** A part that changes; or, where it hangs on what is there, a function of the draft as it is then. */
  const change = useCallback(
    (part: ChangeDraft) => setDraft((now) => ({ ...now, ...(typeof part === "function" ? part(now) : part) })),
    [],
  );
  return { draft, ready, change, forget: () => tabStore.remove(key) };
}
