"use client";
import { moneyTyped, moneyWords, parseMoney } from "@/core/money/amounts";
import { ink } from "@/ui/palette";
import { Fact } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import { useState } from "react";
import type { Invoice } from "./data";
import { ReasonForm } from "./reason-form";

type Payment = Invoice["payments"][number];

/** A payment of an invoice, and how it goes back. */
export function PaymentRow({
  payment,
  invoice,
  day,
  mayChange,
}: {
  payment: Payment;
  invoice: Invoice;
  day: string;
  mayChange: boolean;
}) {
  const [doing, setDoing] = useState<"refund" | "take back" | null>(null);
  const amount = (minor: number) => moneyWords(minor, invoice.currency);
  const isReceived = payment.state === "received";
  return (
    <Fact name={day}>
      {amount(payment.amount_minor)} by {payment.method}
      {payment.note && ` (${payment.note})`}
      {payment.purpose === "deposit" ? ", deposit" : ""}:{" "}
      <b style={{ color: payment.state === "declined" ? ink.ember : ink.ink }}>{payment.state}</b>
      {payment.applied ? `, ${amount(payment.applied)} applied here` : ""}
      {payment.left > 0 && `, ${amount(payment.left)} left`}
      {payment.gateway_reference && (
        <>
          <br />
          <span style={{ color: ink.ash, fontSize: 13 }}>{payment.gateway_reference}</span>
        </>
      )}
      {isReceived && (
        <Stack direction="row" sx={{ gap: 1 }}>
          <Button size="small" href={`/papers/receipt/${payment.id}.pdf`} target="_blank">
            Receipt
          </Button>
          {mayChange && payment.left > 0 && (
            <Button size="small" aria-expanded={doing === "refund"} onClick={() => setDoing(doing ? null : "refund")}>
              Refund…
            </Button>
          )}
          {mayChange && payment.method !== "card" && (
            <Button
              size="small"
              aria-expanded={doing === "take back"}
              onClick={() => setDoing(doing ? null : "take back")}
            >
              It was a mistake…
            </Button>
          )}
        </Stack>
      )}
      {doing === "refund" && <RefundForm payment={payment} invoice={invoice} onDone={() => setDoing(null)} />}
      {doing === "take back" && <TakeBackForm payment={payment} invoice={invoice} onDone={() => setDoing(null)} />}
    </Fact>
  );
}

interface FormProps {
  payment: Payment;
  invoice: Invoice;
  onDone: () => void;
}

function RefundForm({ payment, invoice, onDone }: FormProps) {
  const { currency } = invoice;
  const [text, setText] = useState(moneyTyped(payment.left, currency));
  const [method, setMethod] = useState<"as paid" | "cash" | "bank">("as paid");
  const { send, busy, wrong } = useChange("refund-payment");
  const { enqueueSnackbar } = useSnackbar();
  const amountMinor = parseMoney(text, currency);
  const back = async (reason: string) => {
    if (!amountMinor || !(await send({ paymentId: payment.id, amountMinor, method, reason }))) return;
    onDone();
    enqueueSnackbar(`${moneyWords(amountMinor, currency)} goes back`, { variant: "success" });
  };
  const toCard = method === "as paid" && payment.method === "card";
  return (
    <ReasonForm
      title="Refund"
      words="Refund"
      busy={busy}
      disabled={!amountMinor}
      wrong={wrong}
      onDo={(reason) => void back(reason)}
      says={
        toCard
          ? "It goes back to the card it came from, within days. The customer’s credit is less by it at once."
          : "It is noted as handed back. The customer’s credit is less by it."
      }
    >
      <Stack direction="row" spacing={2}>
        <TextField
          label="Amount"
          value={text}
          onChange={(e) => setText(e.target.value)}
          error={!amountMinor || !!wrong("/amountMinor")}
          helperText={wrong("/amountMinor") ?? `up to ${moneyWords(payment.left, currency)}`}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
        />
        <TextField
          select
          label="How"
          value={method}
          onChange={(e) => setMethod(e.target.value as typeof method)}
          sx={{ minWidth: 150 }}
        >
          <MenuItem value="as paid">as it was paid</MenuItem>
          <MenuItem value="cash">handed back, cash</MenuItem>
          <MenuItem value="bank">by transfer</MenuItem>
        </TextField>
      </Stack>
    </ReasonForm>
  );
}

function TakeBackForm({ payment, invoice, onDone }: FormProps) {
  const { send, busy, wrong } = useChange("take-back-payment");
  const { enqueueSnackbar } = useSnackbar();
  const takeBack = async (reason: string) => {
    if (!(await send({ paymentId: payment.id, reason }))) return;
    onDone();
    enqueueSnackbar("The payment is taken back", { variant: "success" });
  };
  return (
    <ReasonForm
      title="Take the payment back"
      words="Take it back"
      busy={busy}
      wrong={wrong}
      onDo={(reason) => void takeBack(reason)}
      says={`A counter-entry sets it right: ${moneyWords(payment.amount_minor, invoice.currency)} were not received, and what they had paid is open again. Both entries stay in the books.`}
    />
  );
}
