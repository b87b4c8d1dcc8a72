"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords, sum } from "@/core/money/amounts";
import { clock, dateWords, dayShort, dayWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { DateField } from "@/ui/date-field";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import ExpandMore from "@mui/icons-material/ExpandMore";
import Accordion from "@mui/material/Accordion";
import AccordionDetails from "@mui/material/AccordionDetails";
import AccordionSummary from "@mui/material/AccordionSummary";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import dynamic from "next/dynamic";
import { RunCalendar } from "./run-calendar";
import { useState } from "react";

const CollectionRules = dynamic(() => import("./collection-rules").then((m) => m.CollectionRules));

type View = ViewOutput<"collection">;

/** What comes in by itself: what each coming run will take, what is left and why, what runs have done. */
export function Collection(props: { mayChange: boolean; onInvoice: (id: number) => void }) {
  const { data, problem } = useLive("collection", {});
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  return data ? <Whole view={data} {...props} /> : <Skeleton variant="rounded" height={320} sx={{ mx: 6 }} />;
}

function Whole({ view, mayChange, onInvoice }: { view: View; mayChange: boolean; onInvoice: (id: number) => void }) {
  const [setting, setSetting] = useState(false);
  const amount = (minor: number) => moneyWords(minor, view.currency);
  const { rules } = view;
  return (
    <Box sx={{ px: 6, pb: 6, pt: 2, overflowY: "auto", display: "grid", gap: 6, alignContent: "start", maxWidth: 980 }}>
      <Box sx={{ display: "flex", gap: 4, alignItems: "center", flexWrap: "wrap" }}>
        <Box role="status" sx={{ flex: 1, minWidth: 260 }}>
          {rules.on ? (
            <>
              What is due is charged to the cards of those who have agreed, at <b>{clock(rules.at)}</b>. They are told
              the day before.
            </>
          ) : view.takesCards ? (
            "Nothing is collected by itself. Switch it on, and what is due is charged to the cards of those who have agreed."
          ) : (
            "Cards cannot be charged here: there is no card service."
          )}
        </Box>
        {mayChange && (
          <Button variant={rules.on ? "outlined" : "contained"} onClick={() => setSetting(true)}>
            {rules.on ? "When and what…" : "Switch it on…"}
          </Button>
        )}
      </Box>
      {setting && <CollectionRules rules={rules} currency={view.currency} onClose={() => setSetting(false)} />}
      {view.toPhone.length > 0 && <ToPhone view={view} amount={amount} mayChange={mayChange} onInvoice={onInvoice} />}
      {view.declined.length > 0 && <Declined view={view} amount={amount} onInvoice={onInvoice} />}
      {view.disputes.length > 0 && <Disputes view={view} amount={amount} onInvoice={onInvoice} />}
      {rules.on && (
        <Box component="section" aria-label="Coming runs">
          <Typography variant="h2" sx={{ mb: 2 }}>
            Coming runs
          </Typography>
          {view.todaysRun && <RunNow run={view.todaysRun} at={rules.at} amount={amount} mayChange={mayChange} />}
          <RunCalendar view={view} amount={amount} />
          {view.runs.length === 0 && <Box sx={{ color: ink.ash }}>No run in the next four weeks takes anything.</Box>}
          {view.runs.map((run) => (
            <Lines
              key={run.date}
              id={`run-${run.date}`}
              title={`${dayWords(run.date)}, ${clock(rules.at)}`}
              said={`${counted(run.n, "invoice")}, ${amount(run.sumMinor)}`}
              rows={run.invoices.map((one) => ({ ...one, more: `due ${dayShort(one.due)}, ${one.card}` }))}
              amount={amount}
              onInvoice={onInvoice}
            />
          ))}
          {view.expected.map((run) => (
            <Lines
              key={`expected ${run.date}`}
              id={`expected-${run.date}`}
              title={`Expected on ${dayWords(run.date)}`}
              said={`${counted(run.n, "visit")} to come, ${amount(run.sumMinor)}`}
              rows={run.visits.map(({ visitOn, due, ...visit }) => ({
                ...visit,
                invoiceId: null,
                label: "",
                more: `visit on ${dayShort(visitOn)}, due ${dayShort(due)}`,
              }))}
              amount={amount}
              onInvoice={onInvoice}
            />
          ))}
          {view.leftCount > 0 && (
            <Lines
              title="Left out"
              said={counted(view.leftCount, "invoice")}
              rows={view.left.map((one) => ({ ...one, more: one.why }))}
              amount={amount}
              onInvoice={onInvoice}
            />
          )}
        </Box>
      )}
      {view.past.length > 0 && (
        <Box component="section" aria-label="Runs that were">
          <Typography variant="h2" sx={{ mb: 2 }}>
            Runs that were
          </Typography>
          {view.past.map((run) => (
            <Report key={run.date} run={run} amount={amount} onInvoice={onInvoice} />
          ))}
        </Box>
      )}
    </Box>
  );
}

/** Today's run, and a way not to wait for its time. */
function RunNow({
  run,
  at,
  amount,
  mayChange,
}: {
  run: NonNullable<View["todaysRun"]>;
  at: number;
  amount: (minor: number) => string;
  mayChange: boolean;
}) {
  const { send, busy } = useChange("begin-collection-run");
  return (
    <Alert
      severity="info"
      sx={{ mb: 2 }}
      action={
        mayChange && (
          <Button color="inherit" disabled={busy} onClick={() => void send({})}>
            Run now
          </Button>
        )
      }
    >
      Today, {clock(at)}: {counted(run.n, "invoice")}, {amount(run.sumMinor)}, of which everybody was told yesterday.
    </Alert>
  );
}

interface Line {
  key: string;
  /** Null where there is none yet: a visit to come. */
  invoiceId: number | null;
  label: string;
  customer: string;
  more: string;
  openMinor: number;
}

function Lines({
  id,
  title,
  said,
  rows,
  amount,
  onInvoice,
}: {
  id?: string;
  title: string;
  said: string;
  rows: readonly Line[];
  amount: (minor: number) => string;
  onInvoice: (id: number) => void;
}) {
  return (
    <Accordion disableGutters elevation={0} square sx={{ borderTop: `1px solid ${ink.line}`, bgcolor: "transparent" }}>
      <AccordionSummary expandIcon={<ExpandMore />} id={id}>
        <Box sx={{ display: "flex", gap: 4, flex: 1, pr: 3 }}>
          <b style={{ flex: 1 }}>{title}</b>
          <span>{said}</span>
        </Box>
      </AccordionSummary>
      <AccordionDetails>
        {rows.map((row) => (
          <Box key={row.key} sx={{ display: "flex", gap: 4, py: 1, fontSize: 14.5, alignItems: "baseline" }}>
            {row.invoiceId !== null && (
              <Button size="small" onClick={() => onInvoice(row.invoiceId!)} sx={{ minWidth: 0 }}>
                {row.label}
              </Button>
            )}
            <span style={{ flex: 1 }}>
              {row.customer} <span style={{ color: ink.ash }}>{row.more}</span>
            </span>
            <span>{amount(row.openMinor)}</span>
          </Box>
        ))}
      </AccordionDetails>
    </Accordion>
  );
}

/** What a run did; what it did about each invoice comes when it is opened. */
function Report({
  run,
  amount,
  onInvoice,
}: {
  run: View["past"][number];
  amount: (minor: number) => string;
  onInvoice: (id: number) => void;
}) {
  const [open, setOpen] = useState(false);
  const said = [
    `${counted(run.paid, "invoice")} paid, ${amount(run.paidMinor)}`,
    run.declined > 0 && `${counted(run.declined, "card")} declined`,
    run.waits > 0 && `${run.waits} under way`,
    run.left > 0 && `${run.left} left out`,
  ].filter(Boolean);
  return (
    <Accordion
      disableGutters
      elevation={0}
      square
      expanded={open}
      onChange={(_, opens) => setOpen(opens)}
      sx={{ borderTop: `1px solid ${ink.line}`, bgcolor: "transparent" }}
    >
      <AccordionSummary expandIcon={<ExpandMore />}>
        <Box sx={{ display: "flex", gap: 4, flex: 1, pr: 3, flexWrap: "wrap" }}>
          <b style={{ flex: 1 }}>
            {dateWords(run.date)}
            {run.ended === null && ", not over yet"}
          </b>
          <span>{said.join(" · ")}</span>
        </Box>
      </AccordionSummary>
      <AccordionDetails>{open && <Rows date={run.date} amount={amount} onInvoice={onInvoice} />}</AccordionDetails>
    </Accordion>
  );
}

function Rows({
  date,
  amount,
  onInvoice,
}: {
  date: string;
  amount: (minor: number) => string;
  onInvoice: (id: number) => void;
}) {
  const { data, problem } = useLive("collection-run", { date });
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!data) return <Skeleton variant="rounded" height={120} />;
  const became = ({ state, leftOut, card, problem: why, next }: (typeof data.rows)[number]) =>
    leftOut !== null
      ? `left out: ${leftOut}`
      : state === "received"
        ? `paid by the ${card}`
        : state === "declined"
          ? `the ${card} was declined${why ? `: ${why.toLowerCase()}` : ""}${next && next > date ? `; again from ${dayShort(next)}` : ""}`
          : state === "second step"
            ? "their bank asks them: they have the link"
            : "under way";
  return (
    <>
      {data.rows.map((row) => (
        <Box
          key={`${row.invoiceId} ${row.attempt}`}
          sx={{ display: "flex", gap: 4, py: 1, fontSize: 14.5, alignItems: "baseline" }}
        >
          <Button size="small" onClick={() => onInvoice(row.invoiceId)} sx={{ minWidth: 0 }}>
            {row.label}
          </Button>
          <span style={{ flex: 1 }}>
            {row.customer} <span style={{ color: ink.ash }}>{became(row)}</span>
          </span>
          <span>{amount(row.minor)}</span>
        </Box>
      ))}
    </>
  );
}

/** Whom to phone, with what was said before. */
function ToPhone({
  view,
  amount,
  mayChange,
  onInvoice,
}: {
  view: View;
  amount: (minor: number) => string;
  mayChange: boolean;
  onInvoice: (id: number) => void;
}) {
  const [calling, setCalling] = useState<number | null>(null);
  return (
    <Box component="section" aria-label="Whom to phone">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Whom to phone · {view.toPhone.length}
      </Typography>
      {view.toPhone.map((one) => (
        <Box
          key={one.invoiceId}
          role="group"
          aria-label={one.customer}
          sx={{ py: 2, borderTop: `1px solid ${ink.line}` }}
        >
          <Box sx={{ display: "flex", gap: 4, alignItems: "center", flexWrap: "wrap" }}>
            <Box sx={{ flex: 1, minWidth: 220 }}>
              <b>{one.customer}</b>{" "}
              <a href={`tel:${one.phone.replace(/[^\d+]/g, "")}`} style={{ color: ink.lake }}>
                {one.phone}
              </a>
              <Box sx={{ color: ink.ash, fontSize: 14 }}>
                {one.promised
                  ? `wanted to pay on ${dayWords(one.promised)}`
                  : `due since ${dateWords(one.due)}, reminders did not help`}
                {one.said && `; on ${dayShort(one.saidOn!)}: “${one.said}”`}
              </Box>
            </Box>
            <span>{amount(one.openMinor)}</span>
            <Button size="small" onClick={() => onInvoice(one.invoiceId)}>
              Invoice {one.label}
            </Button>
            {mayChange && (
              <Button
                variant="outlined"
                aria-expanded={calling === one.invoiceId}
                onClick={() => setCalling(calling === one.invoiceId ? null : one.invoiceId)}
              >
                What they said…
              </Button>
            )}
          </Box>
          {calling === one.invoiceId && (
            <Call invoiceId={one.invoiceId} today={view.today} onDone={() => setCalling(null)} />
          )}
        </Box>
      ))}
    </Box>
  );
}

/** What was said on the phone, and the day that was promised, if one was. */
function Call({ invoiceId, today, onDone }: { invoiceId: number; today: string; onDone: () => void }) {
  const [words, setWords] = useState("");
  const [day, setDay] = useState<string | null>(null);
  const { send, busy, wrong } = useChange("record-call", { then: onDone });
  return (
    <Box sx={{ display: "flex", gap: 3, mt: 2, flexWrap: "wrap", alignItems: "flex-start" }}>
      <TextField
        label="What they said"
        value={words}
        onChange={(e) => setWords(e.target.value)}
        error={!!wrong("/words")}
        helperText={wrong("/words")}
        sx={{ flex: 1, minWidth: 260 }}
      />
      <DateField
        label="They pay on, if they said so"
        width={250}
        value={day ?? ""}
        onValue={(to) => setDay(to && to >= today ? to : null)}
        wrong={wrong("/day")}
      />
      <Button variant="contained" disabled={busy} onClick={() => void send({ invoiceId, words, day })}>
        Save
      </Button>
    </Box>
  );
}

const helps = {
  later: "They may pay later",
  another: "Another card helps",
  never: "Only another way to pay helps",
} as const;

/** Cards that were declined, by what helps, as long as nothing else has paid. */
function Declined({
  view,
  amount,
  onInvoice,
}: {
  view: View;
  amount: (minor: number) => string;
  onInvoice: (id: number) => void;
}) {
  return (
    <Box component="section" aria-label="Declined cards">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Declined cards
      </Typography>
      {(["later", "another", "never"] as const).map((kind) => {
        const rows = view.declined.filter((one) => one.kind === kind);
        if (rows.length === 0) return null;
        return (
          <Lines
            key={kind}
            title={helps[kind]}
            said={`${counted(rows.length, "invoice")}, ${amount(sum(rows.map(({ openMinor }) => openMinor)))}`}
            rows={rows.map(({ problem, card, again, ...one }) => ({
              ...one,
              key: String(one.invoiceId),
              more: [card, problem?.toLowerCase(), again ? `again from ${dayShort(again)}` : "they were asked"]
                .filter(Boolean)
                .join(", "),
            }))}
            amount={amount}
            onInvoice={onInvoice}
          />
        );
      })}
    </Box>
  );
}

const disputeWords = { open: "", won: "decided for you", lost: "decided for the customer: the invoice is open again" };

/** Payments that customers' banks ask back, with the day until which one can answer. */
function Disputes({
  view,
  amount,
  onInvoice,
}: {
  view: View;
  amount: (minor: number) => string;
  onInvoice: (id: number) => void;
}) {
  return (
    <Box component="section" aria-label="Disputes">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Disputes
      </Typography>
      {view.disputes.map((one) => (
        <Box
          key={one.id}
          role="group"
          aria-label={one.customer}
          sx={{ display: "flex", gap: 4, py: 2, borderTop: `1px solid ${ink.line}`, alignItems: "center" }}
        >
          <Box sx={{ flex: 1 }}>
            <b>{one.customer}</b>
            <Box sx={{ color: ink.ash, fontSize: 14 }}>
              {one.reason}
              {one.state === "open"
                ? one.answerBy && `; answer the card service until ${dayWords(one.answerBy)}`
                : `; ${disputeWords[one.state]}`}
            </Box>
          </Box>
          <span>{amount(one.amountMinor)}</span>
          {one.invoiceId !== null && (
            <Button variant="outlined" onClick={() => onInvoice(one.invoiceId!)}>
              Open the invoice
            </Button>
          )}
        </Box>
      ))}
    </Box>
  );
}
