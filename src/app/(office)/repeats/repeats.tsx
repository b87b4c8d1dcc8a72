"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { GridColDef } from "@mui/x-data-grid";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import type { ViewOutput } from "@/api/client";
import { dayShort } from "@/core/time/words";
import { Code } from "@/ui/arch";
import { DataTable } from "@/ui/data-table";
import { hues, ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useOffice } from "../office";

type Row = ViewOutput<"repeats">[number];

export function Repeats({ rows }: { rows: Row[] }) {
  const router = useRouter();
  const { person } = useOffice();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const end = useChange("end-repeat");
  const resume = useChange("resume-repeat");

  const endIt = async (row: Row) => {
    if (!(await end.send({ repeatId: row.id }))) return;
    router.refresh();
    enqueueSnackbar(`${row.customer}’s repeat is ended; promised visits stay`, {
      action: (key) => (
        <Button color="inherit" onClick={() => (closeSnackbar(key), void resumeIt(row))}>
          Undo
        </Button>
      ),
    });
  };
  const resumeIt = async (row: Row) => (await resume.send({ repeatId: row.id })) && router.refresh();

  const columns: GridColDef<Row>[] = [
    { field: "customer", headerName: "Customer", flex: 1, minWidth: 140 },
    {
      field: "service",
      headerName: "Service",
      flex: 1.1,
      minWidth: 220,
      renderCell: ({ row }) => (
        <span>
          <Code code={row.code} colour={hues[row.hue]!} /> {row.service}
        </span>
      ),
    },
    { field: "words", headerName: "How often", width: 190, valueGetter: (_, row) => `${row.words}, ${row.window}` },
    { field: "technician", headerName: "Usually", width: 120 },
    {
      field: "next",
      headerName: "Next",
      width: 110,
      valueFormatter: (value: string | null) => (value ? dayShort(value) : ""),
    },
    {
      field: "ahead",
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
          <Button
            size="small"
            onClick={(e) => (e.stopPropagation(), void (row.state === "active" ? endIt(row) : resumeIt(row)))}
          >
            {row.state === "active" ? "End" : "Take up"}
          </Button>
        ),
    },
  ];
  return (
    <Box sx={{ height: "calc(100dvh - 72px)" }}>
      <DataTable
        rows={rows}
        columns={columns}
        onOpen={(row) => row.next && router.push(`/board?date=${row.next}&visit=${row.nextVisit}`)}
        localeText={{ noRowsLabel: "Nothing repeats yet. Open a visit on the board and let it come back." }}
      />
    </Box>
  );
}
