"use client";
import Autocomplete from "@mui/material/Autocomplete";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { SetupData } from "../data";

/** Technicians by name; none chosen means everybody. */
export const TechniciansField = ({
  label,
  ids,
  onIds,
  data,
}: {
  label: string;
  ids: number[];
  onIds: (ids: number[]) => void;
  data: SetupData;
}) => <NamedField label={label} none="everybody with the skills" options={data.technicians} ids={ids} onIds={onIds} />;

/** A skill's level, 1 to 3. */
export function LevelField({
  name,
  level,
  onLevel,
}: {
  name: string;
  level: number;
  onLevel: (level: number) => void;
}) {
  return (
    <TextField
      select
      label="Level"
      value={level}
      onChange={(e) => onLevel(Number(e.target.value))}
      sx={{ width: 110 }}
      slotProps={{ htmlInput: { "aria-label": `Level of ${name}` } }}
    >
      {[1, 2, 3].map((n) => (
        <MenuItem key={n} value={n}>
          {n}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Names chosen from a list; none is all of them. */
export function NamedField({
  label,
  none,
  options,
  ids,
  onIds,
}: {
  label: string;
  none: string;
  options: readonly { id: number; name: string }[];
  ids: number[];
  onIds: (ids: number[]) => void;
}) {
  return (
    <Autocomplete
      multiple
      options={options.map((o) => o.id)}
      value={ids}
      onChange={(_, chosen) => onIds(chosen)}
      getOptionLabel={(id) => options.find((o) => o.id === id)?.name ?? "one that is gone"}
      renderInput={(params) => <TextField {...params} label={label} helperText={`None named: ${none}`} />}
    />
  );
}
