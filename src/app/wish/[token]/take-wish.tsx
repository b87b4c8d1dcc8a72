"use client";
import { change, type ViewOutput } from "@/api/client";
import type { Problem } from "@/core/problems";
import { moneyWords } from "@/core/money/amounts";
import { changesOf } from "@/core/catalogue/agreement";
import { AgreementWords } from "@/ui/agreement";
import { Changes } from "@/ui/changes";
import { DoorPage, PromiseArch } from "@/ui/door-page";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useState } from "react";

/** The window that suits, in one arch, and one button. */
export function TakeWish({ view, token }: { view: ViewOutput<"wish">; token: string }) {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const router = useRouter();
  const changes = changesOf(problem);
  const [left, setLeft] = useState(false);
  const take = async () => {
    setBusy(true);
    const result = await change("take-wish", { token, ...(view.agreement && { read: view.agreement }) });
    if (result.ok) return window.location.assign(`/my/${result.value.link}?booked`);
    setBusy(false);
    setProblem(result.problem);
    // The page shows what it costs now, to be agreed to or not.
    if (result.problem.code === "terms-changed") router.refresh();
  };
  const withdraw = async () => {
    const result = await change("withdraw-wish", { token });
    if (result.ok) setLeft(true);
    else setProblem(result.problem);
  };
  return (
    <DoorPage look={view.look} business={view.business}>
      <Typography variant="h1">
        {left
          ? "You are off our list"
          : view.booked
            ? "You are booked"
            : view.window
              ? "Free now"
              : "You are on our list"}
      </Typography>
      {view.window && !left && (
        <PromiseArch time={view.window.time} day={view.window.day}>
          <Box sx={{ color: ink.ash, mt: 2 }}>
            {view.what}
            <br />
            {view.address}
            {view.agreement && (
              <>
                <br />
                <b>{moneyWords(view.agreement.totalMinor, view.currency)}</b>, tax included
                {view.agreement.nowMinor > 0 &&
                  `; of these ${moneyWords(view.agreement.nowMinor, view.currency)} as a deposit`}
              </>
            )}
          </Box>
        </PromiseArch>
      )}
      {changes.length > 0 && <Changes changes={changes} />}
      {view.window && view.agreement && !view.booked && !left && (
        <AgreementWords agreement={view.agreement} currency={view.currency} />
      )}
      {problem && changes.length === 0 && (
        <Alert severity="warning" role="alert" sx={{ mb: 4, fontSize: 16 }}>
          {problem.sentence}
        </Alert>
      )}
      <WhatNow view={view} left={left} busy={busy} take={() => void take()} withdraw={() => void withdraw()} />
    </DoorPage>
  );
}

const big = { minHeight: 52, fontSize: 17 };

/** Taking the window, leaving the list, or what is left to do after either. */
function WhatNow({
  view,
  left,
  busy,
  take,
  withdraw,
}: {
  view: ViewOutput<"wish">;
  left: boolean;
  busy: boolean;
  take: () => void;
  withdraw: () => void;
}) {
  if (left) return <Typography>We do not write to you about this any more.</Typography>;
  if (view.booked)
    return (
      <Button variant="contained" fullWidth href={`/my/${view.booked}`} sx={big}>
        See the visit
      </Button>
    );
  return (
    <Box sx={{ display: "grid", gap: 2 }}>
      {view.window ? (
        <Button variant="contained" disabled={busy} onClick={take} sx={big}>
          {busy ? "One moment…" : "Take it"}
        </Button>
      ) : (
        <Typography>We write to you when a time that suits you opens.</Typography>
      )}
      <Button onClick={withdraw} sx={{ minHeight: 48 }}>
        I no longer need it
      </Button>
      <Typography color="textSecondary">Anything to say? Call {view.business.phone}.</Typography>
    </Box>
  );
}
