"use client";
import type { lookOf } from "@/core/look/front-door";
import Box from "@mui/material/Box";
import { createTheme, ThemeProvider } from "@mui/material/styles";
import { type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import { theme } from "./theme";

export type Look = ReturnType<typeof lookOf>;

/** The large type of customers' pages, in all that is typed and said there. */
export const doorType = {
  fontSize: 17,
  "& .MuiInputBase-root, & .MuiInputLabel-root, & .MuiTypography-body1, & .MuiFormControlLabel-label": { fontSize: 17 },
  "& .MuiFormHelperText-root": { fontSize: 15, mx: 0 },
};

/** Customers' pages in the owner's colours; and in a frame on the owner's site, the frame is told how tall they are. */
export function DoorLook({ look, children }: { look: Look; children: ReactNode }) {
  const own = useMemo(
    () =>
      createTheme({
        ...theme,
        palette: {
          ...theme.palette,
          primary: theme.palette.augmentColor({ color: { main: look.accent, contrastText: look.onAccent } }),
        },
      }),
    [look.accent, look.onAccent],
  );
  const [framed, setFramed] = useState(false);
  const page = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (window.parent === window) return;
    setFramed(true);
    const watch = new ResizeObserver(() => window.parent.postMessage({ hogarHeight: page.current?.offsetHeight }, "*"));
    watch.observe(page.current!);
    return () => watch.disconnect();
  }, []);
  return (
    <ThemeProvider theme={own}>
      <Box
        ref={page}
        sx={{
          "--accent": look.accent,
          "--page": framed ? "0" : "100dvh",
          bgcolor: look.ground,
          minHeight: "var(--page)",
          // Magnified twice on a phone, no long word makes the page wider than the screen.
          overflowWrap: "break-word",
        }}
      >
        {children}
      </Box>
    </ThemeProvider>
  );
}
