"use client";
import CssBaseline from "@mui/material/CssBaseline";
import { styled, ThemeProvider } from "@mui/material/styles";
import { MaterialDesignContent, SnackbarProvider } from "notistack";
import { useEffect, type ReactNode } from "react";
import { HabitsProvider, type Habits } from "./habits";
import { ink } from "./palette";
import { theme } from "./theme";

/** Notes at the bottom, in our colours. Their own styles stand outside of all layers, and ours within one: only what is important gets past them. */
const ground = (colour: string) => ({ backgroundColor: `${colour} !important` });
const Note = styled(MaterialDesignContent)({
  "&.notistack-MuiContent-success": ground(ink.moss),
  "&.notistack-MuiContent-error": ground(ink.ember),
  "&.notistack-MuiContent-default": ground(ink.ink),
});
const notes = { success: Note, error: Note, default: Note };

export function Providers({ habits, children }: { habits: Habits; children: ReactNode }) {
  // Says to whoever drives the page that it answers now.
  useEffect(() => void (document.documentElement.dataset.ready = "yes"), []);
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <HabitsProvider habits={habits}>
        <SnackbarProvider
          maxSnack={3}
          autoHideDuration={7000}
          Components={notes}
          anchorOrigin={{ vertical: "bottom", horizontal: "center" }}
        >
          {children}
        </SnackbarProvider>
      </HabitsProvider>
    </ThemeProvider>
  );
}
