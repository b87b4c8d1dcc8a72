"use client";
import Box from "@mui/material/Box";
import { useEffect, useRef } from "react";
import { ink } from "./palette";

/** The card service's own form in a frame: the card number stays inside it, a token comes out. */
export function CardForm({ onToken, wrong }: { onToken: (token: string | null) => void; wrong?: string }) {
  const frame = useRef<HTMLIFrameElement>(null);
  useEffect(() => {
    const onMessage = (event: MessageEvent) => {
      const data = event.data as { hogarCard?: { token: string | null } } | null;
      if (event.source === frame.current?.contentWindow && event.origin === window.location.origin && data?.hogarCard)
        onToken(data.hogarCard.token);
    };
    window.addEventListener("message", onMessage);
    return () => window.removeEventListener("message", onMessage);
  }, [onToken]);
  return (
    <Box>
      <Box
        component="iframe"
        ref={frame}
        title="Card"
        src="/standins/cards/frame"
        sx={{
          width: "100%",
          height: 232,
          border: `1px solid ${wrong ? ink.ember : ink.line}`,
          borderRadius: "6px",
          bgcolor: "#fff",
        }}
      />
      {wrong && (
        <Box role="alert" sx={{ color: "error.main", fontSize: 14 }}>
          {wrong}
        </Box>
      )}
    </Box>
  );
}
