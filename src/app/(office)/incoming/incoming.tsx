"use client";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dayShort } from "@/core/time/words";
import { DataTable } from "@/ui/data-table";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { GridColDef, GridRowSelectionModel } from "@mui/x-data-grid";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { Top } from "../top";
import type { Entry } from "./data";

const DeclineForm = dynamic(() => import("./decline-form").then((m) => m.DeclineForm));

const EntrySheet = dynamic(() => import("./entry-sheet").then((m) => m.EntrySheet));

const nothing: GridRowSelectionModel = { type: "include", ids: new Set() };

/** What waits, one line each; what is chosen is dealt with together, what is open in the sheet beside. */
export function Incoming({ openKey }: { openKey: string | null }) {
  const view = useShown("incoming", {}, 60_000);
  const open = view.entries.find((e) => e.key === openKey) ?? null;
  const waiting = view.entries.filter((e) => e.forUs).length;
  const away = view.entries.length - waiting;
  const sum = [
    waiting ? `${waiting} ${waiting === 1 ? "waits" : "wait"} for a person` : "Nothing waits for you",
    away > 0 && `${away} for a customer’s answer`,
    view.handles && `${view.handles} handles incoming`,
  ];
  const router = useRouter();
  const { enqueueSnackbar } = useSnackbar();
  const [selection, setSelection] = useState(nothing);
  const [declining, setDeclining] = useState(false);
  const approve = useChange("approve-bookings");
  const answer = useChange("answer-requests");
  const takeOn = useChange("take-on");
  const chosen = view.entries.filter((e) =>
    selection.type === "include" ? selection.ids.has(e.key) : !selection.ids.has(e.key),
  );
  const entries = chosen.map(({ kind, id }) => ({ kind, id }));
  const [bookings, requests] = [
    chosen.filter((e) => e.kind === "booking" && e.forUs),
    chosen.filter((e) => e.kind === "request"),
  ];
  const show = (entry: Entry | null) =>
    router.push(entry ? `/incoming?open=${encodeURIComponent(entry.key)}` : "/incoming", { scroll: false });
  const done = (words: string) => {
    enqueueSnackbar(words, { variant: "success" });
    setSelection(nothing);
    setDeclining(false);
  };
  const columns: GridColDef<Entry>[] = [
    { field: "name", headerName: "Who", flex: 1, minWidth: 120 },
    { field: "what", headerName: "What", flex: 1.2, minWidth: 140 },
    {
      field: "waits",
      headerName: "Waits",
      width: 205,
      renderCell: ({ row }) => (
        <span style={{ color: row.forUs ? ink.ember : ink.ash, fontWeight: 650 }}>{row.waits}</span>
      ),
    },
    { field: "when", headerName: "When", flex: 1.2, minWidth: 150 },
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
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box
            role="toolbar"
            aria-label="What is chosen"
            sx={{ px: 6, pb: 3, display: "flex", gap: 3, alignItems: "center", minHeight: 52, flexWrap: "wrap" }}
          >
            {chosen.length === 0 ? (
              <Box sx={{ color: ink.ash }}>Open one with a click, or tick several.</Box>
            ) : (
              <>
                <b>{chosen.length} chosen</b>
                {bookings.length > 0 && (
                  <Button
                    variant="contained"
                    size="small"
                    disabled={approve.busy}
                    onClick={() =>
                      void approve
                        .send({ jobIds: bookings.map((e) => e.id) })
                        .then((sent) => sent && done(`${bookings.length} confirmed, the customers are told`))
                    }
                  >
                    Confirm {bookings.length} {bookings.length === 1 ? "booking" : "bookings"}
                  </Button>
                )}
                {requests.length > 0 && (
                  <Button
                    variant="outlined"
                    size="small"
                    disabled={answer.busy}
                    onClick={() =>
                      void answer
                        .send({ ids: requests.map((e) => e.id) })
                        .then((sent) => sent && done(`${requests.length} answered`))
                    }
                  >
                    Answered by phone
                  </Button>
                )}
                <Button size="small" onClick={() => setDeclining(!declining)} aria-expanded={declining}>
                  Decline…
                </Button>
                <TextField
                  select
                  label="Who is on it"
                  size="small"
                  value=""
                  onChange={(e) =>
                    void takeOn
                      .send({ entries, personId: Number(e.target.value) || null })
                      .then((sent) => sent && done("Handed over"))
                  }
                  sx={{ width: 170 }}
                >
                  {view.people.map((p) => (
                    <MenuItem key={p.id} value={p.id}>
                      {p.id === view.meId ? `${p.name} (me)` : p.name}
                    </MenuItem>
                  ))}
                  <MenuItem value="0">nobody</MenuItem>
                </TextField>
              </>
            )}
          </Box>
          {declining && chosen.length > 0 && (
            <Box sx={{ px: 6, pb: 4, maxWidth: 640 }}>
              <DeclineForm entries={entries} onDone={() => done(`${chosen.length} declined, the customers are told`)} />
            </Box>
          )}
          <Box sx={{ height: "calc(100dvh - 130px)" }}>
            <DataTable
              rows={view.entries}
              getRowId={(row) => row.key}
              columns={columns}
              checkboxSelection
              rowSelectionModel={selection}
              onRowSelectionModelChange={setSelection}
              onOpen={show}
              columnVisibilityModel={open ? { at: false, handler: false, totalMinor: false, when: false } : {}}
              localeText={{
                noRowsLabel: "Nothing waits. Bookings that you want to confirm, requests, wishes and quotes come here.",
              }}
            />
          </Box>
        </Box>
        {open && (
          <EntrySheet
            key={open.key}
            entry={open}
            view={view}
            onClose={() => show(null)}
            onDone={(words) => (show(null), done(words))}
          />
        )}
      </Box>
    </>
  );
}
