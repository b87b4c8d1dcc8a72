"use client";
import type { ViewOutput } from "@/api/client";
import { firstPage } from "@/ui/first-page";
import { SaveList } from "@/ui/save-list";
import { useLive, useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import TablePagination from "@mui/material/TablePagination";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { Top } from "../top";
import { counted, kindWords, type OneImport, stateWords } from "./data";
import { RowInWords } from "./row-in-words";

/** How often it is looked at while the worker goes on with it. */
const whileMs = 600;
const isUnderWay = (state: OneImport["state"]): boolean => ["filling", "checking", "taking", "undoing"].includes(state);

/** One import: looked over row by row, decided, taken, and undone where it was a mistake. */
export function ImportScreen({ importId }: { importId: number }) {
  const brought = useShown("import", { importId });
  const [fast, setFast] = useState(isUnderWay(brought.state));
  const { data } = useLive("import", { importId }, fast ? whileMs : undefined);
  const one = data ?? brought;
  if (isUnderWay(one.state) !== fast) setFast(isUnderWay(one.state));
  return (
    <>
      <Top
        title={`Import of ${kindWords[one.kind].many}`}
        sum={`${one.file}, ${one.rowCount} ${one.rowCount === 1 ? "row" : "rows"}, ${stateWords[one.state]}`}
      />
      <Box sx={{ px: 6, pb: 8, display: "grid", gap: 4 }}>
        <Standing one={one} />
        {!isUnderWay(one.state) && <Rows one={one} />}
      </Box>
    </>
  );
}

/** How far it is, what comes of it, and what can be done now. */
function Standing({ one }: { one: OneImport }) {
  const router = useRouter();
  const { counts: c, kind, state, id: importId } = one;
  const take = useChange("take-import");
  const stop = useChange("stop-import");
  const undo = useChange("undo-import");
  const drop = useChange("drop-import", { then: () => router.push(`/import?kind=${kind}`) });
  const busy = take.busy || stop.busy || undo.busy || drop.busy;
  const dropIt = (
    <Button disabled={busy} onClick={() => void drop.send({ importId })}>
      Throw this file away
    </Button>
  );
  if (state === "filling")
    return (
      <Alert severity="warning" action={dropIt}>
        Not all rows of this file have arrived. Throw it away and choose it again.
      </Alert>
    );
  if (state === "checking") return <Progress words="Looking over" at={one.rowCount - c.waiting} of={one.rowCount} />;
  if (state === "taking" || state === "undoing") {
    const [words, at] = state === "taking" ? ["Importing", c.done] : ["Undoing", c.toTake + c.toJoin - c.done];
    return (
      <Progress
        words={words}
        at={at}
        of={c.toTake + c.toJoin}
        onStop={stop.busy ? undefined : () => void stop.send({ importId })}
      />
    );
  }
  const left = c.toTake + c.toJoin - c.done;
  if (state === "taken" && left === 0)
    return (
      <Alert
        severity="success"
        action={
          <Button color="inherit" disabled={busy} onClick={() => void undo.send({ importId })}>
            Undo all of it
          </Button>
        }
      >
        {c.done === 1 ? "1 row is" : `${c.done} rows are`} imported.
        {c.wrong > 0 && ` ${c.wrong} could not be: correct them below and import them, or save them as a file.`}
      </Alert>
    );
  return (
    <Box sx={{ display: "flex", gap: 3, alignItems: "center", flexWrap: "wrap" }}>
      {state === "undone" && (
        <Alert severity="info" sx={{ width: "100%" }}>
          {c.kept === 0
            ? "All of it is undone."
            : `It is undone, but for ${counted(c.kept, kind)} that have been used since and stay.`}
        </Alert>
      )}
      <Button
        variant="contained"
        disabled={busy || left === 0 || c.undecided > 0}
        onClick={() => void take.send({ importId })}
      >
        {({ stopped: "Go on: import ", undone: "Import again: ", taken: "Import " } as Record<string, string>)[state] ??
          "Import "}
        {left} {left === 1 ? "row" : "rows"}
      </Button>
      {c.done > c.kept && (
        <Button variant="outlined" disabled={busy} onClick={() => void undo.send({ importId })}>
          Undo the {c.done} that are in
        </Button>
      )}
      {c.done === 0 && dropIt}
      <Box sx={{ color: ink.ash }}>
        {sumsOf(one)}
        {c.undecided > 0 && (
          <Box component="span" sx={{ color: ink.ember }}>
            {" "}
            {c.undecided === 1 ? "1 row waits" : `${c.undecided} rows wait`} for your decision.
          </Box>
        )}
      </Box>
    </Box>
  );
}

const sumsOf = ({ counts: c }: OneImport): string =>
  [
    `${c.toTake} new`,
    c.toJoin && `${c.toJoin} joined to what we know`,
    c.wrong && `${c.wrong} with something wrong, which stay out`,
    c.leftOut && `${c.leftOut} left out`,
  ]
    .filter(Boolean)
    .join(", ") + ".";

const Progress = ({ words, at, of, onStop }: { words: string; at: number; of: number; onStop?: () => void }) => (
  <Box role="status" sx={{ display: "flex", gap: 3, alignItems: "center" }}>
    <Box sx={{ width: 320 }}>
      <LinearProgress variant="determinate" value={of ? Math.min(100, (at * 100) / of) : 0} aria-label={words} />
    </Box>
    <span>
      {words}: {at} of {of} rows
    </span>
    {onStop && <Button onClick={onStop}>Stop</Button>}
  </Box>
);

type Row = ViewOutput<"import-rows">["rows"][number];
type Shown = "all" | "wrong" | "new" | "certain" | "likely";

function Rows({ one }: { one: OneImport }) {
  const { counts: c, kind } = one;
  const isCatalogue = kind !== "customers";
  const [show, setShow] = useState<Shown>(c.wrong ? "wrong" : c.likely ? "likely" : "all");
  const [asked, setAsked] = useState({ ...firstPage<"import-rows">("number"), size: 25 });
  const { data } = useLive("import-rows", { ...asked, importId: one.id, show });
  const decide = useChange("decide-import-rows");
  const canDecide = ["checked", "stopped", "undone", "taken"].includes(one.state);
  const tabs: [Shown, string, number][] = [
    ["wrong", "Something wrong", c.wrong],
    ["likely", "May be known", c.likely],
    ["certain", isCatalogue ? "Known" : "Known for certain", c.certain],
    ["new", "New", c.new],
    ["all", "All", one.rowCount],
  ];
  const forAll = (decision: "take" | "join" | "leave out", words: string) =>
    canDecide &&
    (show === "likely" || show === "certain") && (
      <Button
        size="small"
        disabled={decide.busy}
        onClick={() => void decide.send({ importId: one.id, verdict: show, decision })}
      >
        {words}
      </Button>
    );
  return (
    <Box component="section" aria-label="Rows">
      <Box sx={{ display: "flex", gap: 3, alignItems: "center", flexWrap: "wrap", mb: 2 }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={show}
          onChange={(_, value: Shown | null) => {
            if (!value) return;
            setShow(value);
            setAsked({ ...asked, page: 0 });
          }}
          aria-label="Which rows"
        >
          {tabs.map(([value, words, n]) => (
            <ToggleButton key={value} value={value} disabled={n === 0 && value !== "all"}>
              {words} ({n})
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <TextField
          size="small"
          label="Search rows"
          value={asked.search}
          onChange={(e) => setAsked({ ...asked, search: e.target.value, page: 0 })}
          sx={{ width: 200 }}
        />
        {forAll("join", "Join all of these")}
        {!isCatalogue && forAll("take", "Keep all apart")}
        {forAll("leave out", "Leave all out")}
        {show === "wrong" && c.wrong > 0 && (
          <SaveList<"import-rows", Row>
            name="import-rows"
            asked={{ ...asked, importId: one.id, show }}
            columns={[
              ...one.columns.names.map((words, i) => ({ words, of: (row: Row) => row.cells[i] ?? "" })),
              { words: "What is wrong", of: (row: Row) => row.problems.map(({ sentence }) => sentence).join(" ") },
            ]}
          />
        )}
      </Box>
      {data?.rows.map((row) => (
        <RowInWords key={row.number} row={row} one={one} canDecide={canDecide} />
      ))}
      {data?.count === 0 && <Box sx={{ color: ink.ash, py: 3 }}>No row here.</Box>}
      {data && data.count > asked.size && (
        <TablePagination
          component="div"
          count={data.count}
          page={asked.page}
          rowsPerPage={asked.size}
          rowsPerPageOptions={[25, 50, 100]}
          onPageChange={(_, page) => setAsked({ ...asked, page })}
          onRowsPerPageChange={(e) => setAsked({ ...asked, size: Number(e.target.value), page: 0 })}
        />
      )}
    </Box>
  );
}
