"use client";
import Box from "@mui/material/Box";
import Chip from "@mui/material/Chip";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { Outlooked, Which } from "./data";

const shown = [
  "all",
  "needs a person",
  "no room",
  "asked",
  "price review",
  "card expired",
  "technician left",
  "ended",
] as const;

/** Which repeats the list holds: by what they need, and by service, zone and technician. */
export function Filters({
  outlook,
  which,
  onWhich,
}: {
  outlook: Outlooked;
  which: Which;
  onWhich: (which: Which) => void;
}) {
  const choice = (
    label: string,
    name: "serviceId" | "zoneId" | "technicianId",
    all: { id: number; name: string }[],
  ) => (
    <TextField
      select
      size="small"
      label={label}
      value={which[name] ?? 0}
      onChange={(e) => onWhich({ ...which, [name]: Number(e.target.value) || null })}
      sx={{ width: 136 }}
    >
      <MenuItem value={0}>all</MenuItem>
      {all.map((one) => (
        <MenuItem key={one.id} value={one.id}>
          {one.name}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Box sx={{ px: 6, pb: 3, display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap" }}>
      <Box role="group" aria-label="Which repeats" sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", flex: 1 }}>
        {shown
          .filter((name) => name !== "technician left" || outlook.counts[name] > 0)
          .map((name) => (
            <Chip
              key={name}
              label={name === "all" ? "all" : `${name} ${outlook.counts[name]}`}
              aria-pressed={which.show === name}
              color={which.show === name ? "primary" : "default"}
              variant={which.show === name ? "filled" : "outlined"}
              onClick={() => onWhich({ ...which, show: name })}
            />
          ))}
      </Box>
      {choice("Service", "serviceId", outlook.services)}
      {choice("Zone", "zoneId", outlook.zones)}
      {choice(
        "Usually",
        "technicianId",
        outlook.technicians.map(({ id, name, hasLeft }) => ({ id, name: hasLeft ? `${name}, has left` : name })),
      )}
    </Box>
  );
}
