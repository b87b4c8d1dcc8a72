"use client";
import { ask, change, type ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { dayShort } from "@/core/time/words";
import { counted } from "@/core/words";
import { DateField } from "@/ui/date-field";
import { useLive, useRefresh, useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useWork, WorkProgress } from "@/ui/use-work";
import ExpandMore from "@mui/icons-material/ExpandMore";
import Accordion from "@mui/material/Accordion";
import AccordionDetails from "@mui/material/AccordionDetails";
import AccordionSummary from "@mui/material/AccordionSummary";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Pagination from "@mui/material/Pagination";
import Skeleton from "@mui/material/Skeleton";
import { useSnackbar } from "notistack";
import { useState } from "react";

const pageSize = 20;
type Row = ViewOutput<"to-bill">["rows"][number];

/** All that is done until a day and not billed: each invoice as it would be, then all of them made, with progress. */
export function ToBill({ mayChange, onInvoice }: { mayChange: boolean; onInvoice: (id: number) => void }) {
  const { today } = useShown("money", {});
  const [until, setUntil] = useState(today);
  const [page, setPage] = useState(0);
  const { data, problem } = useLive("to-bill", {
    page,
    size: pageSize,
    sort: "since",
    descending: false,
    search: "",
    until,
  });
  const run = useBilling(until);
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  const pages = data ? Math.ceil(data.count / pageSize) : 0;
  return (
    <Box sx={{ px: 6, pb: 6, overflowY: "auto" }}>
      <Box sx={{ display: "flex", gap: 4, alignItems: "center", mb: 3, pt: 2, flexWrap: "wrap" }}>
        <DateField
          label="Done until"
          width={220}
          value={until}
          onValue={(day) => {
            if (day) setUntil(day);
            setPage(0);
          }}
        />
        {mayChange && data && data.count > 0 && !run.work.busy && (
          <Button variant="contained" onClick={() => void run.all()}>
            Make {counted(data.count, "invoice")}
          </Button>
        )}
        <WorkProgress work={run.work} />
      </Box>
      {run.work.problem && <Alert severity="error">{run.work.problem}</Alert>}
      {run.failed.map(({ id, sentence }) => (
        <Alert key={id} severity="warning" sx={{ mb: 2 }}>
          {data?.rows.find((row) => row.id === id)?.customer ?? `Customer ${id}`}: {sentence}
        </Alert>
      ))}
      {!data && <Skeleton variant="rounded" height={200} />}
      {data?.count === 0 && (
        <Box sx={{ color: ink.ash, maxWidth: 560 }}>
          Nothing waits to be billed. Work of customers who are billed by the month or by hand gathers here when it is
          done; how somebody is billed is set with the customer, and for everybody in Set-up.
        </Box>
      )}
      {data?.rows.map((row) => (
        <Waiting
          key={row.id}
          row={row}
          currency={data.currency}
          action={
            mayChange && (
              <Button
                size="small"
                variant="outlined"
                disabled={run.work.busy}
                onClick={async () => {
                  const id = await run.one(row.id);
                  if (id) onInvoice(id);
                }}
              >
                Make this invoice
              </Button>
            )
          }
        />
      ))}
      {pages > 1 && <Pagination count={pages} page={page + 1} onChange={(_, to) => setPage(to - 1)} sx={{ mt: 3 }} />}
    </Box>
  );
}

/** One invoice as it would be. */
function Waiting({ row, currency, action }: { row: Row; currency: string; action: React.ReactNode }) {
  const amount = (minor: number) => moneyWords(minor, currency);
  return (
    <Accordion disableGutters elevation={0} square sx={{ borderTop: `1px solid ${ink.line}`, bgcolor: "transparent" }}>
      <AccordionSummary expandIcon={<ExpandMore />}>
        <Box sx={{ display: "flex", gap: 4, flex: 1, pr: 3 }}>
          <b style={{ flex: 1 }}>{row.customer}</b>
          <span style={{ color: ink.ash }}>
            {counted(row.lines.length, "line")}
            {row.since && `, since ${dayShort(row.since)}`}
          </span>
          <span style={{ minWidth: 90, textAlign: "right" }}>{amount(row.totalMinor)}</span>
        </Box>
      </AccordionSummary>
      <AccordionDetails>
        {row.lines.map((line, i) => (
          <Box key={i} sx={{ display: "flex", gap: 4, py: 1, fontSize: 14.5 }}>
            <span style={{ flex: 1 }}>
              {line.description}
              {line.quantity !== 1 && ` × ${line.quantity}`}
              {line.date && `, ${dayShort(line.date)}`}
            </span>
            <span>{amount(line.amountMinor)}</span>
          </Box>
        ))}
        <Box sx={{ mt: 2 }}>{action}</Box>
      </AccordionDetails>
    </Accordion>
  );
}

/** Bills one after the other, each for itself: what cannot be billed says why, the rest goes on; it can be stopped. */
function useBilling(until: string) {
  const refresh = useRefresh();
  const { enqueueSnackbar } = useSnackbar();
  const work = useWork();
  const [failed, setFailed] = useState<{ id: number; sentence: string }[]>([]);

  const one = async (customerId: number): Promise<number | null> => {
    const result = await change("bill-customer", { customerId, until });
    refresh();
    if (result.ok) return result.value.invoiceId;
    enqueueSnackbar(result.problem.sentence, { variant: "error" });
    return null;
  };
  const all = () =>
    work.through("Made", async (step) => {
      setFailed([]);
      const ids = await ask("to-bill-ids", { until });
      if (!ids.ok) return ids.problem.sentence;
      let made = 0;
      for (const [i, customerId] of ids.value.entries()) {
        if (step(i, ids.value.length)) break;
        const result = await change("bill-customer", { customerId, until });
        if (result.ok) made++;
        else setFailed((some) => [...some, { id: customerId, sentence: result.problem.sentence }]);
      }
      refresh();
      enqueueSnackbar(`${counted(made, "invoice")} made`, { variant: "success" });
      return null;
    });
  return { work, failed, one, all };
}
