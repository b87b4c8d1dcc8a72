"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { invoicesShown, type InvoicesShown, paymentsShown, type PaymentsShown } from "@/core/money/applying";
import { dayShort } from "@/core/time/words";
import { firstPage } from "@/ui/first-page";
import { PagedTable } from "@/ui/paged-table";
import { ink } from "@/ui/palette";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import type { GridColDef } from "@mui/x-data-grid";

type Invoice = ViewOutput<"invoices">["rows"][number];
type Payment = ViewOutput<"payments">["rows"][number];

const colours: Record<string, string> = { paid: ink.moss, overdue: ink.ember, received: ink.moss, declined: ink.ember };
const State = ({ children }: { children: string }) => (
  <span style={{ color: colours[children] ?? ink.ink, fontWeight: 650 }}>{children}</span>
);
const right = { align: "right", headerAlign: "right" } as const;
const day = (value: string) => dayShort(value);

export function InvoicesList({
  show,
  onShow,
  open,
  onOpen,
  currency,
}: {
  show: InvoicesShown;
  onShow: (show: InvoicesShown) => void;
  open: boolean;
  onOpen: (invoiceId: number) => void;
  currency: string;
}) {
  const amount = (value: number) => moneyWords(value, currency);
  const columns: GridColDef<Invoice>[] = [
    { field: "number", headerName: "Invoice", width: 110, valueFormatter: (value: number) => String(value) },
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
      key={show}
      name="invoices"
      first={firstPage<"invoices">("number", true)}
      more={{ show }}
      columns={columns}
      searchLabel="Search invoices"
      beside={<Which of="invoices" all={invoicesShown} show={show} onShow={onShow} />}
      onOpen={(row) => onOpen(row.id)}
      columnVisibilityModel={open ? { issued: false } : {}}
      empty="No invoices here. An invoice appears by itself when a job is done."
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
      width: 90,
      sortable: false,
      valueFormatter: (value: number | null) => value ?? "",
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
      key={show}
      name="payments"
      first={firstPage<"payments">("at", true)}
      more={{ show }}
      columns={columns}
      searchLabel="Search payments"
      beside={<Which of="payments" all={paymentsShown} show={show} onShow={onShow} />}
      onOpen={(row) => row.invoiceId !== null && onOpen(row.invoiceId)}
      columnVisibilityModel={open ? { purpose: false, refundedMinor: false, method: false } : {}}
      empty="No payments here."
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
