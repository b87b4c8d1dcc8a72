"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords, sum } from "@/core/money/amounts";
import { dayShort } from "@/core/time/words";
import { counted } from "@/core/words";
import { DateField } from "@/ui/date-field";
import { firstPage } from "@/ui/first-page";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { PagedTable } from "@/ui/paged-table";
import { ink } from "@/ui/palette";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import type { GridColDef } from "@mui/x-data-grid";
import { useSnackbar } from "notistack";
import { useState } from "react";

type Payout = ViewOutput<"payouts">["rows"][number];

const right = { align: "right", headerAlign: "right" } as const;

/** What the card service has paid out: on the way or in the bank, each with what was in it. */
export function Payouts({ currency, mayChange }: { currency: string; mayChange: boolean }) {
  const amount = (value: number) => moneyWords(value, currency);
  const [open, setOpen] = useState<number | null>(null);
  const { data: held } = useLive("payouts", { ...firstPage<"payouts">("at", true), size: 1 });
  const columns: GridColDef<Payout>[] = [
    { field: "at", headerName: "Paid out", width: 120, valueFormatter: (value: string) => dayShort(value) },
    { field: "reference", headerName: "Reference", flex: 1, minWidth: 160, sortable: false },
    { field: "n", headerName: "Payments", width: 100, sortable: false, ...right },
    { field: "feesMinor", headerName: "Kept as fees", width: 120, sortable: false, ...right, valueFormatter: amount },
    { field: "amountMinor", headerName: "Comes to", width: 120, ...right, valueFormatter: amount },
    {
      field: "arrived",
      headerName: "In the bank",
      width: 140,
      renderCell: ({ row }) =>
        row.arrived ? (
          <span style={{ color: ink.moss, fontWeight: 650 }}>{dayShort(row.arrived)}</span>
        ) : (
          <span>on the way</span>
        ),
    },
  ];
  return (
    <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
      <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
        <PagedTable<"payouts", Payout>
          name="payouts"
          first={firstPage<"payouts">("at", true)}
          more={{}}
          columns={columns}
          searchLabel="Search payouts"
          beside={
            <>
              {held && held.heldMinor > 0 && (
                <AtOnce minor={held.heldMinor} bp={mayChange ? held.atOnceBp : null} amount={amount} />
              )}
            </>
          }
          onOpen={(row) => setOpen(row.id)}
          file={[
            { words: "Paid out", of: (p) => p.at },
            { words: "Reference", of: (p) => p.reference },
            { words: "Payments", of: (p) => p.n },
            { words: "Kept as fees", of: (p) => p.feesMinor, money: true },
            { words: "Comes to", of: (p) => p.amountMinor, money: true },
            { words: "In the bank", of: (p) => p.arrived },
          ]}
          columnVisibilityModel={open ? { n: false } : {}}
          empty="Nothing was paid out yet: the card service does so on the day after."
        />
      </Box>
      {open !== null && <PayoutSheet key={open} id={open} mayChange={mayChange} onClose={() => setOpen(null)} />}
    </Box>
  );
}

/** What the card service holds, and a way not to wait for it. */
function AtOnce({ minor, bp, amount }: { minor: number; bp: number | null; amount: (minor: number) => string }) {
  const { enqueueSnackbar } = useSnackbar();
  const { send, busy } = useChange("pay-out-now", {
    then: () => enqueueSnackbar("It is on its way to your bank", { variant: "success" }),
  });
  return (
    <>
      <span>
        The card service holds <b>{amount(minor)}</b>
      </span>
      {bp !== null && (
        <Button variant="outlined" disabled={busy} onClick={() => void send({})}>
          Pay it out now, for {bp / 100}% of it
        </Button>
      )}
    </>
  );
}

function PayoutSheet({ id, mayChange, onClose }: { id: number; mayChange: boolean; onClose: () => void }) {
  const { data: payout, problem } = useLive("payout", { id });
  if (!payout)
    return (
      <SideSheet title="Payout" onClose={onClose}>
        {problem ? <Alert severity="error">{problem.sentence}</Alert> : <Skeleton variant="rounded" height={240} />}
      </SideSheet>
    );
  const amount = (value: number) => moneyWords(value, payout.currency);
  const unknown = payout.items.filter(({ customer }) => customer === null).length;
  return (
    <SideSheet title={`Payout, ${dayShort(payout.at)}`} onClose={onClose} width={440}>
      <Fact name="Reference">{payout.reference}</Fact>
      <Fact name="Comes to">
        <b>{amount(payout.amountMinor)}</b> = {amount(sum(payout.items.map(({ grossMinor }) => grossMinor)))} −{" "}
        {amount(payout.feeMinor + sum(payout.items.map(({ feeMinor }) => feeMinor)))} of fees
      </Fact>
      <Fact name="In the bank">{payout.arrived ? dayShort(payout.arrived) : "on the way"}</Fact>
      {payout.arrived === null && mayChange && (
        <Arrived id={id} today={payout.today} amount={amount(payout.amountMinor)} />
      )}
      {unknown > 0 && (
        <Alert severity="warning" sx={{ mt: 3 }}>
          {counted(unknown, "entry", "entries")} of it match no payment of ours. Ask the card service about them.
        </Alert>
      )}
      <SheetSection title="What is in it">
        {payout.items.map((item) => (
          <Fact key={`${item.kind} ${item.reference}`} name={amount(item.grossMinor)}>
            {item.customer ?? item.reference}
            {item.invoiceId !== null && (
              <>
                ,{" "}
                <LinkBox href={`/money?list=invoices&show=all&id=${item.invoiceId}`} sx={{ color: ink.lake }}>
                  invoice {item.invoice}
                </LinkBox>
              </>
            )}
            {item.kind === "refund" ? ", given back" : `, ${amount(item.feeMinor)} kept`}
          </Fact>
        ))}
      </SheetSection>
    </SideSheet>
  );
}

/** It stands on a statement of the bank. */
function Arrived({ id, today, amount }: { id: number; today: string; amount: string }) {
  const [date, setDate] = useState(today);
  const { send, busy, wrong } = useChange("record-payout-arrived");
  const { enqueueSnackbar } = useSnackbar();
  const record = async () => {
    if (await send({ payoutId: id, date })) enqueueSnackbar(`${amount} is in the bank`, { variant: "success" });
  };
  return (
    <Box sx={{ display: "flex", gap: 2, alignItems: "flex-start", mt: 3 }}>
      <DateField
        label="It came on"
        width={190}
        value={date}
        onValue={(day) => day && setDate(day)}
        wrong={wrong("/date")}
      />
      <Button variant="outlined" disabled={busy} onClick={() => void record()} sx={{ mt: "2px" }}>
        It is in the bank
      </Button>
    </Box>
  );
}
