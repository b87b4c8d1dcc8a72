"use client";
import { styled } from "@mui/material/styles";
import { MaterialDesignContent, SnackbarProvider } from "notistack";
import type { ReactNode } from "react";
import { ink } from "./palette";

/** Notes at the bottom, in our colours. Their own styles stand outside of all layers, and ours within one: only what is important gets past them. */
const ground = (colour: string) => ({ backgroundColor: `${colour} !important` });
const Note = styled(MaterialDesignContent)({
  "&.notistack-MuiContent-success": ground(ink.moss),
  "&.notistack-MuiContent-error": ground(ink.ember),
  "&.notistack-MuiContent-default": ground(ink.ink),
});
const notes = { success: Note, error: Note, default: Note };

/** Where something is said at the bottom of the page: everywhere but on the first page of the front door, which says nothing there. */
export const NotesProvider = ({ children }: { children: ReactNode }) => (
  <SnackbarProvider
    maxSnack={3}
    autoHideDuration={7000}
    Components={notes}
    anchorOrigin={{ vertical: "bottom", horizontal: "center" }}
  >
    {children}
  </SnackbarProvider>
);
