"use client";
import Box from "@mui/material/Box";
import { ThemeProvider, createTheme } from "@mui/material/styles";
import { useEffect, useMemo, type ReactNode } from "react";
import type { lookOf } from "@/core/look/front-door";
import { theme } from "./theme";

/** Customers' pages in the owner's colours; and in a frame on the owner's site, the frame is told how tall they are. */
export function DoorLook({ look, children }: { look: ReturnType<typeof lookOf>; children: ReactNode }) {
  const own = useMemo(() => createTheme({ ...theme, palette: { ...theme.palette, primary: theme.palette.augmentColor({ color: { main: look.accent, contrastText: look.onAccent } }) } }), [look.accent, look.onAccent]);
  useEffect(() => {
    if (window.parent === window) return;
    const tell = () => window.parent.postMessage({ hogarHeight: document.documentElement.scrollHeight }, "*");
    const watch = new ResizeObserver(tell);
    watch.observe(document.body);
    return () => watch.disconnect();
  }, []);
  return (
    <ThemeProvider theme={own}>
      <Box sx={{ "--accent": look.accent, "bgcolor": look.ground, "minHeight": "100dvh" }}>{children}</Box>
    </ThemeProvider>
  );
}
