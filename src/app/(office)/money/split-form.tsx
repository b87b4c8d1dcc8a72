"use client";
import { moneyWords, sum } from "@/core/money/amounts";
import { mostParts, type Part, splitEvenly } from "@/core/money/instalments";
import { dateWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { MoneyField, WholeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { Fact, SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { useState } from "react";
import type { Invoice } from "./data";

/** An open invoice in dated parts: what is open of each, and how it is split. */
export function InvoiceParts({ invoice, mayChange }: { invoice: Invoice; mayChange: boolean }) {
  const [open, setOpen] = useState(false);
  const amount = (minor: number) => moneyWords(minor, invoice.currency);
  const { send, busy } = useChange("split-invoice", { then: () => setOpen(false) });
  if (invoice.parts.length === 0 && !mayChange) return null;
  return (
    <SheetSection title="In parts">
      {invoice.parts.map((part) => (
        <Fact key={part.words} name={dateWords(part.due)}>
          {amount(part.openMinor)}, {part.words}
          {part.due < invoice.today && <span style={{ color: ink.ember }}>, overdue</span>}
        </Fact>
      ))}
      {mayChange && (
        <Stack direction="row" sx={{ gap: 2, mt: 1 }}>
          <Button size="small" variant="outlined" aria-expanded={open} onClick={() => setOpen(!open)}>
            {invoice.parts.length ? "Split it anew…" : "Split it into parts…"}
          </Button>
          {invoice.parts.length > 0 && (
            <Button size="small" disabled={busy} onClick={() => void send({ invoiceId: invoice.id, parts: [] })}>
              As a whole again
            </Button>
          )}
        </Stack>
      )}
      {open && <SplitForm invoice={invoice} onDone={() => setOpen(false)} />}
    </SheetSection>
  );
}

function SplitForm({ invoice, onDone }: { invoice: Invoice; onDone: () => void }) {
  const first = invoice.dueDate < invoice.today ? invoice.today : invoice.dueDate;
  const [parts, setParts] = useState<Part[]>(() => splitEvenly(invoice.openMinor, 3, first));
  const { send, busy, wrong } = useChange("split-invoice", { then: onDone });
  const set = (at: number, part: Partial<Part>) =>
    setParts(parts.map((one, i) => (i === at ? { ...one, ...part } : one)));
  const off = invoice.openMinor - sum(parts.map(({ amountMinor }) => amountMinor));
  return (
    <Box
      role="group"
      aria-label="Split it into parts"
      sx={{ mt: 3, p: 3, bgcolor: ink.plaster, borderRadius: "6px", display: "grid", gap: 2 }}
    >
      <WholeField
        label="How many parts"
        value={parts.length}
        onValue={(n) => setParts(splitEvenly(invoice.openMinor, Math.min(mostParts, Math.max(2, n)), parts[0]!.due))}
      />
      {parts.map((part, i) => (
        <Stack key={i} direction="row" sx={{ gap: 2 }}>
          <DateField
            label={`Part ${i + 1} is due`}
            width={180}
            value={part.due}
            onValue={(due) => due && set(i, { due })}
          />
          <MoneyField
            currency={invoice.currency}
            label={`Part ${i + 1}, ${invoice.currency}`}
            value={part.amountMinor}
            onValue={(amountMinor) => set(i, { amountMinor })}
          />
        </Stack>
      ))}
      {off !== 0 && (
        <Box role="status" sx={{ fontSize: 14.5 }}>
          {moneyWords(Math.abs(off), invoice.currency)} {off > 0 ? "is still to be put into a part" : "is too much"}.
        </Box>
      )}
      {wrong("/parts") && <Alert severity="error">{wrong("/parts")}</Alert>}
      <Button
        variant="contained"
        disabled={busy || off !== 0}
        onClick={() => void send({ invoiceId: invoice.id, parts })}
        sx={{ justifySelf: "start" }}
      >
        Split it
      </Button>
    </Box>
  );
}
