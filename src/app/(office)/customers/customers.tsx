"use client";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Skeleton from "@mui/material/Skeleton";
import type { GridColDef } from "@mui/x-data-grid";
import { useRouter } from "next/navigation";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dateWords, dayShort } from "@/core/time/words";
import { Code, VisitState } from "@/ui/arch";
import { DataTable } from "@/ui/data-table";
import { LinkBox } from "@/ui/link-box";
import { hues, ink } from "@/ui/palette";
import { MessageList } from "@/ui/message-list";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import { useOffice } from "../office";
import { Alike } from "./alike";
import { useView } from "@/ui/use-view";

type Row = ViewOutput<"customers">["rows"][number];

export function Customers({ rows, currency, open }: { rows: Row[]; currency: string; open: number | null }) {
  const router = useRouter();
  const mayMerge = useOffice().person.permissions.includes("board.change");
  const show = (id: number | null) => router.push(id ? `/customers?id=${id}` : "/customers", { scroll: false });
  const columns: GridColDef<Row>[] = [
    { field: "name", headerName: "Name", flex: 1.2, minWidth: 140 },
    { field: "phone", headerName: "Phone", width: 160 },
    { field: "mail", headerName: "Mail", flex: 1.4, minWidth: 150 },
    { field: "zone", headerName: "Zone", width: 120 },
    { field: "sites", headerName: "Sites", width: 70, align: "right", headerAlign: "right" },
    {
      field: "lastVisit",
      headerName: "Last visit",
      width: 110,
      valueFormatter: (value: string | null) => (value ? dayShort(value) : ""),
    },
    {
      field: "nextVisit",
      headerName: "Next visit",
      width: 110,
      valueFormatter: (value: string | null) => (value ? dayShort(value) : ""),
    },
    {
      field: "openMinor",
      headerName: "Open",
      width: 110,
      align: "right",
      headerAlign: "right",
      valueFormatter: (value: number) => (value ? moneyWords(value, currency) : ""),
    },
  ];
  return (
    <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
      <Box sx={{ flex: 1, minWidth: 0, height: "calc(100dvh - 72px)", display: "flex", flexDirection: "column" }}>
        {mayMerge && <Alike onChanged={() => router.refresh()} />}
        <Box sx={{ flex: 1, minHeight: 300 }}>
          <DataTable
            rows={rows}
            columns={columns}
            onOpen={(row) => show(row.id)}
            columnVisibilityModel={open ? { mail: false, sites: false, lastVisit: false, zone: false } : {}}
            localeText={{ noRowsLabel: "Customers appear here with their first booking." }}
          />
        </Box>
      </Box>
      {open && <CustomerSheet key={open} id={open} onClose={() => show(null)} />}
    </Box>
  );
}

function CustomerSheet({ id, onClose }: { id: number; onClose: () => void }) {
  const { data: customer, problem } = useView("customer", { id });
  if (!customer)
    return (
      <SideSheet title="Customer" onClose={onClose}>
        {problem ? <Alert severity="error">{problem.sentence}</Alert> : <Skeleton variant="rounded" height={240} />}
      </SideSheet>
    );
  return (
    <SideSheet title={customer.name} onClose={onClose}>
      <Fact name="Phone">{customer.phone}</Fact>
      <Fact name="Mail">{customer.mail}</Fact>
      <Fact name="Since">{dateWords(localDate(Math.floor(customer.since_at / 60_000), customer.timeZone))}</Fact>
      <Fact name="Reminders">{customer.reminders ? "agreed to" : "not wanted"}</Fact>
      <Fact name="Offers">{customer.offers ? "agreed to" : "not agreed to"}</Fact>
      {customer.card && <Fact name="Card">{customer.card}, kept with the card service</Fact>}
      <Fact name="Open">{moneyWords(customer.openMinor, customer.currency)}</Fact>
      <SheetSection title="Sites">
        {customer.sites.map((s) => (
          <Fact key={s.id} name={s.zone ?? "outside"}>
            {s.line}, {s.postcode}
          </Fact>
        ))}
      </SheetSection>
      <SheetSection title="Visits">
        {customer.visits.map((v) => (
          <LinkBox
            key={v.id}
            href={`/board?date=${v.date}&visit=${v.id}`}
            sx={{
              display: "flex",
              gap: 2,
              py: 1.25,
              borderTop: `1px solid ${ink.line}`,
              fontSize: 14.5,
              textDecoration: "none",
              color: ink.ink,
            }}
          >
            <Box sx={{ width: 88, flex: "none" }}>{dayShort(v.date)}</Box>
            <Code code={v.code} colour={hues[v.hue]!} />
            <Box sx={{ flex: 1 }}>
              <VisitState state={v.state} />
            </Box>
            <Box>{moneyWords(v.totalMinor, customer.currency)}</Box>
          </LinkBox>
        ))}
      </SheetSection>
      {customer.consents.length > 0 && (
        <SheetSection title="What they agreed to">
          {customer.consents.map((c) => (
            <Fact key={c.id} name={dateWords(localDate(Math.floor(c.at / 60_000), customer.timeZone))}>
              {c.given ? "✓" : "✕"} “{c.words}”
            </Fact>
          ))}
        </SheetSection>
      )}
      <SheetSection title="Messages">
        <MessageList messages={customer.messages} />
      </SheetSection>
    </SideSheet>
  );
}
