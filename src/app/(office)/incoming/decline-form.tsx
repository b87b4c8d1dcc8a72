"use client";
import type { OperationInput } from "@/api/client";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";

/** A no, with the reason as customers read it. */
export function DeclineForm({
  entries,
  onDone,
}: {
  entries: OperationInput<"decline-incoming">["entries"];
  onDone: () => void;
}) {
  const [reason, setReason] = useState("");
  const { send, busy, wrong } = useChange("decline-incoming", { then: onDone });
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        void send({ entries, reason });
      }}
      sx={{ display: "grid", gap: 2, justifyItems: "start" }}
    >
      <TextField
        label="Reason, as they read it"
        multiline
        minRows={2}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        error={!!wrong("/reason")}
        helperText={wrong("/reason") ?? "They get it by email; what they have paid goes back."}
      />
      <Button type="submit" variant="outlined" color="error" disabled={busy || reason.trim().length < 3}>
        Decline and tell {entries.length === 1 ? "them" : `all ${entries.length}`}
      </Button>
    </Box>
  );
}
