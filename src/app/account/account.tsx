"use client";
import { localDate } from "@/core/time/local";
import { clockIn } from "@/core/time/local-words";
import { dayShort } from "@/core/time/words";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useSnackbar } from "notistack";
import type { ReactNode } from "react";
import { ChangePassword } from "./change-password";
import { SecondFactor } from "./second-factor";

/** Somebody's own way in: password, second factor, and where they are signed in. */
export function Account({ home }: { home: string | null }) {
  const account = useShown("account", {});
  return (
    <Box component="main" sx={{ maxWidth: 640, mx: "auto", p: { xs: 4, md: 8 } }}>
      <Typography variant="h1">{account.name}</Typography>
      <Box sx={{ color: ink.ash, mb: 4 }}>
        {account.role}, {account.mail}
      </Box>
      {home ? (
        <Button href={home} variant="outlined">
          Back to work
        </Button>
      ) : (
        <Alert severity="info" sx={{ fontSize: 16 }}>
          Your role needs a second factor. Set it up below, and everything else opens.
        </Alert>
      )}
      <Part title="Second factor">
        <SecondFactor account={account} onDone={() => home === null && window.location.assign("/")} />
      </Part>
      <Part title="Password">
        <ChangePassword />
      </Part>
      <Part title="Where you are signed in">
        <Sessions />
      </Part>
    </Box>
  );
}

const Part = ({ title, children }: { title: string; children: ReactNode }) => (
  <Box component="section" aria-label={title} sx={{ mt: 8 }}>
    <Typography variant="h2" sx={{ mb: 3 }}>
      {title}
    </Typography>
    {children}
  </Box>
);

/** Every session, ended one by one. */
function Sessions() {
  const { sessions, timeZone } = useShown("account", {});
  const { enqueueSnackbar } = useSnackbar();
  const end = useChange("end-own-session", {
    then: () => enqueueSnackbar("Signed out there", { variant: "success" }),
  });
  return sessions.map((s) => {
    const minute = Math.floor(s.started_at / 60_000);
    return (
      <Box
        key={s.name}
        sx={{ display: "flex", gap: 4, py: 2, borderTop: `1px solid ${ink.line}`, alignItems: "center" }}
      >
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <b>{s.browser || "A browser"}</b>
          {s.isThis && <span style={{ color: ink.moss }}> · this one</span>}
          <Box sx={{ color: ink.ash, fontSize: 14 }}>
            since {dayShort(localDate(minute, timeZone))}, {clockIn(minute, timeZone)}
            {s.address && `, from ${s.address}`}
          </Box>
        </Box>
        {!s.isThis && (
          <Button size="small" disabled={end.busy} onClick={() => void end.send({ session: s.name })}>
            Sign out there
          </Button>
        )}
      </Box>
    );
  });
}
