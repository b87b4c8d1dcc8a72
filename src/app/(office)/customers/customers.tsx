"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dateWords, dayShort } from "@/core/time/words";
import { Code, VisitState } from "@/ui/arch";
import { firstPage } from "@/ui/first-page";
import { LinkBox } from "@/ui/link-box";
import { useLive, useShown } from "@/ui/live";
import { MessageList } from "@/ui/message-list";
import { PagedTable } from "@/ui/paged-table";
import { hues, ink } from "@/ui/palette";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import type { GridColDef } from "@mui/x-data-grid";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useOffice } from "../office";
import { Top } from "../top";
import { PossibleDuplicates } from "./possible-duplicates";

type Row = ViewOutput<"customers">["rows"][number];

const first = firstPage<"customers">("name");

export function Customers({ open }: { open: number | null }) {
  const router = useRouter();
  const { count, currency } = useShown("customers", first);
  const { permissions } = useOffice().person;
  const mayMerge = permissions.includes("board.change");
  const seesMoney = permissions.includes("money.see");
  const show = (id: number | null) => router.push(id ? `/customers?id=${id}` : "/customers", { scroll: false });
  const all: GridColDef<Row>[] = [
    { field: "name", headerName: "Name", flex: 1.2, minWidth: 140 },
    { field: "phone", headerName: "Phone", width: 160 },
    { field: "mail", headerName: "Email", flex: 1.4, minWidth: 150 },
    { field: "zone", headerName: "Zone", width: 120, sortable: false },
    { field: "sites", headerName: "Sites", sortable: false, width: 70, align: "right", headerAlign: "right" },
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
      valueFormatter: (value: number | null) => (value ? moneyWords(value, currency) : ""),
    },
  ];
  const columns = all.filter(({ field }) => field !== "openMinor" || seesMoney);
  return (
    <>
      <Top title="Customers" sum={`${count} ${count === 1 ? "customer" : "customers"}`} />
      <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
        <Box sx={{ flex: 1, minWidth: 0, height: "calc(100dvh - 72px)", display: "flex", flexDirection: "column" }}>
          {mayMerge && <PossibleDuplicates />}
          <PagedTable<"customers", Row>
            name="customers"
            first={first}
            columns={columns}
            searchLabel="Search customers"
            onOpen={(row) => show(row.id)}
            columnVisibilityModel={open ? { mail: false, sites: false, lastVisit: false, zone: false } : {}}
            empty="Customers appear here with their first booking."
          />
        </Box>
        {open && <CustomerSheet key={open} id={open} onClose={() => show(null)} />}
      </Box>
    </>
  );
}

function CustomerSheet({ id, onClose }: { id: number; onClose: () => void }) {
  const [shown, setShown] = useState({ visits: 20, messages: 10 });
  const { data: customer, problem } = useLive("customer", { id, ...shown });
  const seesRecords = useOffice().person.permissions.includes("audit.see");
  if (!customer)
    return (
      <SideSheet title="Customer" onClose={onClose}>
        {problem ? <Alert severity="error">{problem.sentence}</Alert> : <Skeleton variant="rounded" height={240} />}
      </SideSheet>
    );
  return (
    <SideSheet title={customer.name} onClose={onClose}>
      <Fact name="Phone">{customer.phone}</Fact>
      <Fact name="Email">{customer.mail}</Fact>
      <Fact name="Since">{dateWords(localDate(Math.floor(customer.since_at / 60_000), customer.timeZone))}</Fact>
      <Fact name="Reminders">{customer.reminders ? "agreed to" : "not wanted"}</Fact>
      <Fact name="Offers">{customer.offers ? "agreed to" : "not agreed to"}</Fact>
      {customer.card && <Fact name="Card">{customer.card}, kept with the card service</Fact>}
      {customer.openMinor !== null && <Fact name="Open">{moneyWords(customer.openMinor, customer.currency)}</Fact>}
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
        <Earlier
          left={customer.visitCount - customer.visits.length}
          onMore={() => setShown({ ...shown, visits: shown.visits + 50 })}
        />
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
      {seesRecords && (
        <LinkBox href={`/records?by=anybody&customer=${id}`} sx={{ color: ink.lake, fontSize: 14 }}>
          Who did what with this customer
        </LinkBox>
      )}
      <SheetSection title="Messages">
        <MessageList messages={customer.messages} />
        <Earlier
          left={customer.messageCount - customer.messages.length}
          onMore={() => setShown({ ...shown, messages: shown.messages + 50 })}
        />
      </SheetSection>
    </SideSheet>
  );
}

/** The way to what lies further back. */
const Earlier = ({ left, onMore }: { left: number; onMore: () => void }) =>
  left > 0 && (
    <Button size="small" onClick={onMore} sx={{ mt: 1 }}>
      {left === 1 ? "Show the earlier one" : `Show earlier ones (${left})`}
    </Button>
  );
