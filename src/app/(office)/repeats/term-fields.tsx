"use client";
import { canCountFromVisits, type Counted } from "@/core/repeats/counted";
import { type Comes, comesWords, waysToCome } from "@/core/repeats/flexible";
import type { Recurrence } from "@/core/repeats/recurrence";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";

/** Fields in which a repeat is agreed and changed. */

export const ComesField = ({ value, onValue }: { value: Comes; onValue: (comes: Comes) => void }) => (
  <TextField select label="It comes" value={value} onChange={(e) => onValue(e.target.value as Comes)}>
    {waysToCome.map((way) => (
      <MenuItem key={way} value={way}>
        {comesWords[way]}
      </MenuItem>
    ))}
  </TextField>
);

/** From what dates are counted; only where the rule can be counted from a visit. */
export const CountedField = ({
  rule,
  value,
  onValue,
  wrong,
}: {
  rule: Recurrence | null;
  value: Counted;
  onValue: (counted: Counted) => void;
  wrong?: string;
}) =>
  rule &&
  canCountFromVisits(rule) && (
    <TextField
      select
      label="Counted"
      value={value}
      onChange={(e) => onValue(e.target.value as Counted)}
      error={!!wrong}
      helperText={wrong}
    >
      <MenuItem value="calendar">by the calendar</MenuItem>
      <MenuItem value="done">from the last visit that was done</MenuItem>
    </TextField>
  );

export const TechnicianField = ({
  technicians,
  none = "whoever is near",
  value,
  onValue,
}: {
  technicians: readonly { id: number; name: string }[];
  /** Where nobody is named. */
  none?: string;
  value: number | null;
  onValue: (technicianId: number | null) => void;
}) => (
  <TextField select label="Technician" value={value ?? 0} onChange={(e) => onValue(Number(e.target.value) || null)}>
    <MenuItem value={0}>{none}</MenuItem>
    {technicians.map((t) => (
      <MenuItem key={t.id} value={t.id}>
        {t.name}, if they can
      </MenuItem>
    ))}
  </TextField>
);

/** A form that opens beneath what it changes: fields, what it will do, and one button. */
export const OpenedForm = ({
  says,
  words = "Do this",
  disabled,
  onDo,
  children,
}: {
  /** What will be changed, before it is. */
  says: ReactNode;
  words?: string;
  disabled: boolean;
  onDo: () => void;
  children: ReactNode;
}) => (
  <Box sx={{ mt: 3, p: 3, bgcolor: ink.plaster, borderRadius: "6px" }}>
    <Stack spacing={3}>
      {children}
      {says && (
        <Box role="status" sx={{ fontSize: 14.5 }}>
          {says}
        </Box>
      )}
      <Button variant="contained" disabled={disabled} onClick={onDo} sx={{ alignSelf: "flex-start" }}>
        {words}
      </Button>
    </Stack>
  </Box>
);
