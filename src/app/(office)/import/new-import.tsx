"use client";
import type { ImportKind } from "@/core/imports/fields";
import { balanceSays, endsOf } from "@/core/imports/running-balance";
import { gapBetween, type StatementBalances } from "@/core/imports/statement-balances";
import { numberSameLines } from "@/core/imports/bank-row";
import { type Columns, matchColumns } from "@/core/imports/match-columns";
import type { Table } from "@/core/imports/read-file";
import { localDate } from "@/core/time/local";
import { dateWords } from "@/core/time/words";
import { LinkBox } from "@/ui/link-box";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import UploadFileOutlined from "@mui/icons-material/UploadFileOutlined";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { Top } from "../top";
import { kindWords, stateWords } from "./data";
import { MatchColumns } from "./match-columns";
import { counted } from "@/core/words";

interface Opened {
  file: string;
  table: Table;
  columns: Columns;
  /** What is odd about the file itself. */
  says: string[];
  /** Of a statement: what it opens and closes with. */
  balances: StatementBalances | null;
}

const lastOf = (closed: readonly StatementBalances[], next: StatementBalances | null) =>
  closed.find(({ account }) => account === next?.account) ?? null;

/** Lines of a bank that say the same are counted. */
const numbered = (kind: ImportKind, table: Table, columns: Columns): Table =>
  kind === "bank lines" ? numberSameLines(table, columns) : table;

/** A file is chosen and read here, in the browser; its columns are matched; then its rows are looked over. */
export function NewImport({ begin }: { begin: ImportKind | null }) {
  const { kinds, latest, timeZone, examples, closed, ...reading } = useShown("imports", {});
  const [kind, setKind] = useState<ImportKind>(begin ?? kinds[0] ?? "customers");
  const [opened, setOpened] = useState<Opened | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [over, setOver] = useState(false);

  const balances = useMemo(
    () =>
      opened && kind === "bank lines"
        ? (opened.balances ?? endsOf(opened.table, opened.columns, reading.currency))
        : null,
    [opened, kind, reading.currency],
  );
  const odd = useMemo(
    () =>
      !opened
        ? []
        : kind === "bank lines"
          ? [
              ...opened.says,
              ...balanceSays(opened.table, opened.columns, reading.currency),
              ...gapBetween(lastOf(closed, balances), balances),
            ]
          : opened.says,
    [opened, kind, reading.currency, balances, closed],
  );
  const open = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > 20_000_000) return setProblem("This file is larger than 20 MB. Cut it in parts.");
    const { readFile } = await import("@/core/imports/read-file");
    const read = readFile(new Uint8Array(await file.arrayBuffer()));
    setProblem(read.ok ? null : read.sentence);
    if (!read.ok) return setOpened(null);
    // A statement says by itself what it is.
    const meant = read.isStatement && kinds.includes("bank lines") ? "bank lines" : kind;
    const table = numbered(meant, read.table, matchColumns(meant, read.table));
    setKind(meant);
    setOpened({
      file: file.name,
      table,
      columns: matchColumns(meant, table),
      says: read.says ?? [],
      balances: read.balances ?? null,
    });
  };

  if (kinds.length === 0)
    return (
      <>
        <Top title="Import" />
        <Alert severity="info" sx={{ mx: 6 }}>
          Your role does not import. Ask the owner of the business.
        </Alert>
      </>
    );
  return (
    <>
      <Top
        title="Import"
        sum={
          opened ? `${opened.file}, ${counted(opened.table.rows.length, "row")}` : "Nothing is taken before you say so"
        }
      />
      <Box sx={{ px: 6, pb: 8, display: "grid", gap: 5, maxWidth: 1120 }}>
        {!opened && (
          <>
            <Box sx={{ display: "flex", gap: 4, alignItems: "start", flexWrap: "wrap" }}>
              <TextField
                select
                label="What"
                value={kind}
                onChange={(e) => setKind(e.target.value as ImportKind)}
                helperText={kindWords[kind].about}
                sx={{ width: 320 }}
              >
                {kinds.map((one) => (
                  <MenuItem key={one} value={one}>
                    {one === "prices" ? "Price list" : one[0]!.toUpperCase() + one.slice(1)}
                  </MenuItem>
                ))}
              </TextField>
            </Box>
            <Box
              component="label"
              onDragOver={(e) => {
                e.preventDefault();
                setOver(true);
              }}
              onDragLeave={() => setOver(false)}
              onDrop={(e) => {
                e.preventDefault();
                setOver(false);
                void open(e.dataTransfer.files[0]);
              }}
              sx={{
                border: `1.5px dashed ${over ? ink.pine : ink.line}`,
                bgcolor: over ? ink.plaster : "#fff",
                borderRadius: "72px 72px 6px 6px",
                maxWidth: 560,
                py: 7,
                px: 5,
                display: "grid",
                justifyItems: "center",
                gap: 1,
                cursor: "pointer",
                textAlign: "center",
                "&:focus-within": { outline: `2px solid ${ink.pine}` },
              }}
            >
              <UploadFileOutlined sx={{ fontSize: 34, color: ink.pine }} />
              <b>Choose a file, or drop it here</b>
              <Box sx={{ color: ink.ash, fontSize: 14 }}>
                CSV with any separator
                {{ customers: ", or contacts as vCard", "bank lines": ", or CAMT.053" }[kind as string]}. Up to 20,000
                rows.
              </Box>
              <Box
                component="input"
                type="file"
                accept=".csv,.tsv,.txt,.vcf,.xml,text/csv,text/vcard,text/xml,application/xml"
                aria-label="File to import"
                onChange={(e) => {
                  void open(e.target.files?.[0]);
                  e.target.value = "";
                }}
                sx={{ position: "absolute", opacity: 0, width: 1, height: 1 }}
              />
            </Box>
          </>
        )}
        {!opened && examples.length > 0 && (
          <Box component="section" sx={{ maxWidth: 760, fontSize: 14.5 }}>
            <Typography variant="h3" sx={{ mb: 1 }}>
              Files of the demo to try it with
            </Typography>
            {examples.map(({ name, about }) => (
              <Box key={name} sx={{ py: 0.75 }}>
                <Box component="a" href={`/standins/examples/${name}`} download={name} sx={{ color: ink.lake }}>
                  {name}
                </Box>
                <Box component="span" sx={{ color: ink.ash, ml: 2 }}>
                  {about}
                </Box>
              </Box>
            ))}
          </Box>
        )}
        {problem && <Alert severity="error">{problem}</Alert>}
        {odd.map((sentence) => (
          <Alert key={sentence} severity="warning">
            {sentence}
          </Alert>
        ))}
        {opened && (
          <MatchColumns
            kind={kind}
            {...opened}
            balances={balances}
            reading={reading}
            onColumns={(columns) => setOpened({ ...opened, table: numbered(kind, opened.table, columns), columns })}
            onBack={() => setOpened(null)}
          />
        )}
        {!opened && latest.length > 0 && (
          <Box component="section" sx={{ maxWidth: 760 }}>
            <Typography variant="h3" sx={{ mb: 1.5 }}>
              Imports so far
            </Typography>
            {latest.map((one) => (
              <LinkBox
                key={one.id}
                href={`/import/${one.id}`}
                sx={{
                  display: "flex",
                  gap: 3,
                  py: 1.25,
                  borderTop: `1px solid ${ink.line}`,
                  color: ink.ink,
                  textDecoration: "none",
                  fontSize: 14.5,
                  "&:hover": { bgcolor: ink.plaster },
                }}
              >
                <Box sx={{ width: 110 }}>{dateWords(localDate(Math.floor(one.made_at / 60_000), timeZone))}</Box>
                <Box sx={{ flex: 1 }}>{one.file}</Box>
                <Box sx={{ width: 130 }}>
                  {one.row_count} {one.kind}
                </Box>
                <Box sx={{ width: 150 }}>{stateWords[one.state]}</Box>
                <Box sx={{ width: 120, color: ink.ash }}>{one.made_by}</Box>
              </LinkBox>
            ))}
          </Box>
        )}
      </Box>
    </>
  );
}
