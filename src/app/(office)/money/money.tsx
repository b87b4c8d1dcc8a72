"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { invoicesShown, type InvoicesShown } from "@/core/money/applying";
import { dayShort } from "@/core/time/words";
import { firstPage } from "@/ui/first-page";
import { useShown } from "@/ui/live";
import { PagedTable } from "@/ui/paged-table";
import { ink, titleFont } from "@/ui/palette";
import Box from "@mui/material/Box";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import type { GridColDef } from "@mui/x-data-grid";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { Top } from "../top";

const InvoiceSheet = dynamic(() => import("./invoice-sheet").then((m) => m.InvoiceSheet));

type Row = ViewOutput<"invoices">["rows"][number];

const first = firstPage<"invoices">("number", true);

const invoiceColours: Record<string, string> = { paid: ink.moss, overdue: ink.ember };

export function Money({ open, show }: { open: number | null; show: InvoicesShown }) {
  const router = useRouter();
  const { totals, currency } = useShown("money", {});
  const go = (id: number | null, shown = show) =>
    router.push(`/money?show=${shown}${id ? `&id=${id}` : ""}`, { scroll: false });
  const amount = (value: number) => moneyWords(value, currency);
  const columns: GridColDef<Row>[] = [
    { field: "number", headerName: "Invoice", width: 110, valueFormatter: (value: number) => String(value) },
    { field: "customer", headerName: "Customer", flex: 1, minWidth: 150 },
    { field: "issued", headerName: "Issued", width: 120, valueFormatter: (value: string) => dayShort(value) },
    { field: "dueDate", headerName: "Due", width: 120, valueFormatter: (value: string) => dayShort(value) },
    {
      field: "totalMinor",
      headerName: "Total",
      width: 120,
      align: "right",
      headerAlign: "right",
      valueFormatter: amount,
    },
    {
      field: "openMinor",
      headerName: "Open",
      width: 120,
      align: "right",
      headerAlign: "right",
      valueFormatter: (value: number) => (value ? amount(value) : ""),
    },
    {
      field: "state",
      sortable: false,
      headerName: "State",
      width: 110,
      renderCell: ({ value }) => (
        <span style={{ color: invoiceColours[value as string] ?? ink.ink, fontWeight: 650 }}>{value}</span>
      ),
    },
  ];
  return (
    <>
      <Top title="Money" sum={`${amount(totals.open)} open, of which ${amount(totals.overdue)} overdue`} />
      <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
        <Box sx={{ flex: 1, minWidth: 0, height: "calc(100dvh - 72px)", display: "flex", flexDirection: "column" }}>
          <Box sx={{ px: 6, pb: 4, display: "flex", alignItems: "flex-end", gap: 5, flexWrap: "wrap" }}>
            <Figure name="received" value={amount(totals.received)} />
            <Sign>=</Sign>
            <Figure name="applied to invoices" value={amount(totals.applied)} />
            <Sign>+</Sign>
            <Figure name="refunded" value={amount(totals.refunded)} />
            <Sign>+</Sign>
            <Figure name="deposits and credit kept" value={amount(totals.kept)} />
            <Box role="status" sx={{ pb: 0.5, color: totals.agrees ? ink.moss : ink.ember, fontWeight: 650 }}>
              {totals.agrees ? "✓ the sums agree, and with the journal" : `✕ ${totals.wrong.join(" ")}`}
            </Box>
          </Box>
          <PagedTable<"invoices", Row>
            key={show}
            name="invoices"
            first={first}
            more={{ show }}
            columns={columns}
            searchLabel="Search invoices"
            beside={<WhichInvoices show={show} onShow={(shown) => go(null, shown)} />}
            onOpen={(row) => go(row.id)}
            columnVisibilityModel={open ? { issued: false } : {}}
            empty="No invoices here. An invoice appears by itself when a job is done."
          />
        </Box>
        {open && <InvoiceSheet key={open} id={open} onClose={() => go(null)} />}
      </Box>
    </>
  );
}

function WhichInvoices({ show, onShow }: { show: InvoicesShown; onShow: (show: InvoicesShown) => void }) {
  return (
    <ToggleButtonGroup
      size="small"
      exclusive
      value={show}
      onChange={(_, value: InvoicesShown | null) => value && onShow(value)}
      aria-label="Which invoices"
    >
      {invoicesShown.map((s) => (
        <ToggleButton key={s} value={s} sx={{ textTransform: "none", px: 3 }}>
          {s}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <Box>
      <Box sx={{ fontFamily: titleFont, fontSize: 22, fontWeight: 700, fontVariantNumeric: "normal", lineHeight: 1.2 }}>
        {value}
      </Box>
      <Box sx={{ fontSize: 13.5, color: ink.ash }}>{name}</Box>
    </Box>
  );
}

const Sign = ({ children }: { children: string }) => <Box sx={{ fontSize: 20, color: ink.ash, pb: 5 }}>{children}</Box>;
