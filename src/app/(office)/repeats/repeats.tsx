"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { dayShort } from "@/core/time/words";
import { Code } from "@/ui/arch";
import type { firstPage } from "@/ui/first-page";
import { useShown } from "@/ui/live";
import { PagedTable } from "@/ui/paged-table";
import { hues, ink } from "@/ui/palette";
import { upper } from "@/core/words";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { GridColDef } from "@mui/x-data-grid";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { useOffice } from "../office-context";
import { Top } from "../top";
import { everyOne, type Outlooked, type Which } from "./data";
import { StripLegend } from "./strip-legend";

type Row = ViewOutput<"repeats">["rows"][number];

/** The table is there before what is drawn beside it. */
const Outlook = dynamic(() => import("./outlook").then((m) => m.Outlook), {
  loading: () => <Box sx={{ height: 148, flex: "none" }} />,
});
const Filters = dynamic(() => import("./filters").then((m) => m.Filters), {
  loading: () => <Box sx={{ height: 52, flex: "none" }} />,
});
const YearStrip = dynamic(() => import("./year-strip").then((m) => m.YearStrip));
/** Its forms come when one is opened. */
const ChangeMany = dynamic(() => import("./change-many").then((m) => m.ChangeMany));
const RepeatSheet = dynamic(() => import("./repeat-sheet").then((m) => m.RepeatSheet));

const narrow = new Set(["customer", "next", "strip"]);

/** All repeats: the months ahead at the head, then each with the year behind and ahead of it. */
export function Repeats({ first, open }: { first: ReturnType<typeof firstPage<"repeats">>; open: number | null }) {
  const router = useRouter();
  const show = (id: number | null) => router.replace(id === null ? "/repeats" : `/repeats?open=${id}`);
  const outlook = useShown("repeats-outlook", {});
  const [which, setWhich] = useState<Which>(everyOne);
  const [search, setSearch] = useState(first.search);
  const [changing, setChanging] = useState(false);
  const mayChange = useOffice().person.permissions.includes("board.change");
  const columns: GridColDef<Row>[] = [
    {
      field: "customer",
      headerName: "Who and what",
      flex: 1,
      minWidth: 200,
      renderCell: ({ row }) => <WhoAndWhat row={row} />,
    },
    {
      field: "next",
      headerName: "Next",
      width: 124,
      renderCell: ({ row }) => <Next row={row} />,
    },
    {
      field: "strip",
      sortable: false,
      headerName: "The year behind, and the year ahead",
      width: 320,
      renderCell: ({ row }) => <YearStrip marks={row.strip} today={outlook.today} />,
    },
    { field: "technician", sortable: false, headerName: "Usually", width: 120 },
    {
      field: "kept",
      sortable: false,
      headerName: "Kept",
      width: 76,
      valueFormatter: (kept: Row["kept"]) =>
        kept === null ? "" : kept.of < 5 ? `${kept.kept} of ${kept.of}` : `${Math.round((100 * kept.kept) / kept.of)}%`,
    },
    {
      field: "value",
      headerName: "A year",
      width: 96,
      align: "right",
      headerAlign: "right",
      valueGetter: (_, row) => (row.valueMinor === null ? "" : moneyWords(row.valueMinor, outlook.currency)),
    },
  ];
  const { counts, active, valueMinor } = outlook;
  const needs = counts["needs a person"];
  return (
    <>
      <Top
        title="Repeats"
        action={
          mayChange &&
          active > 0 && (
            <Button variant="outlined" onClick={() => setChanging(true)} sx={{ flex: "none" }}>
              Change many…
            </Button>
          )
        }
        sum={
          <>
            {active} active
            {valueMinor !== null && `, ${moneyWords(valueMinor, outlook.currency)} in the coming twelve months`}
            {needs > 0 && (
              <b style={{ color: ink.ember }}>
                {" "}
                · {needs} {needs === 1 ? "needs" : "need"} a person
              </b>
            )}
          </>
        }
      />
      <Box sx={{ display: "flex" }}>
        <Box sx={{ height: "calc(100dvh - 72px)", display: "flex", flexDirection: "column", flex: 1, minWidth: 0 }}>
          {outlook.months.length > 0 && <Outlook months={outlook.months} currency={outlook.currency} />}
          <Filters outlook={outlook} which={which} onWhich={setWhich} />
          <PagedTable<"repeats", Row>
            name="repeats"
            first={first}
            more={which}
            // Beside an open one there is room for who and when.
            columns={open === null ? columns : columns.filter(({ field }) => narrow.has(field))}
            searchLabel="Search repeats"
            beside={
              open === null && (
                <Box sx={{ flex: 1, color: ink.ash, fontSize: 13 }}>
                  <StripLegend />
                </Box>
              )
            }
            // The tables are compact: this is 58 pixels.
            rowHeight={83}
            onSearch={setSearch}
            onOpen={(row) => show(row.id)}
            empty={
              which.show === "all"
                ? "Nothing repeats yet. Open a visit on the board and let it repeat."
                : "None of them now."
            }
          />
        </Box>
        {changing && (
          <ChangeMany
            which={{
              search,
              serviceId: which.serviceId ?? null,
              zoneId: which.zoneId ?? null,
              technicianId: which.technicianId ?? null,
            }}
            words={whichWords(outlook, which, search)}
            today={outlook.today}
            technicians={outlook.technicians}
            onClose={() => setChanging(false)}
          />
        )}
        {open !== null && <RepeatSheet key={open} repeatId={open} onClose={() => show(null)} />}
      </Box>
    </>
  );
}

/** Which are meant, by what the list is narrowed to. */
function whichWords({ services, zones, technicians }: Outlooked, which: Which, search: string): string {
  const nameOf = (all: { id: number; name: string }[], id: number | null | undefined) =>
    all.find((one) => one.id === id)?.name;
  const narrowed = [
    nameOf(services, which.serviceId),
    nameOf(zones, which.zoneId),
    nameOf(technicians, which.technicianId),
    search && `“${search}”`,
  ].filter(Boolean);
  return narrowed.length ? narrowed.join(", ") : "all active repeats";
}

function WhoAndWhat({ row }: { row: Row }) {
  return (
    <Box sx={{ lineHeight: 1.35, py: 1.5, overflow: "hidden" }}>
      <Box sx={{ fontWeight: 650, overflow: "hidden", textOverflow: "ellipsis" }}>
        <Code code={row.code} colour={hues[row.hue]!} /> {row.customer}
      </Box>
      <Box sx={{ color: ink.ash, fontSize: 13, overflow: "hidden", textOverflow: "ellipsis" }}>
        {upper(row.words)}, {row.window}
        {row.comes === "flexible" && ", flexible"}
        {row.comes === "ask" && ", ask first"}
        {row.counted === "done" && ", from the last one done"}
      </Box>
    </Box>
  );
}

function Next({ row }: { row: Row }) {
  if (row.state === "ended") return <span style={{ color: ink.ash }}>ended</span>;
  return (
    <Box sx={{ lineHeight: 1.35, py: 1.5 }}>
      {row.next ? dayShort(row.next) : "none ahead"}
      <Box sx={{ fontSize: 13, color: row.needs ? ink.ember : ink.ash, whiteSpace: "normal" }}>
        {row.needs ?? (row.asked ? `asked ${dayShort(row.asked)}` : row.nextState)}
      </Box>
    </Box>
  );
}
