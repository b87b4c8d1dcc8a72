"use client";
import { Field } from "@/ui/form-parts";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { useAccount } from "./use-account";
import { counted } from "@/core/words";

/** A new password, with the one of before. */
export function ChangePassword() {
  const [old, setOld] = useState("");
  const [password, setPassword] = useState("");
  const { send, busy, wrong, sentence } = useAccount<{ ended: number }>("password");
  const { enqueueSnackbar } = useSnackbar();
  const change = async () => {
    const done = await send({ old, password });
    if (!done) return;
    setOld("");
    setPassword("");
    const { ended } = done.value;
    enqueueSnackbar(
      `The password is changed${ended ? `, and you are signed out in ${counted(ended, "other place")}` : ""}`,
      {
        variant: "success",
      },
    );
  };
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        void change();
      }}
      sx={{ display: "grid", gap: 4, maxWidth: 380 }}
    >
      {sentence && <Alert severity="error">{sentence}</Alert>}
      <Field
        label="Your password now"
        type="password"
        autoComplete="current-password"
        value={old}
        onChange={(e) => setOld(e.target.value)}
        wrong={wrong("/old")}
      />
      <Field
        label="New password"
        type="password"
        autoComplete="new-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        wrong={wrong("/password")}
        helperText="At least 10 characters; a few words that belong together for you are good"
      />
      <Button type="submit" variant="outlined" disabled={busy || !old || !password} sx={{ justifySelf: "start" }}>
        Change the password
      </Button>
    </Box>
  );
}
