"use client";
import { createTheme } from "@mui/material/styles";
import { ink, titleFont } from "./palette";

const bodyFont = '"Atkinson Hyperlegible Next Variable", sans-serif';

export const theme = createTheme({
  palette: {
    mode: "light",
    background: { default: ink.paper, paper: "#FFFFFF" },
    text: { primary: ink.ink, secondary: ink.ash },
    primary: { main: ink.pine, contrastText: ink.paper },
    secondary: { main: ink.lake },
    error: { main: ink.ember },
    warning: { main: ink.honey, contrastText: ink.ink },
    success: { main: ink.moss },
    info: { main: ink.lake },
    divider: ink.line,
  },
  shape: { borderRadius: 6 },
  spacing: 4,
  typography: {
    fontFamily: bodyFont,
    fontSize: 14,
    h1: { fontFamily: titleFont, fontSize: 30, fontWeight: 700, letterSpacing: "-0.01em", lineHeight: 1.15 },
    h2: { fontFamily: titleFont, fontSize: 20, fontWeight: 650, lineHeight: 1.25 },
    h3: { fontFamily: titleFont, fontSize: 16, fontWeight: 650, lineHeight: 1.3 },
    body1: { fontSize: 15 },
    body2: { fontSize: 14 },
    button: { textTransform: "none", fontWeight: 650, fontSize: 15 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { backgroundColor: ink.paper },
        "*:focus-visible": { outline: `2px solid ${ink.lake}`, outlineOffset: 2 },
        a: { color: ink.lake },
      },
    },
    MuiButton: { defaultProps: { disableElevation: true } },
    MuiButtonBase: { defaultProps: { disableRipple: true }, styleOverrides: { root: { fontFamily: "inherit" } } },
    MuiTextField: { defaultProps: { size: "small", fullWidth: true } },
    MuiPaper: { defaultProps: { elevation: 0 } },
    MuiChip: { styleOverrides: { root: { borderRadius: 6 } } },
    MuiTooltip: { styleOverrides: { tooltip: { backgroundColor: ink.ink, fontSize: 13 } } },
    MuiAlert: { styleOverrides: { root: { borderRadius: 6 } } },
  },
});
