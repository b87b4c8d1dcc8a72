"use client";
import Button from "@mui/material/Button";
import { useSnackbar, type VariantType } from "notistack";
import { useCallback } from "react";

const longMs = 20_000;

/** Says what was done, with a way to take it back for as long as the words stand. */
export function useUndo() {
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  return useCallback(
    (words: string, undo: () => unknown, variant: VariantType = "success") =>
      enqueueSnackbar(words, {
        variant,
        autoHideDuration: longMs,
        action: (key) => (
          <Button
            color="inherit"
            onClick={() => {
              closeSnackbar(key);
              void undo();
            }}
          >
            Undo
          </Button>
        ),
      }),
    [enqueueSnackbar, closeSnackbar],
  );
}
