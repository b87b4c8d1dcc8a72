"use client";
import type { ViewOutput } from "@/api/client";
import { dayShort } from "@/core/time/words";
import { counted } from "@/core/words";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import { useState } from "react";

export type TouchedPromises = ViewOutput<"touched-promises">;
/** What becomes of promises, by visit; those that are not named wait on Today. */
export type Settled = ReadonlyMap<number, "keep" | "tray" | "other">;
type How = "later" | "keep" | "tray" | "other";

/** Promises that a change makes such that they cannot be kept, each with what becomes of it. */
export function TouchedDialog({
  touched: { n, promises },
  onAnswer,
}: {
  touched: TouchedPromises;
  onAnswer: (settled: Settled | null) => void;
}) {
  const [how, setHow] = useState<ReadonlyMap<number, How>>(new Map());
  const all = (to: How) =>
    setHow(new Map(promises.map(({ visitId, other }) => [visitId, to === "other" && !other ? "later" : to])));
  const settled = () => new Map([...how].flatMap(([id, to]) => (to === "later" ? [] : [[id, to] as const])));
  return (
    <Dialog open maxWidth="lg" fullWidth onClose={() => onAnswer(null)}>
      <DialogTitle>{counted(n, "promise")} cannot be kept then</DialogTitle>
      <DialogContent>
        Nobody is told anything yet. What you leave open stands on Today until it is settled.
        <TextField
          select
          label="All of them"
          value=""
          onChange={(e) => all(e.target.value as How)}
          fullWidth
          sx={{ mt: 4, maxWidth: 320, display: "block" }}
        >
          {choices(promises.some(({ other }) => other) ? "whoever can keep it" : null)}
        </TextField>
        <Table size="small" sx={{ mt: 4 }} aria-label="Promises that cannot be kept then">
          <TableHead>
            <TableRow>
              {["When", "Who", "Why not", "What becomes of it"].map((title) => (
                <TableCell key={title}>{title}</TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {promises.map(({ visitId, date, window, customer, title, technician, why, other }) => (
              <TableRow key={visitId}>
                <TableCell>
                  {dayShort(date)}, {window}
                </TableCell>
                <TableCell>
                  {customer}, {title}
                  {technician && ` · ${technician}`}
                </TableCell>
                <TableCell>{why}</TableCell>
                <TableCell>
                  <TextField
                    select
                    size="small"
                    value={how.get(visitId) ?? "later"}
                    onChange={(e) => setHow(new Map([...how, [visitId, e.target.value as How]]))}
                    slotProps={{ htmlInput: { "aria-label": `What becomes of ${customer}, ${dayShort(date)}` } }}
                  >
                    {choices(other)}
                  </TextField>
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
        {n > promises.length && `And ${n - promises.length} more: they stand on Today.`}
      </DialogContent>
      <DialogActions>
        <Button onClick={() => onAnswer(null)}>Go back</Button>
        <Button variant="contained" onClick={() => onAnswer(settled())}>
          Save all the same
        </Button>
      </DialogActions>
    </Dialog>
  );
}

const choices = (other: string | null) => [
  <MenuItem key="later" value="later">
    Stays on Today
  </MenuItem>,
  <MenuItem key="keep" value="keep">
    Keep it all the same
  </MenuItem>,
  <MenuItem key="tray" value="tray">
    To the tray
  </MenuItem>,
  ...(other
    ? [
        <MenuItem key="other" value="other">
          Give it to {other}
        </MenuItem>,
      ]
    : []),
];
