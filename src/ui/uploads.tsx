"use client";
import { createContext, type ReactNode, useCallback, useContext, useMemo, useRef, useState } from "react";
import { sendImage } from "./images";

/** Pictures on their way, each to a place of its own: what is typed meanwhile stays, wherever somebody goes. */
export interface Uploads {
  /** How many are on their way to a place; to any, where none is named. */
  sending: (place?: string) => number;
  /** What went wrong with the last of a place. */
  wrong: (place: string) => string | null;
  send: (place: string, files: readonly File[]) => void;
}

const Context = createContext<Uploads | null>(null);
export const useUploads = (): Uploads | null => useContext(Context);
export const UploadsProvider = ({ uploads, children }: { uploads: Uploads; children: ReactNode }) => (
  <Context.Provider value={uploads}>{children}</Context.Provider>
);

/** Sends pictures one after the other; `onKept` is told of each that has arrived. */
export function useSending(onKept: (place: string, token: string) => void): Uploads {
  const [under, setUnder] = useState<Record<string, number>>({});
  const [wrongs, setWrongs] = useState<Record<string, string | null>>({});
  const kept = useRef(onKept);
  kept.current = onKept;
  const send = useCallback((place: string, files: readonly File[]) => {
    const add = (n: number) => setUnder((now) => ({ ...now, [place]: (now[place] ?? 0) + n }));
    const say = (words: string | null) => setWrongs((now) => ({ ...now, [place]: words }));
    add(files.length);
    say(null);
    void (async () => {
      for (const file of files) {
        const sent = await sendImage("answer", file);
        if (sent.ok) kept.current(place, sent.value.token);
        else say(sent.problem.sentence);
        add(-1);
      }
    })();
  }, []);
  return useMemo(
    () => ({
      sending: (place) =>
        place === undefined ? Object.values(under).reduce((sum, n) => sum + n, 0) : (under[place] ?? 0),
      wrong: (place) => wrongs[place] ?? null,
      send,
    }),
    [under, wrongs, send],
  );
}
