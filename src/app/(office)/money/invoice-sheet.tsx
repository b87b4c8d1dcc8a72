"use client";
import type { ViewOutput } from "@/api/client";
import { moneyTyped, moneyWords, parseMoney } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dateWords, dayShort } from "@/core/time/words";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { channelWords } from "@/ui/message-list";
import { ink } from "@/ui/palette";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { nanoid } from "nanoid";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { useOffice } from "../office-context";

type Invoice = ViewOutput<"invoice">;

export function InvoiceSheet({ id, onClose }: { id: number; onClose: () => void }) {
  const { data: invoice, problem } = useLive("invoice", { id });
  const { person } = useOffice();
  if (!invoice)
    return (
      <SideSheet title="Invoice" onClose={onClose}>
        {problem ? <Alert severity="error">{problem.sentence}</Alert> : <Skeleton variant="rounded" height={240} />}
      </SideSheet>
    );
  const amount = (value: number) => moneyWords(value, invoice.currency);
  const day = (ms: number | null) =>
    ms === null ? "" : dayShort(localDate(Math.floor(ms / 60_000), invoice.timeZone));
  return (
    <SideSheet title={`Invoice ${invoice.number}`} onClose={onClose}>
      <Fact name="Customer">
        {person.permissions.includes("customers.see") ? (
          <LinkBox href={`/customers/${invoice.customerId}`} sx={{ color: ink.lake }}>
            {invoice.customer}
          </LinkBox>
        ) : (
          invoice.customer
        )}
      </Fact>
      {invoice.bill && <Fact name="Bill to">{invoice.bill}</Fact>}
      <Fact name="State">
        <b style={{ color: invoice.state === "overdue" ? ink.ember : invoice.state === "paid" ? ink.moss : ink.ink }}>
          {invoice.state}
        </b>
      </Fact>
      <Fact name="Due">{dateWords(invoice.dueDate)}</Fact>
      <SheetSection title="Lines">
        {invoice.lines.map((line, i) => (
          <Amount key={i} name={line.description} value={amount(line.amount_minor)} />
        ))}
        <Amount
          name={<b>Total, of which tax {amount(invoice.taxMinor)}</b>}
          value={<b>{amount(invoice.totalMinor)}</b>}
        />
        <Amount name={<b>Open</b>} value={<b>{amount(invoice.openMinor)}</b>} />
      </SheetSection>
      <SheetSection title="Payments">
        {invoice.payments.length === 0 && <span style={{ color: ink.ash }}>None yet.</span>}
        {invoice.payments.map((p) => (
          <Fact key={p.id} name={day(p.settled_at ?? p.asked_at)}>
            {amount(p.amount_minor)} by {p.method}, {p.purpose}:{" "}
            <b style={{ color: p.state === "declined" ? ink.ember : ink.ink }}>{p.state}</b>
            {p.applied ? `, ${amount(p.applied)} applied here` : ""}
            {p.gateway_reference && (
              <>
                <br />
                <span style={{ color: ink.ash, fontSize: 13 }}>{p.gateway_reference}</span>
              </>
            )}
          </Fact>
        ))}
      </SheetSection>
      {invoice.openMinor > 0 && person.permissions.includes("money.change") && <Receive invoice={invoice} />}
      <SheetSection title="Sent">
        {invoice.reminders.map((m) => (
          <Fact key={m.id} name={day(m.written_at)}>
            {m.subject || "text"} ({channelWords(m.channel)}, {m.state})
          </Fact>
        ))}
      </SheetSection>
    </SideSheet>
  );
}

const Amount = ({ name, value }: { name: React.ReactNode; value: React.ReactNode }) => (
  <div
    style={{
      display: "flex",
      justifyContent: "space-between",
      gap: 12,
      padding: "5px 0",
      borderTop: `1px solid ${ink.line}`,
      fontSize: 14.5,
    }}
  >
    <span>{name}</span>
    <span>{value}</span>
  </div>
);

function Receive({ invoice }: { invoice: Invoice }) {
  const [method, setMethod] = useState<"cash" | "bank">("bank");
  const [text, setText] = useState(moneyTyped(invoice.openMinor, invoice.currency));
  const [key, setKey] = useState(() => nanoid());
  const { send, busy, wrong } = useChange("record-payment");
  const { enqueueSnackbar } = useSnackbar();
  const amountMinor = parseMoney(text, invoice.currency);
  const record = async () => {
    if (amountMinor === null || !(await send({ invoiceId: invoice.id, method, amountMinor, key }))) return;
    setKey(nanoid());
    enqueueSnackbar(`${moneyWords(amountMinor, invoice.currency)} is recorded`, { variant: "success" });
  };
  return (
    <SheetSection title="Money received">
      <Stack direction="row" spacing={2} sx={{ alignItems: "flex-start" }}>
        <TextField select label="How" value={method} onChange={(e) => setMethod(e.target.value as "cash" | "bank")}>
          <MenuItem value="bank">bank</MenuItem>
          <MenuItem value="cash">cash</MenuItem>
        </TextField>
        <TextField
          label="Amount"
          value={text}
          onChange={(e) => setText(e.target.value)}
          error={amountMinor === null || !!wrong("/amountMinor")}
          helperText={amountMinor === null ? "Such as 89.50" : wrong("/amountMinor")}
          slotProps={{ htmlInput: { inputMode: "decimal" } }}
        />
        <Button
          variant="contained"
          disabled={busy || amountMinor === null}
          onClick={() => void record()}
          sx={{ height: 40, flex: "none" }}
        >
          Record payment
        </Button>
      </Stack>
    </SheetSection>
  );
}
