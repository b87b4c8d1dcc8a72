"use client";
import type { ViewOutput } from "@/api/client";
import type { Age } from "@/core/money/ages";
import { moneyWords } from "@/core/money/amounts";
import { invoicesShown, type InvoicesShown, paymentsShown, type PaymentsShown } from "@/core/money/applying";
import { dayShort } from "@/core/time/words";
import { firstPage } from "@/ui/first-page";
import { PagedTable } from "@/ui/paged-table";
import { ink } from "@/ui/palette";
import Chip from "@mui/material/Chip";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import type { GridColDef } from "@mui/x-data-grid";

type Invoice = ViewOutput<"invoices">["rows"][number];
type Credit = ViewOutput<"credits">["rows"][number];
type Payment = ViewOutput<"payments">["rows"][number];

const colours: Record<string, string> = { paid: ink.moss, overdue: ink.ember, received: ink.moss, declined: ink.ember };
const State = ({ children }: { children: string }) => (
  <span style={{ color: colours[children] ?? ink.ink, fontWeight: 650 }}>{children}</span>
);
const right = { align: "right", headerAlign: "right" } as const;
const day = (value: string) => dayShort(value);

export function InvoicesList({
  show,
  age,
  onShow,
  onAge,
  open,
  onOpen,
  currency,
}: {
  show: InvoicesShown;
  /** How long they are due; null is any. */
  age: Age | null;
  onShow: (show: InvoicesShown) => void;
  onAge: (age: Age | null) => void;
  open: boolean;
  onOpen: (invoiceId: number) => void;
  currency: string;
}) {
  const amount = (value: number) => moneyWords(value, currency);
  const columns: GridColDef<Invoice>[] = [
    { field: "number", headerName: "Invoice", width: 130 },
    { field: "customer", headerName: "Customer", flex: 1, minWidth: 150 },
    { field: "issued", headerName: "Issued", width: 120, valueFormatter: day },
    { field: "dueDate", headerName: "Due", width: 120, valueFormatter: day },
    { field: "totalMinor", headerName: "Total", width: 120, ...right, valueFormatter: amount },
    {
      field: "openMinor",
      headerName: "Open",
      width: 120,
      ...right,
      valueFormatter: (value: number) => (value ? amount(value) : ""),
    },
    {
      field: "state",
      sortable: false,
      headerName: "State",
      width: 110,
      renderCell: ({ value }) => <State>{value as string}</State>,
    },
  ];
  return (
    <PagedTable<"invoices", Invoice>
      name="invoices"
      first={firstPage<"invoices">("number", true)}
      more={{ show, age }}
      columns={columns}
      searchLabel="Search invoices"
      beside={
        <>
          <Which of="invoices" all={invoicesShown} show={show} onShow={onShow} />
          {age && <Chip label={age === "not due yet" ? age : `${age} overdue`} onDelete={() => onAge(null)} />}
        </>
      }
      onOpen={(row) => onOpen(row.id)}
      file={[
        { words: "Invoice", of: (i) => i.number },
        { words: "Customer", of: (i) => i.customer },
        { words: "Issued", of: (i) => i.issued },
        { words: "Due", of: (i) => i.dueDate },
        { words: "Total", of: (i) => i.totalMinor, money: true },
        { words: "Open", of: (i) => i.openMinor, money: true },
        { words: "State", of: (i) => i.state },
      ]}
      columnVisibilityModel={open ? { issued: false } : {}}
      empty="No invoices here."
    />
  );
}

export function PaymentsList({
  show,
  onShow,
  open,
  onOpen,
  currency,
}: {
  show: PaymentsShown;
  onShow: (show: PaymentsShown) => void;
  open: boolean;
  onOpen: (invoiceId: number) => void;
  currency: string;
}) {
  const amount = (value: number) => moneyWords(value, currency);
  const some = (value: number) => (value ? amount(value) : "");
  const columns: GridColDef<Payment>[] = [
    { field: "at", headerName: "Date", width: 120, valueFormatter: day },
    { field: "customer", headerName: "Customer", flex: 1, minWidth: 150 },
    { field: "method", headerName: "By", width: 80, sortable: false },
    { field: "purpose", headerName: "For", width: 90, sortable: false },
    {
      field: "invoice",
      headerName: "Invoice",
      width: 130,
      sortable: false,
      valueFormatter: (value: string | null) => value ?? "",
    },
    { field: "amountMinor", headerName: "Amount", width: 110, ...right, valueFormatter: amount },
    { field: "refundedMinor", headerName: "Given back", width: 110, sortable: false, ...right, valueFormatter: some },
    { field: "leftMinor", headerName: "Not used yet", width: 120, ...right, valueFormatter: some },
    {
      field: "state",
      sortable: false,
      headerName: "State",
      width: 120,
      renderCell: ({ row }) => <State>{row.state}</State>,
    },
  ];
  return (
    <PagedTable<"payments", Payment>
      name="payments"
      first={firstPage<"payments">("at", true)}
      more={{ show }}
      columns={columns}
      searchLabel="Search payments"
      beside={
        <>
          <Which of="payments" all={paymentsShown} show={show} onShow={onShow} />
        </>
      }
      onOpen={(row) => row.invoiceId !== null && onOpen(row.invoiceId)}
      file={[
        { words: "Date", of: (p) => p.at },
        { words: "Customer", of: (p) => p.customer },
        { words: "By", of: (p) => p.method },
        { words: "For", of: (p) => p.purpose },
        { words: "Invoice", of: (p) => p.invoice },
        { words: "Amount", of: (p) => p.amountMinor, money: true },
        { words: "Given back", of: (p) => p.refundedMinor, money: true },
        { words: "Not used yet", of: (p) => p.leftMinor, money: true },
        { words: "State", of: (p) => p.state },
      ]}
      columnVisibilityModel={open ? { purpose: false, refundedMinor: false, method: false } : {}}
      empty="No payments here."
    />
  );
}

export function CreditsList({
  open,
  onOpen,
  currency,
}: {
  open: boolean;
  onOpen: (invoiceId: number) => void;
  currency: string;
}) {
  const amount = (value: number) => moneyWords(value, currency);
  const columns: GridColDef<Credit>[] = [
    { field: "number", headerName: "Credit note", width: 140 },
    { field: "at", headerName: "Date", width: 120, valueFormatter: day },
    { field: "customer", headerName: "Customer", flex: 1, minWidth: 150 },
    { field: "invoice", headerName: "Invoice", width: 130, sortable: false },
    { field: "reason", headerName: "Why", flex: 1, minWidth: 160, sortable: false },
    { field: "amountMinor", headerName: "Credited", width: 120, ...right, valueFormatter: amount },
  ];
  return (
    <PagedTable<"credits", Credit>
      name="credits"
      first={firstPage<"credits">("number", true)}
      more={{}}
      columns={columns}
      searchLabel="Search credit notes"
      onOpen={(row) => onOpen(row.invoiceId)}
      file={[
        { words: "Credit note", of: (n) => n.number },
        { words: "Date", of: (n) => n.at },
        { words: "Customer", of: (n) => n.customer },
        { words: "Invoice", of: (n) => n.invoice },
        { words: "Why", of: (n) => n.reason },
        { words: "Credited", of: (n) => n.amountMinor, money: true },
      ]}
      columnVisibilityModel={open ? { reason: false } : {}}
      empty="Nothing was credited."
    />
  );
}

function Which<S extends string>({
  of,
  all,
  show,
  onShow,
}: {
  of: string;
  all: readonly S[];
  show: S;
  onShow: (show: S) => void;
}) {
  return (
    <ToggleButtonGroup
      size="small"
      exclusive
      value={show}
      onChange={(_, value: S | null) => value && onShow(value)}
      aria-label={`Which ${of}`}
    >
      {all.map((s) => (
        <ToggleButton key={s} value={s} sx={{ textTransform: "none", px: 3 }}>
          {s}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
