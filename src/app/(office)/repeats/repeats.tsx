"use client";
import type { ViewOutput } from "@/api/client";
import { dayShort } from "@/core/time/words";
import { Code } from "@/ui/arch";
import type { firstPage } from "@/ui/first-page";
import { useShown } from "@/ui/live";
import { PagedTable } from "@/ui/paged-table";
import { hues, ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { GridColDef } from "@mui/x-data-grid";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { type SnackbarKey, useSnackbar } from "notistack";
import type { MouseEvent } from "react";
import { useOffice } from "../office-context";
import { Top } from "../top";

type Row = ViewOutput<"repeats">["rows"][number];

/** Its forms come when one is opened. */
const RepeatSheet = dynamic(() => import("./repeat-sheet").then((m) => m.RepeatSheet));

const narrow = new Set(["customer", "service", "words", "next"]);

export function Repeats({ first, open }: { first: ReturnType<typeof firstPage<"repeats">>; open: number | null }) {
  const router = useRouter();
  const show = (id: number | null) => router.replace(id === null ? "/repeats" : `/repeats?open=${id}`);
  const { person } = useOffice();
  const { sums } = useShown("repeats", first);
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const resume = useChange("resume-repeat");
  const end = useChange("end-repeat");

  const endIt = async (row: Row) => {
    if (!(await end.send({ repeatId: row.id }))) return;
    const undo = (key: SnackbarKey) => {
      closeSnackbar(key);
      void resume.send({ repeatId: row.id });
    };
    enqueueSnackbar(`${row.customer}’s repeat is ended; promised visits stay`, {
      action: (key) => (
        <Button color="inherit" onClick={() => undo(key)}>
          Undo
        </Button>
      ),
    });
  };
  const endOrResume = (event: MouseEvent, row: Row) => {
    event.stopPropagation();
    void (row.state === "active" ? endIt(row) : resume.send({ repeatId: row.id }));
  };

  const columns: GridColDef<Row>[] = [
    { field: "customer", headerName: "Customer", flex: 0.8, minWidth: 120 },
    {
      field: "service",
      headerName: "Service",
      flex: 1.1,
      minWidth: 170,
      renderCell: ({ row }) => (
        <span>
          <Code code={row.code} colour={hues[row.hue]!} /> {row.service}
        </span>
      ),
    },
    {
      field: "words",
      sortable: false,
      headerName: "How often",
      flex: 1.4,
      minWidth: 230,
      valueGetter: (_, row) => `${row.words}, ${row.window}`,
    },
    { field: "technician", sortable: false, headerName: "Usually", width: 120 },
    {
      field: "next",
      headerName: "Next",
      width: 110,
      valueFormatter: (value: string | null) => (value ? dayShort(value) : ""),
    },
    {
      field: "ahead",
      sortable: false,
      headerName: "Forecasts",
      width: 140,
      renderCell: ({ row }) => (
        <span>
          {row.ahead}
          {row.unplaced > 0 && <b style={{ color: ink.ember }}> · {row.unplaced} no room</b>}
        </span>
      ),
    },
    { field: "state", headerName: "State", width: 74 },
    {
      field: "do",
      headerName: "",
      width: 96,
      sortable: false,
      renderCell: ({ row }) =>
        person.permissions.includes("board.change") && (
          <Button size="small" onClick={(event) => endOrResume(event, row)}>
            {row.state === "active" ? "End" : "Resume"}
          </Button>
        ),
    },
  ];
  return (
    <>
      <Top
        title="Repeats"
        sum={`${sums.active} active${sums.unplaced ? `, ${sums.unplaced} ${sums.unplaced === 1 ? "forecast" : "forecasts"} without room` : ""}`}
      />
      <Box sx={{ display: "flex" }}>
        <Box sx={{ height: "calc(100dvh - 72px)", display: "flex", flexDirection: "column", flex: 1, minWidth: 0 }}>
          <PagedTable<"repeats", Row>
            name="repeats"
            first={first}
            // Beside an open one there is room for who, what and when.
            columns={open === null ? columns : columns.filter(({ field }) => narrow.has(field))}
            searchLabel="Search repeats"
            onOpen={(row) => show(row.id)}
            empty="Nothing repeats yet. Open a visit on the board and let it repeat."
          />
        </Box>
        {open !== null && <RepeatSheet key={open} repeatId={open} onClose={() => show(null)} />}
      </Box>
    </>
  );
}
