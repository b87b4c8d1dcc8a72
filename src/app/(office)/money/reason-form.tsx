"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { type ReactNode, useState } from "react";

/** A correction of the books: fields, the reason, and what it will do to the account, before it is done. */
export function ReasonForm({
  title,
  says,
  words,
  busy,
  disabled = false,
  wrong,
  onDo,
  children,
}: {
  title: string;
  says: ReactNode;
  words: string;
  busy: boolean;
  disabled?: boolean;
  wrong: (pointer: string) => string | undefined;
  onDo: (reason: string) => void;
  children?: ReactNode;
}) {
  const [reason, setReason] = useState("");
  return (
    <Box
      role="group"
      aria-label={title}
      sx={{ mt: 2, p: 3, bgcolor: ink.plaster, borderRadius: "6px", display: "grid", gap: 2 }}
    >
      {children}
      <TextField
        label="Why, for the books"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        error={!!wrong("/reason")}
        helperText={wrong("/reason")}
        slotProps={{ htmlInput: { maxLength: 300 } }}
      />
      <Box role="status" sx={{ fontSize: 14.5 }}>
        {says}
      </Box>
      <Button
        variant="contained"
        disabled={busy || disabled || reason.trim().length < 3}
        onClick={() => onDo(reason)}
        sx={{ justifySelf: "start" }}
      >
        {words}
      </Button>
    </Box>
  );
}
