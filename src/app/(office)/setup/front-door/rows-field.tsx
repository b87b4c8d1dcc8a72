"use client";
import { ink } from "@/ui/palette";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import { type ReactNode } from "react";

export const Part = ({ title, note, children }: { title: string; note?: string; children: ReactNode }) => (
  <Box
    component="section"
    aria-label={title}
    sx={{ borderTop: `1px solid ${ink.line}`, pt: 4, display: "grid", gap: 3 }}
  >
    <Box>
      <Box sx={{ fontWeight: 650 }}>{title}</Box>
      {note && <Box sx={{ color: ink.ash, fontSize: 14 }}>{note}</Box>}
    </Box>
    {children}
  </Box>
);

/** A list of entries that can be added to and taken from. */
export function Rows<T>({
  rows,
  fresh,
  add,
  onRows,
  children,
}: {
  rows: T[];
  fresh: T;
  add: string;
  onRows: (rows: T[]) => void;
  children: (row: T, change: (row: T) => void, i: number) => ReactNode;
}) {
  return (
    <>
      {rows.map((row, i) => (
        <Box key={i} sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
          {children(row, (next) => onRows(rows.map((r, k) => (k === i ? next : r))), i)}
          <IconButton
            aria-label={`Take away: ${add.toLowerCase()} ${i + 1}`}
            onClick={() => onRows(rows.filter((_, k) => k !== i))}
          >
            <Close fontSize="small" />
          </IconButton>
        </Box>
      ))}
      <Box>
        <Button startIcon={<Add />} onClick={() => onRows([...rows, fresh])}>
          {add}
        </Button>
      </Box>
    </>
  );
}
