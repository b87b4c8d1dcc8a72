"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { clock, dateWords, dayShort, dayWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { LinkBox } from "@/ui/link-box";
import { useLive, useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import ExpandMore from "@mui/icons-material/ExpandMore";
import Accordion from "@mui/material/Accordion";
import AccordionDetails from "@mui/material/AccordionDetails";
import AccordionSummary from "@mui/material/AccordionSummary";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import Typography from "@mui/material/Typography";
import dynamic from "next/dynamic";
import { useState } from "react";

const CollectionRules = dynamic(() => import("./collection-rules").then((m) => m.CollectionRules));

type View = ViewOutput<"collection">;

/** What comes in by itself: what each coming run will take, what is left and why, what runs have done. */
export function Collection({ mayChange, onInvoice }: { mayChange: boolean; onInvoice: (id: number) => void }) {
  const view = useShown("collection", {});
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
      {view.broken.length > 0 && <Broken view={view} amount={amount} onInvoice={onInvoice} />}
      {rules.on && (
        <Box component="section" aria-label="Coming runs">
          <Typography variant="h2" sx={{ mb: 2 }}>
            Coming runs
          </Typography>
          {view.runs.length === 0 && <Box sx={{ color: ink.ash }}>No run in the next four weeks takes anything.</Box>}
          {view.runs.map((run) => (
            <Lines
              key={run.date}
              title={`${dayWords(run.date)}, ${clock(rules.at)}`}
              said={`${counted(run.n, "invoice")}, ${amount(run.sumMinor)}`}
              rows={run.invoices.map((one) => ({ ...one, more: `due ${dayShort(one.due)}, ${one.card}` }))}
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

interface Line {
  invoiceId: number;
  label: string;
  customer: string;
  more: string;
  openMinor: number;
}

function Lines({
  title,
  said,
  rows,
  amount,
  onInvoice,
}: {
  title: string;
  said: string;
  rows: readonly Line[];
  amount: (minor: number) => string;
  onInvoice: (id: number) => void;
}) {
  return (
    <Accordion disableGutters elevation={0} square sx={{ borderTop: `1px solid ${ink.line}`, bgcolor: "transparent" }}>
      <AccordionSummary expandIcon={<ExpandMore />}>
        <Box sx={{ display: "flex", gap: 4, flex: 1, pr: 3 }}>
          <b style={{ flex: 1 }}>{title}</b>
          <span>{said}</span>
        </Box>
      </AccordionSummary>
      <AccordionDetails>
        {rows.map((row) => (
          <Box key={row.invoiceId} sx={{ display: "flex", gap: 4, py: 1, fontSize: 14.5, alignItems: "baseline" }}>
            <Button size="small" onClick={() => onInvoice(row.invoiceId)} sx={{ minWidth: 0 }}>
              {row.label}
            </Button>
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

/** Whoever promised a day and did not pay: phone them. */
function Broken({
  view,
  amount,
  onInvoice,
}: {
  view: View;
  amount: (minor: number) => string;
  onInvoice: (id: number) => void;
}) {
  return (
    <Box component="section" aria-label="Promises that were not kept">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Promises that were not kept · {view.broken.length}
      </Typography>
      {view.broken.map((one) => (
        <Box
          key={one.invoiceId}
          role="group"
          aria-label={one.customer}
          sx={{
            display: "flex",
            gap: 4,
            py: 2,
            borderTop: `1px solid ${ink.line}`,
            alignItems: "center",
            flexWrap: "wrap",
          }}
        >
          <Box sx={{ flex: 1, minWidth: 220 }}>
            <b>{one.customer}</b>
            <Box sx={{ color: ink.ash, fontSize: 14 }}>
              wanted to pay on {dayWords(one.day)}, invoice {one.label}
            </Box>
          </Box>
          <span>{amount(one.openMinor)}</span>
          <LinkBox href={`tel:${one.phone.replace(/[^\d+]/g, "")}`} sx={{ color: ink.lake }}>
            {one.phone}
          </LinkBox>
          <Button variant="outlined" onClick={() => onInvoice(one.invoiceId)}>
            Open the invoice
          </Button>
        </Box>
      ))}
    </Box>
  );
}
