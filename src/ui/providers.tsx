"use client";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { SnackbarProvider } from "notistack";
import { useEffect, type ReactNode } from "react";
import { HabitsProvider, type Habits } from "./habits";
import { theme } from "./theme";

export function Providers({ habits, children }: { habits: Habits; children: ReactNode }) {
  // Says to whoever drives the page that it answers now.
  useEffect(() => void (document.documentElement.dataset.ready = "yes"), []);
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <HabitsProvider habits={habits}>
      <SnackbarProvider maxSnack={3} autoHideDuration={7000} anchorOrigin={{ vertical: "bottom", horizontal: "center" }}>
        {children}
      </SnackbarProvider>
      </HabitsProvider>
    </ThemeProvider>
  );
}
