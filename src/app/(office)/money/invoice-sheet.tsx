"use client";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dateWords, dayShort } from "@/core/time/words";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { channelWords } from "@/ui/message-list";
import { ink } from "@/ui/palette";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import { useCopy } from "@/ui/use-copy";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import Stack from "@mui/material/Stack";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { useOffice } from "../office-context";
import { InvoiceCollection } from "./invoice-collection";
import { CreditForm } from "./credit-form";
import type { Invoice } from "./data";
import { PaymentRow } from "./payment-row";
import { ReasonForm } from "./reason-form";
import { ReceiveForm } from "./receive-form";
import { InvoiceParts } from "./split-form";

/** One invoice with its life: lines, what paid it, what took it back, what was sent; and what is done about it. */
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
  const mayChange = person.permissions.includes("money.change");
  const self = { id: invoice.id, number: invoice.number, openMinor: invoice.openMinor };
  return (
    <SideSheet title={`Invoice ${invoice.number}`} onClose={onClose} width={440}>
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
      <LateFee invoice={invoice} />
      <Life invoice={invoice} />
      <Papers invoice={invoice} mayChange={mayChange} />
      <SheetSection title="Lines">
        {invoice.lines.map((line, i) => (
          <Amount
            key={i}
            name={line.quantity === 1 ? line.description : `${line.description} × ${line.quantity}`}
            value={amount(line.amount_minor)}
          />
        ))}
        <Amount
          name={<b>Total, of which tax {amount(invoice.taxMinor)}</b>}
          value={<b>{amount(invoice.totalMinor)}</b>}
        />
        {invoice.notes.map((note) => (
          <Amount
            key={note.id}
            name={
              <>
                <a href={`/papers/credit-note/${note.id}.pdf?invoice=${invoice.id}`} target="_blank">
                  Credit note {note.number}
                </a>
                , {day(note.issued_at)}: {note.reason}
              </>
            }
            value={amount(-note.total_minor)}
          />
        ))}
        {invoice.writtenOff && (
          <Amount
            name={`Written off, ${day(invoice.writtenOff.at)}: ${invoice.writtenOff.reason}`}
            value={amount(-invoice.writtenOff.minor)}
          />
        )}
        <Amount name={<b>Open</b>} value={<b>{amount(invoice.openMinor)}</b>} />
      </SheetSection>
      <SheetSection title="Payments">
        {invoice.payments.length === 0 && <span style={{ color: ink.ash }}>None yet.</span>}
        {invoice.payments.map((payment) => (
          <PaymentRow
            key={payment.id}
            payment={payment}
            invoice={invoice}
            day={day(payment.settled_at ?? payment.asked_at)}
            mayChange={mayChange}
          />
        ))}
      </SheetSection>
      {mayChange && invoice.creditMinor > 0 && <UseCredit invoice={invoice} />}
      {mayChange && invoice.openMinor > 0 && (
        <ReceiveForm
          customerId={invoice.customerId}
          customer={invoice.customer}
          currency={invoice.currency}
          open={[self, ...invoice.others]}
          meant={[invoice.id]}
        />
      )}
      {invoice.objection && invoice.openMinor > 0 && <Objection invoice={invoice} mayChange={mayChange} />}
      {invoice.openMinor > 0 && <InvoiceParts invoice={invoice} mayChange={mayChange} />}
      {invoice.openMinor > 0 && <InvoiceCollection invoice={invoice} mayChange={mayChange} />}
      {mayChange && <Corrections invoice={invoice} />}
      <SheetSection title="Sent">
        {invoice.messages.map((m) => (
          <Fact key={m.id} name={day(m.written_at)}>
            {m.subject || "text"} ({channelWords(m.channel)}, {m.state})
          </Fact>
        ))}
      </SheetSection>
    </SideSheet>
  );
}

const lifeWords: Partial<Record<Invoice["life"][number]["what"], string>> = {
  invoice: "issued",
  allocation: "paid",
  released: "open again",
  "credit note": "credited",
  "write-off": "written off",
  reversal: "set right",
};

/** An invoice's whole life on one line, from its issue to today; what is not over yet stands open at its end. */
function Life({ invoice }: { invoice: Invoice }) {
  const dayOf = (at: number) => localDate(Math.floor(at / 60_000), invoice.timeZone);
  const steps = [
    ...invoice.life.map(({ at, what, minor }) => ({
      day: dayOf(at),
      words: lifeWords[what] ?? what,
      minor: what === "invoice" || minor === null ? null : Math.abs(minor),
    })),
    ...(invoice.openMinor > 0 ? [{ day: invoice.dueDate, words: "due", minor: invoice.openMinor }] : []),
  ].sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0));
  return (
    <Box
      component="ol"
      aria-label="Its life"
      sx={{ display: "flex", overflowX: "auto", listStyle: "none", p: 0, my: 3 }}
    >
      {steps.map(({ day, words, minor }, i) => (
        <Box
          key={i}
          component="li"
          sx={{
            flex: "1 0 68px",
            fontSize: 13,
            lineHeight: 1.35,
            position: "relative",
            pt: 4,
            "&::before": {
              content: '""',
              position: "absolute",
              top: 6,
              left: 0,
              right: i === steps.length - 1 ? "auto" : 0,
              width: i === steps.length - 1 ? 8 : "auto",
              borderTop: `2px solid ${ink.line}`,
            },
            "&::after": {
              content: '""',
              position: "absolute",
              top: 2,
              left: 0,
              width: 10,
              height: 10,
              borderRadius: "50%",
              bgcolor: words === "due" ? "#fff" : words === "paid" ? ink.moss : ink.ink,
              border: `2px solid ${words === "due" ? ink.ember : words === "paid" ? ink.moss : ink.ink}`,
              boxSizing: "border-box",
            },
          }}
        >
          <Box sx={{ color: ink.ash, whiteSpace: "nowrap" }}>{dayShort(day)}</Box>
          {words}
          {minor !== null && <Box>{moneyWords(minor, invoice.currency)}</Box>}
        </Box>
      ))}
    </Box>
  );
}

function LateFee({ invoice: { lateFee, openMinor } }: { invoice: Invoice }) {
  if (lateFee.waived) return <Fact name="Late fee">waived: {lateFee.waived}</Fact>;
  if (lateFee.invoice)
    return (
      <Fact name="Late fee">
        <LinkBox href={`/money?list=invoices&show=all&id=${lateFee.invoice.id}`} sx={{ color: ink.lake }}>
          invoice {lateFee.invoice.number}
        </LinkBox>
      </Fact>
    );
  return lateFee.on && openMinor > 0 ? (
    <Fact name="Late fee">on {dateWords(lateFee.on)}, if it is still open</Fact>
  ) : null;
}

/** The invoice as a file, and its link. */
function Papers({ invoice, mayChange }: { invoice: Invoice; mayChange: boolean }) {
  const copy = useCopy();
  const { send, busy } = useChange("copy-invoice-link");
  const copyLink = async () => {
    const done = await send({ invoiceId: invoice.id });
    if (done) copy(done.value.address, "The link of the invoice is copied");
  };
  return (
    <Stack direction="row" sx={{ gap: 2, flexWrap: "wrap", mt: 2 }}>
      <Button size="small" variant="outlined" href={`/papers/invoice/${invoice.id}.pdf`} target="_blank">
        PDF
      </Button>
      <Button size="small" variant="outlined" href={`/papers/invoice/${invoice.id}.xml`}>
        XML
      </Button>
      {mayChange && (
        <Button size="small" disabled={busy} onClick={() => void copyLink()}>
          Copy its link
        </Button>
      )}
    </Stack>
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
    <span style={{ whiteSpace: "nowrap" }}>{value}</span>
  </div>
);

function UseCredit({ invoice }: { invoice: Invoice }) {
  const { send, busy } = useChange("use-credit");
  return (
    <Alert
      severity="info"
      sx={{ mt: 3 }}
      action={
        <Button size="small" disabled={busy} onClick={() => void send({ invoiceId: invoice.id })}>
          Use it here
        </Button>
      }
    >
      {invoice.customer} has {moneyWords(invoice.creditMinor, invoice.currency)} with us.
    </Alert>
  );
}

type Correction = "credit" | "write off" | "owed again" | "waive";

/** What the customer says against it; until somebody has answered, it is left alone. */
function Objection({ invoice, mayChange }: { invoice: Invoice; mayChange: boolean }) {
  const { send, busy, wrong } = useChange("answer-objection");
  return (
    <SheetSection title="They object">
      <Alert severity="warning" sx={{ mb: 2 }}>
        {invoice.objection!.words
          ? `“${invoice.objection!.words}”`
          : "They have said no to the charge, without a word."}
      </Alert>
      {mayChange && (
        <ReasonForm
          title="Answer it"
          words="It is answered"
          busy={busy}
          wrong={wrong}
          onDo={(reason) => void send({ invoiceId: invoice.id, reason })}
          says="Nobody reminds, charges a card or adds a fee until then. What you agreed stays with the invoice."
        />
      )}
    </SheetSection>
  );
}

/** Credit note, write-off, and a new invoice for work whose invoice was taken back. */
function Corrections({ invoice }: { invoice: Invoice }) {
  const [doing, setDoing] = useState<Correction | null>(null);
  const writeOff = useChange("write-off");
  const again = useChange("invoice-again");
  const { enqueueSnackbar } = useSnackbar();
  const router = useRouter();
  const undo = useChange("undo-write-off", { then: () => setDoing(null) });
  const toggle = (what: Correction) => setDoing(doing === what ? null : what);
  const giveUp = async (reason: string) => {
    if (!(await writeOff.send({ invoiceId: invoice.id, reason }))) return;
    setDoing(null);
    enqueueSnackbar("Written off", { variant: "success" });
  };
  const anew = async (jobId: number) => {
    const done = await again.send({ jobId });
    if (done) router.push(`/money?list=invoices&show=all&id=${done.value.invoiceId}`);
  };
  const waive = useChange("waive-late-fee");
  const waiveIt = async (reason: string) => {
    if (!(await waive.send({ invoiceId: invoice.id, reason }))) return;
    setDoing(null);
    enqueueSnackbar("The late fee is waived", { variant: "success" });
  };
  const { lateFee } = invoice;
  const canCredit = invoice.creditable.some(({ leftMinor }) => leftMinor !== 0);
  return (
    <SheetSection title="To correct it">
      <Stack direction="row" sx={{ gap: 2, flexWrap: "wrap" }}>
        {canCredit && (
          <Button variant="outlined" aria-expanded={doing === "credit"} onClick={() => toggle("credit")}>
            Credit note…
          </Button>
        )}
        {invoice.openMinor > 0 && (
          <Button variant="outlined" aria-expanded={doing === "write off"} onClick={() => toggle("write off")}>
            Write off…
          </Button>
        )}
        {invoice.writtenOff && (
          <Button variant="outlined" aria-expanded={doing === "owed again"} onClick={() => toggle("owed again")}>
            It is owed after all…
          </Button>
        )}
        {(lateFee.on !== null || lateFee.invoice) && !lateFee.waived && invoice.openMinor > 0 && (
          <Button variant="outlined" aria-expanded={doing === "waive"} onClick={() => toggle("waive")}>
            Waive the late fee…
          </Button>
        )}
        {invoice.toInvoice.map((jobId) => (
          <Button key={jobId} variant="outlined" disabled={again.busy} onClick={() => void anew(jobId)}>
            Invoice the work anew
          </Button>
        ))}
      </Stack>
      {doing === "owed again" && invoice.writtenOff && (
        <ReasonForm
          title="Owed after all"
          words="It is owed again"
          busy={undo.busy}
          wrong={undo.wrong}
          onDo={(reason) => void undo.send({ invoiceId: invoice.id, reason })}
          says={`${moneyWords(invoice.writtenOff.minor, invoice.currency)} is open again, and reminded of.`}
        />
      )}
      {doing === "waive" && (
        <ReasonForm
          title="Waive the late fee"
          words="Waive it"
          busy={waive.busy}
          wrong={waive.wrong}
          onDo={(reason) => void waiveIt(reason)}
          says={
            lateFee.invoice
              ? `A credit note takes invoice ${lateFee.invoice.number} back.`
              : "No fee is asked for paying this invoice late."
          }
        />
      )}
      {doing === "credit" && <CreditForm invoice={invoice} onDone={() => setDoing(null)} />}
      {doing === "write off" && (
        <ReasonForm
          title="Write off"
          words="Write it off"
          busy={writeOff.busy}
          wrong={writeOff.wrong}
          onDo={(reason) => void giveUp(reason)}
          says={`${moneyWords(invoice.openMinor, invoice.currency)} is given up: nobody is reminded of it any more. The tax of the invoice stays owed.`}
        />
      )}
    </SheetSection>
  );
}
