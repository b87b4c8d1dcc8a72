"use client";
import { securityKinds, type SecurityKind } from "@/core/problems";
import { actorInWords, operationWords } from "@/core/records/changes";
import { localDate } from "@/core/time/local";
import { clockIn } from "@/core/time/local-words";
import { dayShort } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { useShown } from "@/ui/live";
import { PagedTable } from "@/ui/paged-table";
import { ink } from "@/ui/palette";
import { SideSheet } from "@/ui/side-sheet";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import TextField from "@mui/material/TextField";
import type { GridColDef } from "@mui/x-data-grid";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { Top } from "../top";
import { askedOf, changesFirst, type Entry, type Filters, filtersOf, type SecurityEntry, securityFirst } from "./data";
import { SaveCsv } from "./save-csv";

const when = (ms: number, timeZone: string): string => {
  const minute = Math.floor(ms / 60_000);
  return `${dayShort(localDate(minute, timeZone))}, ${clockIn(minute, timeZone)}`;
};

/** Who did what, each change before and after; and the log of the lock. */
export function Records({ list, query }: { list: "changes" | "security"; query: Record<string, string | undefined> }) {
  const router = useRouter();
  return (
    <>
      <Top title="Who did what" sum="Every change, by whom and when" />
      <Tabs
        value={list}
        onChange={(_, to: string) => router.push(`/records?list=${to}`)}
        aria-label="Lists"
        sx={{ px: 6, mb: 3 }}
      >
        <Tab value="changes" label="Changes" />
        <Tab value="security" label="Security" />
      </Tabs>
      {list === "security" ? <SecurityLog /> : <Changes query={query} />}
    </>
  );
}

function Changes({ query }: { query: Record<string, string | undefined> }) {
  const router = useRouter();
  const filters = filtersOf(query);
  const { timeZone, people, operations } = useShown("who-did-what", askedOf(query));
  const [open, setOpen] = useState<Entry | null>(null);
  const show = (change: Partial<Record<string, string | null>>) => {
    const next = Object.entries({ ...query, ...change }).filter(([, value]) => value);
    router.push(`/records?${new URLSearchParams(next as [string, string][]).toString()}`);
  };
  const columns: GridColDef<Entry>[] = [
    { field: "at", headerName: "When", width: 150, valueFormatter: (value: number) => when(value, timeZone) },
    { field: "actor", headerName: "Who", width: 220, sortable: false, valueFormatter: actorInWords },
    { field: "operation", headerName: "What", width: 200, sortable: false, valueFormatter: operationWords },
    {
      field: "changes",
      headerName: "Changes",
      flex: 1,
      sortable: false,
      valueFormatter: (value: Entry["changes"]) => summary(value),
    },
  ];
  return (
    <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
      <Box sx={{ flex: 1, minWidth: 0, height: "calc(100dvh - 136px)", display: "flex", flexDirection: "column" }}>
        <PagedTable<"who-did-what", Entry>
          key={JSON.stringify(filters)}
          name="who-did-what"
          first={changesFirst}
          more={filters}
          columns={columns}
          searchLabel={null}
          beside={<FilterFields filters={filters} people={people} operations={operations} show={show} query={query} />}
          onOpen={setOpen}
          columnVisibilityModel={open ? { changes: false } : {}}
          empty="Nothing was changed like this."
        />
      </Box>
      {open && <EntrySheet entry={open} timeZone={timeZone} onClose={() => setOpen(null)} />}
    </Box>
  );
}

/** The first changes in a line. */
function summary(changes: Entry["changes"]): string {
  if (changes.length === 0) return "No longer kept in detail";
  const said = changes.slice(0, 3).map((c) => `${c.of}: ${c.field} ${c.before} → ${c.after}`);
  return changes.length > 3 ? `${said.join("; ")} … and ${changes.length - 3} more` : said.join("; ");
}

const bys: readonly string[] = ["people", "itself", "anybody"] satisfies Filters["by"][];

function FilterFields({
  filters,
  people,
  operations,
  show,
  query,
}: {
  filters: Filters;
  people: { id: number; name: string }[];
  operations: string[];
  show: (change: Partial<Record<string, string | null>>) => void;
  query: Record<string, string | undefined>;
}) {
  return (
    <>
      <TextField
        select
        label="Who"
        value={filters.personId ?? filters.by}
        onChange={(e) => {
          const by = bys.find((b) => b === e.target.value);
          show(by ? { by, person: null } : { by: "people", person: e.target.value });
        }}
        sx={{ width: 200 }}
      >
        <MenuItem value="people">people and customers</MenuItem>
        <MenuItem value="itself">by itself</MenuItem>
        <MenuItem value="anybody">everything</MenuItem>
        {people.map((p) => (
          <MenuItem key={p.id} value={p.id}>
            {p.name}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="What"
        value={filters.operation ?? ""}
        onChange={(e) => show({ operation: e.target.value })}
        sx={{ width: 180 }}
      >
        <MenuItem value="">everything</MenuItem>
        {operations.map((name) => (
          <MenuItem key={name} value={name}>
            {operationWords(name)}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ width: 160 }}>
        <DateField label="From" value={filters.from} onValue={(from) => show({ from })} clearable />
      </Box>
      <Box sx={{ width: 160 }}>
        <DateField label="To" value={filters.to} onValue={(to) => show({ to })} clearable />
      </Box>
      {filters.customerId !== null && (
        <Button size="small" onClick={() => show({ customer: null })}>
          Only customer {filters.customerId} ✕
        </Button>
      )}
      {filters.visitId !== null && (
        <Button size="small" onClick={() => show({ visit: null })}>
          Only visit {filters.visitId} ✕
        </Button>
      )}
      <SaveCsv asked={askedOf(query)} />
    </>
  );
}

/** One entry: each field before and after. */
function EntrySheet({ entry, timeZone, onClose }: { entry: Entry; timeZone: string; onClose: () => void }) {
  return (
    <SideSheet title={operationWords(entry.operation)} onClose={onClose} width={460}>
      <Box sx={{ color: ink.ash, mb: 3 }}>
        {actorInWords(entry.actor)}, {when(entry.at, timeZone)}
      </Box>
      {entry.changes.length === 0 && <Box>What it was before and after is no longer kept.</Box>}
      <Box component="table" sx={{ width: "100%", borderCollapse: "collapse", fontSize: 14 }}>
        <tbody>
          {entry.changes.map((c, i) => (
            <Box component="tr" key={i} sx={{ borderTop: `1px solid ${ink.line}`, verticalAlign: "top" }}>
              <Box component="th" scope="row" sx={{ textAlign: "left", fontWeight: 400, py: 1, pr: 2, width: 150 }}>
                {(i === 0 || entry.changes[i - 1]!.of !== c.of) && <Box sx={{ fontWeight: 650 }}>{c.of}</Box>}
                <Box sx={{ color: ink.ash }}>{c.field}</Box>
              </Box>
              <Box component="td" sx={{ py: 1, overflowWrap: "anywhere" }}>
                <Box component="span" sx={{ color: ink.ash }}>
                  {c.before}
                </Box>{" "}
                → {c.after}
              </Box>
            </Box>
          ))}
        </tbody>
      </Box>
    </SideSheet>
  );
}

function SecurityLog() {
  const { timeZone } = useShown("security-log", { ...securityFirst, kind: null });
  const [kind, setKind] = useState<SecurityKind | null>(null);
  const columns: GridColDef<SecurityEntry>[] = [
    { field: "at", headerName: "When", width: 150, valueFormatter: (value: number) => when(value, timeZone) },
    { field: "kind", headerName: "What", width: 170, sortable: false },
    { field: "who", headerName: "Who", width: 230, sortable: false, valueFormatter: actorInWords },
    { field: "words", headerName: "In words", flex: 1, sortable: false },
    { field: "address", headerName: "From", width: 180, sortable: false },
  ];
  return (
    <Box sx={{ height: "calc(100dvh - 136px)", display: "flex", flexDirection: "column" }}>
      <PagedTable<"security-log", SecurityEntry>
        key={kind}
        name="security-log"
        first={securityFirst}
        more={{ kind }}
        columns={columns}
        searchLabel="Name, words or address"
        beside={
          <TextField
            select
            label="What"
            value={kind ?? ""}
            onChange={(e) => setKind((e.target.value || null) as SecurityKind | null)}
            sx={{ width: 200 }}
          >
            <MenuItem value="">everything</MenuItem>
            {securityKinds.map((name) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        }
        empty="Nothing yet."
      />
    </Box>
  );
}
