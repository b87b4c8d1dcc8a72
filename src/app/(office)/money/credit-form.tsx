"use client";
import { moneyTyped, moneyWords, parseMoney, sum } from "@/core/money/amounts";
import { useChange } from "@/ui/use-change";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import { useState } from "react";
import type { Invoice } from "./data";
import { ReasonForm } from "./reason-form";

/** A credit note over an invoice, whole or in parts of its lines. */
export function CreditForm({ invoice, onDone }: { invoice: Invoice; onDone: () => void }) {
  const { currency } = invoice;
  const lines = invoice.creditable.filter(({ leftMinor }) => leftMinor !== 0);
  const [typed, setTyped] = useState<Record<number, string>>({});
  const { send, busy, wrong } = useChange("credit-invoice");
  const { enqueueSnackbar } = useSnackbar();
  const amount = (minor: number) => moneyWords(minor, currency);
  const parts = lines.map(({ position, leftMinor }) => ({
    position,
    amountMinor: typed[position] === undefined ? leftMinor : parse(typed[position], leftMinor, currency),
  }));
  const isWhole = parts.every(({ amountMinor }, i) => amountMinor === lines[i]!.leftMinor);
  const total = sum(parts.map(({ amountMinor }) => amountMinor ?? 0));
  const odd = parts.some(({ amountMinor }) => amountMinor === null);
  const free = Math.max(0, total - invoice.openMinor);
  const credit = async (reason: string) => {
    const some = parts.flatMap(({ position, amountMinor }) => (amountMinor ? [{ position, amountMinor }] : []));
    if (!(await send({ invoiceId: invoice.id, lines: isWhole ? null : some, reason }))) return;
    onDone();
    enqueueSnackbar(`${amount(total)} is credited`, { variant: "success" });
  };
  return (
    <ReasonForm
      title="Credit note"
      words="Issue the credit note"
      busy={busy}
      disabled={odd || total <= 0}
      wrong={wrong}
      onDo={(reason) => void credit(reason)}
      says={
        <>
          {amount(total)} of invoice {invoice.number}{" "}
          {isWhole ? "are taken back: all that is left of it." : "are taken back."}
          {free > 0 &&
            ` ${amount(free)} that had paid it are ${invoice.customer}’s again: credit that pays the next invoice, or can be refunded.`}
          {isWhole && " The work can be invoiced anew."} The invoice itself stays as it was sent.
        </>
      }
    >
      {lines.map(({ position, description, leftMinor }, i) => (
        <TextField
          key={position}
          size="small"
          label={description}
          value={typed[position] ?? moneyTyped(leftMinor, currency)}
          onChange={(e) => setTyped({ ...typed, [position]: e.target.value })}
          error={parts[i]!.amountMinor === null || !!wrong(`/lines/${i}/amountMinor`)}
          helperText={
            parts[i]!.amountMinor === null
              ? `An amount up to ${amount(leftMinor)}`
              : (wrong(`/lines/${i}/amountMinor`) ?? `of ${amount(leftMinor)}`)
          }
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
        />
      ))}
    </ReasonForm>
  );
}

/** An amount of the sign of what is left, as typed; null where it is none or too much. */
function parse(text: string, leftMinor: number, currency: string): number | null {
  const minor = parseMoney(text.replace(/^[-−]/, ""), currency);
  if (minor === null || minor > Math.abs(leftMinor)) return null;
  return Math.sign(leftMinor) * minor;
}
