"use client";
import type { ViewOutput } from "@/api/client";
import { moneyTyped, moneyWords } from "@/core/money/amounts";
import { type Column, type ReportName, reportNames, reports } from "@/core/money/reports";
import { addMonths } from "@/core/time/dates";
import { DateField } from "@/ui/date-field";
import { download } from "@/ui/download";
import { useLive, useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableFooter from "@mui/material/TableFooter";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import { scaleBand, scaleLinear } from "d3-scale";
import { useState } from "react";
import { useOffice } from "../office-context";
import { AccountNumbers } from "./account-numbers";
import { CloseBooks } from "./close-books";

type Report = ViewOutput<"report">;

/** So many rows are shown; the file has all of them. */
const mostRows = 400;
/** These are as things stood at the end of one day. */
const asOfDay: readonly ReportName[] = ["deposits held", "aged debts", "bank against books"];

/** The books looked back at: a table with its sums, a chart where there is one to draw, and all of it as CSV. */
export function Reports({ mayChange }: { mayChange: boolean }) {
  const mayClose = useOffice().person.permissions.includes("books.close");
  const { today } = useShown("money", {});
  const [name, setName] = useState<ReportName>("tax by invoice");
  const [from, setFrom] = useState(`${addMonths(today, -2).slice(0, 7)}-01`);
  const [to, setTo] = useState(today);
  const { data: report, problem } = useLive("report", { name, from: asOfDay.includes(name) ? to : from, to });
  return (
    <Box sx={{ px: 6, pb: 6, overflowY: "auto" }}>
      <Box sx={{ display: "flex", gap: 3, alignItems: "center", flexWrap: "wrap", pt: 2, mb: 3 }}>
        <TextField
          select
          size="small"
          label="Report"
          value={name}
          onChange={(e) => setName(e.target.value as ReportName)}
          sx={{ width: 220 }}
        >
          {reportNames.map((one) => (
            <MenuItem key={one} value={one}>
              {one}
            </MenuItem>
          ))}
        </TextField>
        {!asOfDay.includes(name) && (
          <DateField label="From" width={180} value={from} onValue={(day) => day && setFrom(day)} />
        )}
        <DateField
          label={asOfDay.includes(name) ? "At the end of" : "To"}
          width={180}
          value={to}
          onValue={(day) => day && setTo(day)}
        />
        <Button disabled={!report} onClick={() => report && void save(name, report)}>
          Export CSV
        </Button>
        {name === "journal" && mayChange && <AccountNumbers />}
        {mayClose && <CloseBooks />}
      </Box>
      <Box sx={{ color: ink.ash, mb: 3 }}>{reports[name]}.</Box>
      {problem && <Alert severity="warning">{Object.values(problem.fields ?? {})[0] ?? problem.sentence}</Alert>}
      {!report && !problem && <Skeleton variant="rounded" height={240} />}
      {report && report.chart && <Bars report={report} chart={report.chart} />}
      {report && <Rows report={report} />}
    </Box>
  );
}

function Rows({ report }: { report: Report }) {
  const { columns, rows, sums, currency } = report;
  const cell = ({ kind }: Column, value: string | number | null) =>
    value === null ? "" : kind === "money" ? moneyWords(Number(value), currency) : value;
  const side = ({ kind }: Column) => (kind === "text" ? "left" : "right");
  if (rows.length === 0) return <Box sx={{ color: ink.ash }}>Nothing in these days.</Box>;
  return (
    <Table size="small" aria-label="Report">
      <TableHead>
        <TableRow>
          {columns.map((column) => (
            <TableCell key={column.words} align={side(column)}>
              {column.words}
            </TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.slice(0, mostRows).map((row, i) => (
          <TableRow key={i}>
            {columns.map((column, j) => (
              <TableCell key={column.words} align={side(column)}>
                {cell(column, row[j]!)}
              </TableCell>
            ))}
          </TableRow>
        ))}
        {rows.length > mostRows && (
          <TableRow>
            <TableCell colSpan={columns.length} sx={{ color: ink.ash }}>
              and {rows.length - mostRows} more, all of them in the CSV
            </TableCell>
          </TableRow>
        )}
      </TableBody>
      {sums && (
        <TableFooter>
          <TableRow>
            {columns.map((column, j) => (
              <TableCell key={column.words} align={side(column)} sx={{ fontWeight: 700, color: ink.ink, fontSize: 14 }}>
                {j === 0 ? "All" : cell(column, sums[j]!)}
              </TableCell>
            ))}
          </TableRow>
        </TableFooter>
      )}
    </Table>
  );
}

const chartSize = { width: 900, rowHeight: 26, names: 190 };
const mostBars = 14;

/** The same as bars: rows of one name together, the longest first where they are no months. */
function Bars({ report, chart }: { report: Report; chart: { of: number; by: number } }) {
  const byName = new Map<string, number>();
  for (const row of report.rows)
    byName.set(String(row[chart.of]), (byName.get(String(row[chart.of])) ?? 0) + Number(row[chart.by]));
  const bars = [...byName].slice(0, mostBars);
  if (bars.length < 2) return null;
  const y = scaleBand(
    bars.map(([name]) => name),
    [0, bars.length * chartSize.rowHeight],
  ).padding(0.25);
  const x = scaleLinear(
    [0, Math.max(1, ...bars.map(([, minor]) => minor))],
    [0, chartSize.width - chartSize.names - 110],
  );
  return (
    <Box component="figure" sx={{ m: 0, mb: 4, maxWidth: 900 }}>
      <svg
        viewBox={`0 0 ${chartSize.width} ${bars.length * chartSize.rowHeight}`}
        width="100%"
        role="img"
        aria-label={`${report.columns[chart.by]!.words} by ${report.columns[chart.of]!.words.toLowerCase()}`}
      >
        {bars.map(([name, minor]) => (
          <g key={name}>
            <text x={chartSize.names - 10} y={y(name)! + 14} textAnchor="end" fontSize="13.5" fill={ink.ink}>
              {name.length > 26 ? `${name.slice(0, 25)}…` : name}
            </text>
            <rect x={chartSize.names} y={y(name)} width={x(Math.max(0, minor))} height={y.bandwidth()} fill="#8FA69B" />
            <text x={chartSize.names + x(Math.max(0, minor)) + 8} y={y(name)! + 14} fontSize="13" fill={ink.ash}>
              {moneyWords(minor, report.currency)}
            </text>
          </g>
        ))}
      </svg>
    </Box>
  );
}

/** Amounts as one types them, so that every table reads them. */
async function save(name: ReportName, { columns, rows, currency }: Report): Promise<void> {
  const { csvOf } = await import("@/core/csv");
  const data = rows.map((row) =>
    row.map((value, i) => (columns[i]!.kind === "money" ? moneyTyped(Number(value), currency) : value)),
  );
  download(
    `${name.replaceAll(" ", "-")}.csv`,
    "text/csv",
    csvOf(
      columns.map(({ words }) => words),
      data,
    ),
  );
}
