"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords, sum } from "@/core/money/amounts";
import { dateWords } from "@/core/time/words";
import { BankStep } from "@/ui/bank-step";
import { CardForm } from "@/ui/card-form";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";

/** How often it is asked whether the card has paid. */
const askAgainMs = 1500;

/** Each open invoice, with those to be paid marked; one card pays all of them at once. */
export function PayOwed({ view, token }: { view: ViewOutput<"my-account">; token: string }) {
  const router = useRouter();
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [card, setCard] = useState<string | null>(null);
  const { send, busy, problem } = useChange("pay-owed", { quiet: true, then: () => router.refresh() });
  const amount = (minor: number) => moneyWords(minor, view.currency);
  const chosen = view.open.filter(({ id }) => !left.has(id));
  const { payment } = view;
  const isUnderWay = payment?.state === "asked" || payment?.state === "second step";
  useEffect(() => {
    if (!isUnderWay) return;
    const timer = setInterval(() => router.refresh(), askAgainMs);
    return () => clearInterval(timer);
  }, [isUnderWay, router]);
  const mark = (id: number, pays: boolean) =>
    setLeft(new Set(pays ? [...left].filter((one) => one !== id) : [...left, id]));
  const choosing = view.takesCards && view.open.length > 1 && !isUnderWay;
  return (
    <>
      {view.open.map((one) => (
        <Box
          key={one.token}
          sx={{ display: "flex", alignItems: "center", gap: 3, py: 2, borderTop: `1px solid ${ink.line}` }}
        >
          {choosing && (
            <Checkbox
              checked={!left.has(one.id)}
              onChange={(e) => mark(one.id, e.target.checked)}
              slotProps={{ input: { "aria-label": `Pay invoice ${one.label}` } }}
            />
          )}
          <Box sx={{ flex: 1 }}>
            Invoice {one.label}
            <Box sx={{ color: ink.ash, fontSize: 15 }}>
              {one.due < view.today ? "was due on " : "due on "}
              {dateWords(one.due)}
            </Box>
          </Box>
          <b>{amount(one.openMinor)}</b>
          <Button href={`/invoice/${one.token}`} aria-label={`See invoice ${one.label}`}>
            See
          </Button>
        </Box>
      ))}
      {payment?.state === "second step" && view.open.length > 0 && (
        <BankStep address={payment.stepAddress!} of="owed" token={token} onLeft={() => router.refresh()} />
      )}
      {payment?.state === "asked" && (
        <Alert severity="info" sx={{ mt: 4 }}>
          Your card is being charged…
        </Alert>
      )}
      {view.takesCards && !isUnderWay && view.open.length > 0 && (
        <Box sx={{ mt: 4, "@media print": { display: "none" } }}>
          {payment?.state === "declined" && (
            <Alert severity="error" sx={{ mb: 3 }}>
              The card was declined{payment.problem ? `: ${payment.problem}` : ""}. Try another one.
            </Alert>
          )}
          {problem && (
            <Alert severity="warning" role="alert" sx={{ mb: 3 }}>
              {problem.sentence}
            </Alert>
          )}
          <CardForm onToken={setCard} />
          <Button
            variant="contained"
            fullWidth
            disabled={!card || busy || chosen.length === 0}
            onClick={() => void send({ token, invoiceIds: chosen.map(({ id }) => id), cardToken: card! })}
            sx={{ mt: 3, minHeight: 52, fontSize: 17 }}
          >
            Pay {amount(sum(chosen.map(({ openMinor }) => openMinor)))}
            {view.open.length > 1 && `, ${chosen.length} of ${view.open.length} invoices`}
          </Button>
        </Box>
      )}
    </>
  );
}
