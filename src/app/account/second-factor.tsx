"use client";
import type { ViewOutput } from "@/api/client";
import { Field } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import { useAccount } from "./use-account";

type Account = ViewOutput<"account">;

/** A code from an authenticator app, besides the password: set up, or taken away again. */
export function SecondFactor({ account, onDone }: { account: Account; onDone: () => void }) {
  const [recovery, setRecovery] = useState<string[] | null>(null);
  const [open, setOpen] = useState(false);
  if (recovery)
    return (
      <>
        <Typography sx={{ mb: 2 }}>
          It is set up. Keep these codes where you find them without your phone: each signs you in once.
        </Typography>
        <Box
          component="ul"
          aria-label="Recovery codes"
          sx={{ fontFamily: "monospace", fontSize: 17, columns: 2, m: 0 }}
        >
          {recovery.map((code) => (
            <li key={code}>{code}</li>
          ))}
        </Box>
        <Button
          variant="contained"
          sx={{ mt: 3 }}
          onClick={() => {
            setRecovery(null);
            setOpen(false);
            onDone();
          }}
        >
          I have kept them
        </Button>
      </>
    );
  if (account.hasFactor && !open)
    return (
      <>
        <Typography sx={{ mb: 2 }}>
          ✓ You sign in with a code from your authenticator app. {account.recoveryLeft} recovery codes are left.
        </Typography>
        <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>
          <Button variant="outlined" onClick={() => setOpen(true)}>
            Set it up anew
          </Button>
          {!account.mustHaveFactor && <TakeAway />}
        </Box>
      </>
    );
  if (!open && !account.mustHaveFactor)
    return (
      <>
        <Typography sx={{ mb: 2 }}>
          With a code from an authenticator app besides your password, nobody signs in as you who has only found that
          out.
        </Typography>
        <Button variant="outlined" onClick={() => setOpen(true)}>
          Set it up
        </Button>
      </>
    );
  return <SetUp account={account} onSet={setRecovery} />;
}

function SetUp({ account, onSet }: { account: Account; onSet: (recovery: string[]) => void }) {
  // What was offered first stays, however often the page is read again meanwhile.
  const [{ secret, address }] = useState(account.offered);
  const [picture, setPicture] = useState<string | null>(null);
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const { send, busy, wrong, sentence } = useAccount<{ recovery: string[] }>("add-second-factor");
  useEffect(() => {
    const draw = async () => {
      const { toDataURL } = await import("qrcode");
      setPicture(await toDataURL(address, { margin: 1, width: 220, color: { dark: ink.ink, light: "#ffffff" } }));
    };
    void draw();
  }, [address]);
  return (
    <Box
      component="form"
      onSubmit={async (e) => {
        e.preventDefault();
        const done = await send({ password, secret, code });
        if (done) onSet(done.value.recovery);
      }}
      sx={{ display: "grid", gap: 4, maxWidth: 380 }}
    >
      <Typography>1. Read this picture with an authenticator app, or type the key into it.</Typography>
      {picture && <img src={picture} width={220} height={220} alt="The key as a picture, for an authenticator app" />}
      <Box sx={{ fontFamily: "monospace", overflowWrap: "anywhere" }}>{secret.replace(/(.{4})/g, "$1 ")}</Box>
      <Typography>2. Enter the code that it shows, and your password.</Typography>
      {sentence && <Alert severity="error">{sentence}</Alert>}
      <Field
        label="Code from the app"
        value={code}
        onChange={(e) => setCode(e.target.value)}
        wrong={wrong("/code")}
        slotProps={{ htmlInput: { inputMode: "numeric", autoComplete: "one-time-code" } }}
      />
      <Field
        label="Your password now"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        wrong={wrong("/password")}
      />
      <Button type="submit" variant="contained" disabled={busy || !code || !password} sx={{ justifySelf: "start" }}>
        Set it up
      </Button>
    </Box>
  );
}

function TakeAway() {
  const [asks, setAsks] = useState(false);
  const [password, setPassword] = useState("");
  const { send, busy, wrong, sentence } = useAccount<null>("remove-second-factor");
  if (!asks) return <Button onClick={() => setAsks(true)}>Take it away</Button>;
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        void send({ password });
      }}
      sx={{ display: "grid", gap: 3, width: "100%", maxWidth: 380 }}
    >
      {sentence && <Alert severity="error">{sentence}</Alert>}
      <Field
        label="Your password, to take it away"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        wrong={wrong("/password")}
      />
      <Button type="submit" disabled={busy || !password} color="error" sx={{ justifySelf: "start" }}>
        Take the second factor away
      </Button>
    </Box>
  );
}
