"use client";
import { ink } from "@/ui/palette";
import { tabStore } from "@/ui/tab-store";
import Box from "@mui/material/Box";
import { useEffect, useState } from "react";
import type { Draft } from "./draft";

interface HoldLeftProps {
  hold: NonNullable<Draft["hold"]>;
  /** How long a window is kept. */
  minutes: number;
  onLapsed: () => void;
}

/** For how long the chosen window is still kept; when its minutes are over, what that means. */
export const HoldLeft = ({ hold, minutes, onLapsed }: HoldLeftProps) =>
  hold.until === null ? (
    <Box role="timer">We held this time for {minutes} minutes. It may be taken now; book soon to get it.</Box>
  ) : (
    <Countdown key={hold.until} until={hold.until} minutes={minutes} onLapsed={onLapsed} />
  );

/** The end is the server's; the demo's clock may differ, so only the span is trusted. */
function Countdown({ until, minutes, onLapsed }: { until: number; minutes: number; onLapsed: () => void }) {
  const [started] = useState(() => Number(tabStore.read(`hold ${until}`)) || Date.now());
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    tabStore.write(`hold ${until}`, String(started));
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [until, started]);
  const left = Math.max(0, Math.round((started + minutes * 60_000 - now) / 1000));
  useEffect(() => {
    if (left === 0) onLapsed();
  }, [left, onLapsed]);
  return (
    <Box role="timer" sx={left < 60 ? { color: ink.ember, fontWeight: 650 } : {}}>
      kept for {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")}
    </Box>
  );
}
