"use client";
import { type RepeatEvery, everyWords } from "@/core/repeats/rule";
import type { Capacity } from "@/core/windows/question";
import { Columns, OptionalWholeField } from "@/ui/form-parts";
import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import type { SetupData } from "../data";

export type Wrong = (path: string) => string | undefined;

export const capacityWords: Record<Capacity["mode"], { name: string; about: string }> = {
  route: { name: "By route", about: "Windows that somebody with the skills can really reach." },
  count: { name: "By count", about: "A number of visits per window; fewer when somebody is off." },
  open: { name: "Open", about: "Every window, always. Somebody works out later who comes." },
  ask: { name: "Ask first", about: "No windows are shown: customers write what suits them, and a person answers." },
};

export type LimitValues = SetupData["rules"]["limits"];

/** Most visits per window, day and week; empty where there is no limit. */
export function LimitsField({
  limits,
  onLimits,
  wrong,
  what = "Most visits",
}: {
  limits: LimitValues;
  onLimits: (limits: LimitValues) => void;
  wrong: Wrong;
  what?: string;
}) {
  return (
    <Columns>
      {(["window", "day", "week"] as const).map((per) => (
        <OptionalWholeField
          key={per}
          label={`${what} per ${per}`}
          value={limits[per]}
          onValue={(most) => onLimits({ ...limits, [per]: most })}
          wrong={wrong(`/limits/${per}`)}
          helperText="Empty: no limit"
        />
      ))}
    </Columns>
  );
}

/** How often customers may have it come again, by themselves. */
export function RepeatsField({
  repeats,
  onRepeats,
}: {
  repeats: RepeatEvery[];
  onRepeats: (repeats: RepeatEvery[]) => void;
}) {
  const usual: RepeatEvery[] = [
    { every: 1, unit: "week" },
    { every: 2, unit: "week" },
    { every: 4, unit: "week" },
    { every: 1, unit: "month" },
    { every: 3, unit: "month" },
    { every: 6, unit: "month" },
    { every: 1, unit: "year" },
    { every: 2, unit: "year" },
  ];
  const same = (a: RepeatEvery, b: RepeatEvery) => a.every === b.every && a.unit === b.unit;
  const options = [...usual, ...repeats.filter((r) => !usual.some((u) => same(u, r)))];
  return (
    <Autocomplete
      multiple
      options={options}
      value={repeats}
      getOptionLabel={everyWords}
      isOptionEqualToValue={same}
      onChange={(_, chosen) => onRepeats(chosen)}
      renderInput={(params) => (
        <TextField {...params} label="Customers may have it come again" helperText="Nothing: only once" />
      )}
    />
  );
}
