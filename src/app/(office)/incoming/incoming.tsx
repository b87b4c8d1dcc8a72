"use client";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dayShort } from "@/core/time/words";
import { useShown } from "@/ui/live";
import { PagedTable } from "@/ui/paged-table";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { GridColDef, GridRowSelectionModel } from "@mui/x-data-grid";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { Top } from "../top";
import { keyed, longestFirst, type Waiting } from "./data";

const ChosenBar = dynamic(() => import("./chosen-bar").then((m) => m.ChosenBar));

const EntrySheet = dynamic(() => import("./entry-sheet").then((m) => m.EntrySheet));

const nothing: GridRowSelectionModel = { type: "include", ids: new Set() };

/** What waits, one line each; what is chosen is dealt with together, what is open in the sheet beside. */
export function Incoming({ openKey }: { openKey: string | null }) {
  const view = useShown("incoming", longestFirst, 60_000);
  const open = keyed(openKey);
  const sum = [
    view.forUs ? `${view.forUs} ${view.forUs === 1 ? "waits" : "wait"} for a person` : "Nothing waits for you",
    view.away > 0 && `${view.away} for a customer’s answer`,
    view.handles && `${view.handles} handles incoming`,
  ];
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const [selection, setSelection] = useState(nothing);
  const [chosen, setChosen] = useState<Waiting[]>([]);
  const show = (one: Pick<Waiting, "key" | "kind" | "id"> | null) =>
    router.push(
      one?.kind === "repeat"
        ? `/repeats?open=${one.id}`
        : one
          ? `/incoming?open=${encodeURIComponent(one.key)}`
          : "/incoming",
      { scroll: false },
    );
  // All of a page are chosen by their names, so that what comes in meanwhile is not chosen with them.
  const choose = (to: GridRowSelectionModel, rows: Waiting[]) => {
    const taken = rows.filter((row) => (to.type === "include") === to.ids.has(row.key));
    setSelection({ type: "include", ids: new Set(taken.map((row) => row.key)) });
    setChosen(taken);
  };
  const done = (words: string) => {
    enqueueSnackbar(words, { variant: "success" });
    choose(nothing, []);
  };
  const columns: GridColDef<Waiting>[] = [
    { field: "name", headerName: "Who", flex: 1, minWidth: 120 },
    { field: "what", headerName: "What", flex: 1.2, minWidth: 140, sortable: false },
    {
      field: "waits",
      headerName: "Waits",
      width: 205,
      renderCell: ({ row }) => (
        <span style={{ color: row.forUs ? ink.ember : ink.ash, fontWeight: 650 }}>{row.waits}</span>
      ),
    },
    { field: "when", headerName: "When", flex: 1.2, minWidth: 150, sortable: false },
    {
      field: "totalMinor",
      headerName: "Price",
      width: 95,
      align: "right",
      headerAlign: "right",
      valueFormatter: (value: number | null) => (value === null ? "" : moneyWords(value, view.currency)),
    },
    {
      field: "handler",
      headerName: "On it",
      width: 120,
      valueFormatter: (value: string | null) => value ?? "nobody",
    },
    {
      field: "at",
      headerName: "Since",
      width: 100,
      valueFormatter: (value: number) => dayShort(localDate(Math.floor(value / 60_000), view.timeZone)),
    },
  ];
  return (
    <>
      <Top
        title="Incoming"
        sum={sum.filter(Boolean).join(", ")}
        action={
          <Button variant="outlined" href="/why-not" sx={{ flex: "none" }}>
            Book on the phone
          </Button>
        }
      />
      <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
        <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column", height: "calc(100dvh - 78px)" }}>
          <Box
            role="toolbar"
            aria-label="What is chosen"
            sx={{ px: 6, pb: 3, display: "flex", gap: 3, alignItems: "center", minHeight: 52, flexWrap: "wrap" }}
          >
            {chosen.length > 0 ? (
              <ChosenBar chosen={chosen} view={view} onDone={done} />
            ) : (
              <Box sx={{ color: ink.ash }}>Open one with a click, or tick several.</Box>
            )}
          </Box>
          <PagedTable<"incoming", Waiting>
            name="incoming"
            first={longestFirst}
            everyMs={60_000}
            searchLabel="Name, phone, email or street"
            getRowId={(row) => row.key}
            columns={columns}
            checkboxSelection
            rowSelectionModel={selection}
            onRowSelectionModelChange={(to, { api }) => choose(to, [...api.getRowModels().values()] as Waiting[])}
            onOpen={show}
            columnVisibilityModel={open ? { at: false, handler: false, totalMinor: false, when: false } : {}}
            empty="Nothing waits. Bookings that you want to confirm, requests, wishes, quotes and repeats that need you come here."
          />
        </Box>
        {open && (
          <EntrySheet
            key={openKey}
            entry={open}
            view={view}
            onClose={() => show(null)}
            onDone={(words) => {
              show(null);
              done(words);
            }}
          />
        )}
      </Box>
    </>
  );
}
