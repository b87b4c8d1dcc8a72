"use client";
import { change, type OperationInput } from "@/api/client";
import { fieldsOf, type ImportKind } from "@/core/imports/fields";
import { type Columns, missingColumns } from "@/core/imports/match-columns";
import type { StatementBalances } from "@/core/imports/statement-balances";
import type { Table } from "@/core/imports/read-file";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { PreviewRows, type Reading } from "./preview-rows";

interface Matching {
  kind: ImportKind;
  file: string;
  table: Table;
  columns: Columns;
  balances: StatementBalances | null;
  reading: Reading;
  onColumns: (columns: Columns) => void;
  onBack: () => void;
}

/** What each column holds, as it was found and as it can be changed; and the first rows as they will be. */
export function MatchColumns({ kind, file, table, columns, balances, reading, onColumns, onBack }: Matching) {
  const router = useRouter();
  const [sent, setSent] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const stopped = useRef(false);
  const missing = missingColumns(kind, columns);
  const send = async () => {
    stopped.current = false;
    setProblem(null);
    setSent(0);
    const done = await sendRows({ kind, file, table, columns, balances }, setSent, () => stopped.current);
    if ("importId" in done) return router.push(`/import/${done.importId}`);
    setSent(null);
    setProblem(done.problem);
  };
  const put = (at: number, field: string | null) =>
    onColumns({
      ...columns,
      // A field stands in one column.
      fields: columns.fields.map((id, i) => (i === at ? field : id === field ? null : id)),
    });
  return (
    <>
      <Box component="section">
        <Typography variant="h2">What each column holds</Typography>
        <Typography sx={{ color: ink.ash, fontSize: 14, mt: 1, mb: 3 }}>
          Found by its name, or by what stands in it. Columns that are left out are not imported.
        </Typography>
        <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(210px, 1fr))", gap: 3 }}>
          {columns.names.map((name, i) => (
            <TextField
              key={i}
              select
              size="small"
              label={name}
              value={columns.fields[i] ?? ""}
              onChange={(e) => put(i, e.target.value || null)}
              helperText={examplesOf(table, i)}
              slotProps={{
                formHelperText: { sx: { whiteSpace: "nowrap", overflow: "hidden", textOverflow: "ellipsis" } },
              }}
            >
              <MenuItem value="">left out</MenuItem>
              {fieldsOf[kind].map((field) => (
                <MenuItem key={field.id} value={field.id}>
                  {field.name}
                </MenuItem>
              ))}
            </TextField>
          ))}
          {columns.fields.includes("since") && (
            <TextField
              select
              size="small"
              label="Dates are written"
              value={columns.dates}
              onChange={(e) => onColumns({ ...columns, dates: e.target.value as Columns["dates"] })}
              helperText="Where the year does not come first"
            >
              <MenuItem value="day first">day first: 25/11/2026</MenuItem>
              <MenuItem value="month first">month first: 11/25/2026</MenuItem>
            </TextField>
          )}
        </Box>
      </Box>
      {missing ? (
        <Alert severity="warning">{missing}</Alert>
      ) : (
        <PreviewRows kind={kind} table={table} columns={columns} reading={reading} />
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      <Box sx={{ display: "flex", gap: 3, alignItems: "center" }}>
        {sent === null ? (
          <>
            <Button variant="contained" disabled={missing !== null} onClick={() => void send()}>
              Look over {table.rows.length === 1 ? "the row" : `all ${table.rows.length} rows`}
            </Button>
            <Button onClick={onBack}>Choose another file</Button>
          </>
        ) : (
          <>
            <Box sx={{ width: 260 }}>
              <LinearProgress variant="determinate" value={(sent * 100) / table.rows.length} aria-label="Rows sent" />
            </Box>
            <span>
              {sent} of {table.rows.length} rows
            </span>
            <Button onClick={() => (stopped.current = true)}>Stop</Button>
          </>
        )}
      </Box>
    </>
  );
}

/** The first that stand in a column. */
const examplesOf = ({ rows }: Table, column: number): string =>
  rows
    .map((row) => row[column]!)
    .filter(Boolean)
    .slice(0, 2)
    .join(" · ") || "empty";

/** Rows of one request: as many as fit into it. */
const [rowsAtOnce, lettersAtOnce] = [400, 120_000];

async function sendRows(
  { kind, file, table, columns, balances }: Pick<Matching, "kind" | "file" | "table" | "columns" | "balances">,
  onSent: (rows: number) => void,
  isStopped: () => boolean,
): Promise<{ importId: number } | { problem: string }> {
  const begun = await change("begin-import", {
    kind,
    file: file.slice(0, 200) || "file",
    columns: columns as OperationInput<"begin-import">["columns"],
    rowCount: table.rows.length,
    balances,
  });
  if (!begun.ok) return { problem: begun.problem.fields?.["/columns"] ?? begun.problem.sentence };
  const importId = begun.value.id;
  for (let from = 0; from < table.rows.length;) {
    if (isStopped()) {
      await change("drop-import", { importId });
      return { problem: "Stopped. Nothing was imported." };
    }
    const rows = rowsThatFit(table.rows, from);
    const added = await change("add-import-rows", { importId, from: from + 1, rows });
    if (!added.ok) {
      await change("drop-import", { importId });
      return { problem: added.problem.sentence };
    }
    from += rows.length;
    onSent(from);
  }
  return { importId };
}

function rowsThatFit(all: readonly string[][], from: number): string[][] {
  const rows: string[][] = [];
  let letters = 0;
  for (let i = from; i < all.length && rows.length < rowsAtOnce; i++) {
    letters += JSON.stringify(all[i]).length;
    if (rows.length > 0 && letters > lettersAtOnce) break;
    rows.push(all[i]!);
  }
  return rows;
}
