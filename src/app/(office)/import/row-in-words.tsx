"use client";
import { fieldsOf } from "@/core/imports/fields";
import { Field } from "@/ui/form-parts";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { useState } from "react";
import type { ImportRow, OneImport } from "./data";

/** One row as it will be, what is wrong with it, and beside it who it may be. */
export function RowInWords({ row, one, canDecide }: { row: ImportRow; one: OneImport; canDecide: boolean }) {
  const [correcting, setCorrecting] = useState(false);
  const decide = useChange("decide-import-rows");
  const isDouble = row.verdict === "certain" || row.verdict === "likely";
  return (
    <Box sx={{ borderTop: `1px solid ${ink.line}`, py: 1.5, fontSize: 14.5 }}>
      <Box sx={{ display: "flex", gap: 3, alignItems: "start" }}>
        <Box sx={{ width: 34, flex: "none", color: ink.ash, textAlign: "right", fontVariantNumeric: "tabular-nums" }}>
          {row.number}
        </Box>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <b>{row.name || "–"}</b>
          <Box sx={{ color: ink.ash }}>{row.details.join(" · ")}</Box>
          {row.problems.map((problem, i) => (
            <Box key={i} sx={{ color: ink.ember }}>
              {fieldName(one, problem.field)}
              {problem.sentence}
            </Box>
          ))}
        </Box>
        {isDouble && <Known row={row} />}
        <Box sx={{ width: 270, flex: "none", display: "flex", justifyContent: "flex-end" }}>
          {row.madeId !== null ? (
            <Made row={row} one={one} />
          ) : isDouble ? (
            <ToggleButtonGroup
              exclusive
              size="small"
              value={row.decision}
              disabled={!canDecide || decide.busy}
              aria-label={`What becomes of row ${row.number}`}
              onChange={(_, decision: ImportRow["decision"]) =>
                decision && void decide.send({ importId: one.id, numbers: [row.number], decision })
              }
            >
              <ToggleButton value="join">Join</ToggleButton>
              {one.kind === "customers" && <ToggleButton value="take">Keep apart</ToggleButton>}
              <ToggleButton value="leave out">Leave out</ToggleButton>
            </ToggleButtonGroup>
          ) : (
            canDecide && (
              <>
                {row.verdict === "new" && (
                  <Button
                    size="small"
                    disabled={decide.busy}
                    onClick={() =>
                      void decide.send({
                        importId: one.id,
                        numbers: [row.number],
                        decision: row.decision === "take" ? "leave out" : "take",
                      })
                    }
                  >
                    {row.decision === "take" ? "Leave out" : "Left out: take it"}
                  </Button>
                )}
                <Button size="small" aria-expanded={correcting} onClick={() => setCorrecting(!correcting)}>
                  Correct
                </Button>
              </>
            )
          )}
        </Box>
      </Box>
      {correcting && canDecide && <Correct row={row} one={one} done={() => setCorrecting(false)} />}
    </Box>
  );
}

const fieldName = ({ kind }: OneImport, field: string): string => {
  const name = fieldsOf[kind].find(({ id }) => id === field)?.name;
  return name ? `${name}: ` : "";
};

/** Whom we know, or the earlier row, beside it. */
const Known = ({ row }: { row: ImportRow }) => (
  <Box
    sx={{ flex: 1, minWidth: 0, borderLeft: `3px solid ${row.verdict === "certain" ? ink.moss : ink.honey}`, pl: 2 }}
  >
    {row.sameRow !== null ? (
      <>
        <b>
          {row.verdict === "certain" ? "The same as" : "Perhaps the same as"} row {row.sameRow} of this file
        </b>
        <Box sx={{ color: ink.ash }}>Joined, its site and tags are added there.</Box>
      </>
    ) : row.same ? (
      <>
        <b>{row.same.name}</b>
        <Box sx={{ color: ink.ash }}>{row.same.details.join(" · ")}</Box>
      </>
    ) : (
      <Box sx={{ color: ink.ash }}>no longer there</Box>
    )}
  </Box>
);

const Made = ({ row, one }: { row: ImportRow; one: OneImport }) =>
  one.kind === "customers" ? (
    <LinkBox href={`/customers/${row.madeId}`} sx={{ color: ink.lake }}>
      {row.kept ? "used since: stays" : row.decision === "join" ? "joined" : "imported"}
    </LinkBox>
  ) : (
    <span>{row.kept ? "used since: stays" : row.decision === "join" ? "changed" : "imported"}</span>
  );

/** The row's own cells, to be corrected; it is looked over again when they are saved. */
function Correct({ row, one, done }: { row: ImportRow; one: OneImport; done: () => void }) {
  const [cells, setCells] = useState(row.cells);
  const { send, busy } = useChange("change-import-row", { then: done });
  return (
    <Box
      component="form"
      aria-label={`Correct row ${row.number}`}
      onSubmit={(e) => {
        e.preventDefault();
        void send({ importId: one.id, number: row.number, cells });
      }}
      sx={{ ml: "46px", mt: 2, display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(200px, 1fr))", gap: 2 }}
    >
      {one.columns.names.map(
        (name, i) =>
          one.columns.fields[i] !== null && (
            <Field
              key={i}
              size="small"
              label={name}
              value={cells[i] ?? ""}
              onChange={(e) => setCells(cells.map((cell, k) => (k === i ? e.target.value : cell)))}
            />
          ),
      )}
      <Box sx={{ display: "flex", gap: 2 }}>
        <Button type="submit" variant="outlined" disabled={busy}>
          Look it over again
        </Button>
        <Button onClick={done}>Close</Button>
      </Box>
    </Box>
  );
}
