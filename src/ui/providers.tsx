"use client";
import CssBaseline from "@mui/material/CssBaseline";
import { styled, ThemeProvider } from "@mui/material/styles";
import { MaterialDesignContent, SnackbarProvider } from "notistack";
import { useEffect, type ReactNode } from "react";
import { HabitsProvider, type Habits } from "./habits";
import { ink } from "./palette";
import { theme } from "./theme";

/** Notes at the bottom, in our colours. */
const Note = styled(MaterialDesignContent)({ "&.notistack-MuiContent-success": { backgroundColor: ink.moss }, "&.notistack-MuiContent-error": { backgroundColor: ink.ember }, "&.notistack-MuiContent-default": { backgroundColor: ink.ink } });
const notes = { success: Note, error: Note, default: Note };

export function Providers({ habits, children }: { habits: Habits; children: ReactNode }) {
  // Says to whoever drives the page that it answers now.
  useEffect(() => void (document.documentElement.dataset.ready = "yes"), []);
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <HabitsProvider habits={habits}>
      <SnackbarProvider maxSnack={3} autoHideDuration={7000} Components={notes} anchorOrigin={{ vertical: "bottom", horizontal: "center" }}>
        {children}
      </SnackbarProvider>
      </HabitsProvider>
    </ThemeProvider>
  );
}
