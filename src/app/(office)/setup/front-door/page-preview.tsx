"use client";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useRef, useState } from "react";
import type { FrontDoorDraft as Draft } from "../data";

/** The page itself in a frame, as wide as a phone or as a desk. */
export function PagePreview({ draft }: { draft: Draft }) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [wide, setWide] = useState(false);
  const [ready, setReady] = useState(0);
  const [asked, setAsked] = useState(draft);
  useEffect(() => {
    const timer = setTimeout(() => setAsked(draft), 400);
    return () => clearTimeout(timer);
  }, [draft]);
  // What cannot be saved as it stands leaves the preview as it was.
  const { data } = useLive("preview-front-door", asked);
  const [shown, setShown] = useState(data);
  if (data && data !== shown) setShown(data);
  useEffect(() => {
    const onMessage = (event: MessageEvent) => {
      if (
        event.source === frame.current?.contentWindow &&
        (event.data as { hogarPreviewReady?: boolean } | null)?.hogarPreviewReady
      )
        setReady((n) => n + 1);
    };
    window.addEventListener("message", onMessage);
    return () => window.removeEventListener("message", onMessage);
  }, []);
  useEffect(() => {
    // The frame may have been ready before this was: then it hears of the first change, otherwise of its own word.
    if (shown) frame.current?.contentWindow?.postMessage({ hogarPreview: shown }, window.location.origin);
  }, [shown, ready]);
  const [width, scale] = wide ? [1280, 400 / 1280] : [390, 1];
  return (
    <Box component="aside" aria-label="Preview" sx={{ position: "sticky", top: 16 }}>
      <Box sx={{ display: "flex", gap: 2, mb: 2 }}>
        <Button size="small" variant={wide ? "text" : "outlined"} aria-pressed={!wide} onClick={() => setWide(false)}>
          Phone
        </Button>
        <Button size="small" variant={wide ? "outlined" : "text"} aria-pressed={wide} onClick={() => setWide(true)}>
          Desk
        </Button>
      </Box>
      <Box
        sx={{
          width: width * scale,
          height: 690,
          border: `1px solid ${ink.line}`,
          borderRadius: "6px",
          overflow: "hidden",
        }}
      >
        <Box
          component="iframe"
          ref={frame}
          title="The front door as it is being set up"
          src="/book/preview"
          sx={{ width, height: 690 / scale, border: 0, transform: `scale(${scale})`, transformOrigin: "0 0" }}
        />
      </Box>
    </Box>
  );
}
