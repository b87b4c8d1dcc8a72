"use client";
import { type CustomerFilter, everybody, sameFilter, standardViews } from "@/core/customers/filter";
import { Field } from "@/ui/form-parts";
import { useLive } from "@/ui/live";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import FilterListOutlined from "@mui/icons-material/FilterListOutlined";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import ListSubheader from "@mui/material/ListSubheader";
import MenuItem from "@mui/material/MenuItem";
import Popover from "@mui/material/Popover";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { useOffice } from "../office-context";

interface Filtering {
  filter: CustomerFilter;
  onFilter: (filter: CustomerFilter) => void;
}

/** Which customers are shown: a view that is always there or was saved, or a filter made here. */
export function FilterBar({ filter, onFilter }: Filtering) {
  const { data: choices } = useLive("customer-choices", {});
  const { permissions } = useOffice().person;
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const standard = standardViews.filter((view) => !view.filter.openMoney || permissions.includes("money.see"));
  const saved = choices?.views ?? [];
  const all = [...standard, ...saved];
  const shown = all.find((view) => sameFilter({ ...everybody, ...view.filter }, filter));
  return (
    <>
      <TextField
        select
        size="small"
        label="View"
        value={shown?.name ?? ""}
        onChange={(e) => {
          const view = all.find(({ name }) => name === e.target.value);
          if (view) onFilter({ ...everybody, ...view.filter });
        }}
        sx={{ width: 200 }}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        {!shown && <MenuItem value="">as filtered</MenuItem>}
        {standard.map(({ name }) => (
          <MenuItem key={name} value={name}>
            {name}
          </MenuItem>
        ))}
        {saved.length > 0 && <ListSubheader>Saved</ListSubheader>}
        {saved.map(({ id, name }) => (
          <MenuItem key={id} value={name}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <Button
        size="small"
        startIcon={<FilterListOutlined />}
        aria-haspopup="dialog"
        onClick={(e) => setAnchor(e.currentTarget)}
      >
        Filter
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: "bottom", horizontal: "left" }}
        slotProps={{ paper: { role: "dialog", "aria-label": "Filter", sx: { p: 4, width: 360 } } }}
      >
        <FilterFields filter={filter} onFilter={onFilter} />
        <SavedView filter={filter} view={saved.find(({ name }) => name === shown?.name) ?? null} fixed={!!shown} />
      </Popover>
    </>
  );
}

/** Days without a visit that one can choose. */
const lengths = [90, 180, 365, 550, 730] as const;

function FilterFields({ filter, onFilter }: Filtering) {
  const { data: choices } = useLive("customer-choices", {});
  const seesMoney = useOffice().person.permissions.includes("money.see");
  const set = (change: Partial<CustomerFilter>) => onFilter({ ...filter, ...change });
  const choose = (
    label: string,
    value: string | number | null,
    options: { value: string | number; words: string }[],
    put: (value: string) => void,
  ) => (
    <TextField select size="small" label={label} value={value ?? ""} onChange={(e) => put(e.target.value)}>
      <MenuItem value="">all</MenuItem>
      {options.map((option) => (
        <MenuItem key={option.value} value={option.value}>
          {option.words}
        </MenuItem>
      ))}
    </TextField>
  );
  const tick = (label: string, name: "openMoney" | "noComing" | "archived") => (
    <FormControlLabel
      control={<Checkbox size="small" checked={filter[name]} onChange={(e) => set({ [name]: e.target.checked })} />}
      label={label}
    />
  );
  return (
    <Box sx={{ display: "grid", gap: 3 }}>
      {choose(
        "Zone",
        filter.zoneId,
        (choices?.zones ?? []).map(({ id, name }) => ({ value: id, words: name })),
        (value) => set({ zoneId: value ? Number(value) : null }),
      )}
      {choose(
        "Tag",
        filter.tag,
        (choices?.tags ?? []).map(({ tag, n }) => ({ value: tag, words: `${tag} (${n})` })),
        (value) => set({ tag: value || null }),
      )}
      {choose(
        "Source",
        filter.source,
        (choices?.sources ?? []).map(({ source, name }) => ({ value: source, words: name })),
        (value) => set({ source: value || null }),
      )}
      {choose(
        "No visit for",
        filter.noVisitDays,
        lengths.map((days) => ({
          value: days,
          words: days === 365 ? "a year" : days === 730 ? "two years" : `${days} days`,
        })),
        (value) => set({ noVisitDays: value ? Number(value) : null }),
      )}
      <Box sx={{ display: "grid" }}>
        {seesMoney && tick("Open money", "openMoney")}
        {tick("No coming visit", "noComing")}
        {tick("Archived ones instead", "archived")}
      </Box>
    </Box>
  );
}

/** Keeps what is filtered under a name, or takes a saved view away. */
function SavedView({
  filter,
  view,
  fixed,
}: {
  filter: CustomerFilter;
  view: { id: number; name: string; filter: CustomerFilter } | null;
  /** It is a view already. */
  fixed: boolean;
}) {
  const { permissions } = useOffice().person;
  const [name, setName] = useState("");
  const save = useChange("save-view", { then: () => setName("") });
  const remove = useChange("remove-view");
  const undoable = useUndo();
  if (!permissions.includes("customers.change") || !permissions.includes("visits.all")) return null;
  if (view)
    return (
      <Button
        size="small"
        disabled={remove.busy}
        sx={{ mt: 2 }}
        onClick={async () => {
          if (await remove.send({ viewId: view.id }))
            undoable(`The view “${view.name}” is removed`, () => save.send({ name: view.name, filter: view.filter }));
        }}
      >
        Remove the view “{view.name}”
      </Button>
    );
  if (fixed) return null;
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        void save.send({ name, filter });
      }}
      sx={{ display: "flex", gap: 2, mt: 3, alignItems: "start" }}
    >
      <Field
        size="small"
        label="Save as a view"
        value={name}
        onChange={(e) => setName(e.target.value)}
        wrong={save.wrong("/name")}
      />
      <Button type="submit" disabled={save.busy || !name.trim()} sx={{ height: 40 }}>
        Save
      </Button>
    </Box>
  );
}
