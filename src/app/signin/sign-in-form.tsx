"use client";
import { post } from "@/api/client";
import type { Problem } from "@/core/problems";
import { Mark } from "@/ui/arch";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";

export function SignInForm({ business, isDemo, back }: { business: string; isDemo: boolean; back: string | null }) {
  const [mail, setMail] = useState("");
  const [password, setPassword] = useState("");
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const [code, setCode] = useState("");
  /** The password was right, and a second factor is asked for. */
  const [asksCode, setAsksCode] = useState(false);

  const signIn = async () => {
    setBusy(true);
    const result = await post<{ home: string }>("/api/session", { mail, password, ...(asksCode && { code }) });
    if (result.ok) return window.location.assign(back ?? result.value.home);
    setBusy(false);
    if (result.problem.code === "second-factor") {
      setAsksCode(true);
      return setProblem(null);
    }
    setProblem(result.problem);
  };

  return (
    <Box
      component="main"
      sx={{
        minHeight: "100dvh",
        display: "grid",
        gridTemplateColumns: "minmax(0, 360px)",
        justifyContent: "center",
        alignContent: "center",
        p: 4,
      }}
    >
      <Box
        component="form"
        onSubmit={(e) => {
          e.preventDefault();
          void signIn();
        }}
        noValidate
        sx={{
          bgcolor: "#fff",
          border: `1px solid ${ink.line}`,
          borderRadius: "180px 180px 6px 6px",
          px: 9,
          pt: 16,
          pb: 9,
        }}
      >
        <Stack spacing={4} sx={{ alignItems: "stretch" }}>
          <Box sx={{ textAlign: "center" }}>
            <Mark size={40} />
            <Typography variant="h1" sx={{ mt: 3, fontSize: 26 }}>
              {business}
            </Typography>
          </Box>
          {problem && !problem.fields && (
            <Alert severity="error" role="alert">
              {problem.sentence}
            </Alert>
          )}
          <TextField
            label="Email"
            type="email"
            autoComplete="username"
            value={mail}
            onChange={(e) => setMail(e.target.value)}
            error={!!problem?.fields?.["/mail"]}
            helperText={problem?.fields?.["/mail"]}
            autoFocus
          />
          <TextField
            label="Password"
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={(e) => setPassword(e.target.value)}
            error={!!problem?.fields?.["/password"]}
            helperText={problem?.fields?.["/password"]}
          />
          {asksCode && (
            <TextField
              label="Code from your authenticator app"
              value={code}
              onChange={(e) => setCode(e.target.value)}
              helperText="Or one of your recovery codes"
              slotProps={{ htmlInput: { autoComplete: "one-time-code" } }}
              autoFocus
            />
          )}
          <Button type="submit" variant="contained" size="large" disabled={busy}>
            Sign in
          </Button>
          {isDemo && (
            <Typography variant="body2" color="textSecondary">
              Demo: odile@, tomas@, ines@ or bram@marrowick.example, password “open the door”.
            </Typography>
          )}
        </Stack>
      </Box>
    </Box>
  );
}
