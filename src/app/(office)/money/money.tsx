"use client";
import Box from "@mui/material/Box";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import type { GridColDef } from "@mui/x-data-grid";
import { useRouter } from "next/navigation";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { dayShort } from "@/core/time/words";
import { DataTable } from "@/ui/data-table";
import { ink, titleFont } from "@/ui/palette";
import { InvoiceSheet } from "./invoice-sheet";

type View = ViewOutput<"money">;
type Row = View["invoices"][number];

export const invoiceColours: Record<string, string> = { paid: ink.moss, overdue: ink.ember };

export function Money({ view, open, show }: { view: View; open: number | null; show: string }) {
  const router = useRouter();
  const { totals, currency } = view;
  const go = (id: number | null, shown = show) =>
    router.push(`/money?show=${shown}${id ? `&id=${id}` : ""}`, { scroll: false });
  const rows = view.invoices.filter(
    (i) => show === "all" || (show === "open" ? i.openMinor > 0 && i.state !== "cancelled" : i.state === show),
  );
  const amount = (value: number) => moneyWords(value, currency);
  const columns: GridColDef<Row>[] = [
    { field: "number", headerName: "Invoice", width: 90, valueFormatter: (value: number) => String(value) },
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
      headerName: "State",
      width: 110,
      renderCell: ({ value }) => (
        <span style={{ color: invoiceColours[value as string] ?? ink.ink, fontWeight: 650 }}>{value}</span>
      ),
    },
  ];
  return (
    <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ px: 6, pb: 4, display: "flex", alignItems: "flex-end", gap: 5, flexWrap: "wrap" }}>
          <Figure name="received" value={amount(totals.received)} />
          <Sign>=</Sign>
          <Figure name="applied to invoices" value={amount(totals.applied)} />
          <Sign>+</Sign>
          <Figure name="paid back" value={amount(totals.refunded)} />
          <Sign>+</Sign>
          <Figure name="deposits and credit kept" value={amount(totals.kept)} />
          <Box role="status" sx={{ pb: 0.5, color: totals.agrees ? ink.moss : ink.ember, fontWeight: 650 }}>
            {totals.agrees
              ? "✓ the sums agree, and with the journal"
              : "✕ the sums do not agree: look into the journal"}
          </Box>
        </Box>
        <Box sx={{ px: 6, pb: 3 }}>
          <ToggleButtonGroup
            size="small"
            exclusive
            value={show}
            onChange={(_, value: string | null) => value && go(null, value)}
            aria-label="Which invoices"
          >
            {["all", "open", "overdue", "part paid", "paid"].map((s) => (
              <ToggleButton key={s} value={s} sx={{ textTransform: "none", px: 3 }}>
                {s}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Box>
        <Box sx={{ height: "calc(100dvh - 190px)", minHeight: 300 }}>
          <DataTable
            rows={rows}
            columns={columns}
            onOpen={(row) => go(row.id)}
            columnVisibilityModel={open ? { issued: false } : {}}
            localeText={{ noRowsLabel: "No invoices here. An invoice appears by itself when a job is done." }}
          />
        </Box>
      </Box>
      {open && <InvoiceSheet key={open} id={open} onClose={() => go(null)} onChanged={() => router.refresh()} />}
    </Box>
  );
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <Box>
      <Box sx={{ fontFamily: titleFont, fontSize: 22, fontWeight: 700, lineHeight: 1.2 }}>{value}</Box>
      <Box sx={{ fontSize: 13.5, color: ink.ash }}>{name}</Box>
    </Box>
  );
}

const Sign = ({ children }: { children: string }) => <Box sx={{ fontSize: 20, color: ink.ash, pb: 5 }}>{children}</Box>;
