"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { useRef, useState } from "react";

/** Work that goes through many, with its progress; `step` answers whether somebody has stopped it. The work answers what went wrong, or null. */
export function useWork() {
  const [progress, setProgress] = useState<{ words: string; at: number; of: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const stopped = useRef(false);
  const through = async (
    words: string,
    work: (step: (at: number, of: number) => boolean) => Promise<string | null>,
  ): Promise<void> => {
    stopped.current = false;
    setProblem(null);
    setProgress({ words, at: 0, of: 0 });
    const wrong = await work((at, of) => {
      setProgress({ words, at, of });
      return stopped.current;
    });
    setProgress(null);
    setProblem(wrong);
  };
  return { through, progress, problem, busy: progress !== null, stop: () => void (stopped.current = true) };
}

/** How far it is, and a way to stop it. */
export function WorkProgress({ work }: { work: ReturnType<typeof useWork> }) {
  if (!work.progress) return null;
  const { words, at, of } = work.progress;
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 3, flex: 1, minWidth: 260 }}>
      <LinearProgress variant="determinate" value={(100 * at) / Math.max(1, of)} aria-label={words} sx={{ flex: 1 }} />
      <span role="status">
        {words} {at} of {of}
      </span>
      <Button onClick={work.stop}>Stop</Button>
    </Box>
  );
}
