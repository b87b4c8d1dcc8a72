"use client";
import { useSnackbar } from "notistack";
import { useCallback } from "react";

/** Puts words on the clipboard, and says so. */
export function useCopy(): (words: string, said?: string) => void {
  const { enqueueSnackbar } = useSnackbar();
  return useCallback(
    async (words, said = "Copied") => {
      await navigator.clipboard?.writeText(words);
      enqueueSnackbar(said, { variant: "success" });
    },
    [enqueueSnackbar],
  );
}
