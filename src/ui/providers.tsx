"use client";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { type ReactNode, useEffect } from "react";
import { type Habits, HabitsProvider } from "./habits";
import { theme } from "./theme";

export function Providers({ habits, children }: { habits: Habits; children: ReactNode }) {
  // Says to whoever drives the page that it answers now.
  useEffect(() => void (document.documentElement.dataset.ready = "yes"), []);
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <HabitsProvider habits={habits}>{children}</HabitsProvider>
    </ThemeProvider>
  );
}
