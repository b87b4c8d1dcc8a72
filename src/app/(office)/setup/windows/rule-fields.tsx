"use client";
import { type RepeatEvery, ruleWords } from "@/core/repeats/rule";
import { weekdayNames } from "@/core/time/words";
import type { Capacity } from "@/core/windows/offers";
import type { PatternPart } from "@/core/windows/patterns";
import { Columns, OptionalWholeField, TimeField, WeekdaysField, WholeField } from "@/ui/form-parts";
import { useHabits, weekdaysFrom } from "@/ui/habits";
import { ink } from "@/ui/palette";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { SetupData } from "../data";

type Wrong = (path: string) => string | undefined;

/** Fields that several forms of set-up share: windows, limits, hours, named technicians, capacity. */
const kinds: Record<PatternPart["kind"], string> = {
  window: "One window",
  stepping: "Overlapping windows",
  exact: "Exact times",
  continuous: "Right after the visit before",
};

const partOf = (kind: PatternPart["kind"], { weekdays, from, to }: PatternPart): PatternPart => {
  const part = { weekdays, from, to };
  switch (kind) {
    case "stepping":
      return { kind, ...part, length: 120, step: 30 };
    case "exact":
      return { kind, ...part, step: 60 };
    default:
      return { kind, ...part };
  }
};

export function PatternField({
  parts,
  onParts,
  wrong,
}: {
  parts: PatternPart[];
  onParts: (parts: PatternPart[]) => void;
  wrong: Wrong;
}) {
  const set = (at: number, part: PatternPart) => onParts(parts.map((p, i) => (i === at ? part : p)));
  const last = parts.at(-1);
  return (
    <Box role="group" aria-label="Windows">
      {parts.map((part, at) => (
        <Box key={at} sx={{ py: 2, borderTop: `1px solid ${ink.line}` }}>
          <Box sx={{ display: "flex", gap: 3, alignItems: "flex-end", flexWrap: "wrap" }}>
            <TextField
              select
              label="Kind"
              value={part.kind}
              onChange={(e) => set(at, partOf(e.target.value as PatternPart["kind"], part))}
              sx={{ width: 220 }}
            >
              {Object.entries(kinds).map(([kind, words]) => (
                <MenuItem key={kind} value={kind}>
                  {words}
                </MenuItem>
              ))}
            </TextField>
            <TimeField
              label={part.kind === "exact" ? "First" : "From"}
              value={part.from}
              onValue={(from) => set(at, { ...part, from })}
              sx={{ width: 100 }}
            />
            <TimeField
              label={part.kind === "exact" ? "Last" : "To"}
              value={part.to}
              onValue={(to) => set(at, { ...part, to })}
              sx={{ width: 100 }}
            />
            {part.kind === "stepping" && (
              <WholeField
                label="Minutes long"
                value={part.length}
                onValue={(length) => set(at, { ...part, length })}
                sx={{ width: 120 }}
                wrong={wrong(`/windows/${at}/length`)}
              />
            )}
            {(part.kind === "stepping" || part.kind === "exact") && (
              <WholeField
                label="Every, minutes"
                value={part.step}
                onValue={(step) => set(at, { ...part, step })}
                sx={{ width: 130 }}
                wrong={wrong(`/windows/${at}/step`)}
              />
            )}
            <WeekdaysField
              label="On"
              value={part.weekdays}
              onValue={(weekdays) => set(at, { ...part, weekdays })}
              wrong={wrong(`/windows/${at}/weekdays`)}
            />
            <IconButton aria-label="Remove this window" onClick={() => onParts(parts.filter((_, i) => i !== at))}>
              <Close fontSize="small" />
            </IconButton>
          </Box>
          {wrong(`/windows/${at}`) && (
            <Box sx={{ color: "error.main", fontSize: 13, mt: 1 }}>{wrong(`/windows/${at}`)}</Box>
          )}
        </Box>
      ))}
      <Button
        startIcon={<Add />}
        onClick={() =>
          onParts([
            ...parts,
            {
              kind: "window",
              weekdays: last?.weekdays ?? 31,
              from: last ? Math.min(1320, last.to) : 540,
              to: last ? Math.min(1440, last.to + 120) : 660,
            },
          ])
        }
      >
        Window
      </Button>
      {wrong("/windows") && <Box sx={{ color: "error.main", fontSize: 13 }}>{wrong("/windows")}</Box>}
    </Box>
  );
}

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

export type WeeklyHours = { weekday: number; opens: number; closes: number }[];

/** Spans for each day of the week. */
export function HoursField({
  title,
  hours,
  onHours,
  wrong,
}: {
  title: string;
  hours: WeeklyHours;
  onHours: (hours: WeeklyHours) => void;
  wrong: Wrong;
}) {
  const { weekStart } = useHabits();
  const set = (at: number, change: Partial<WeeklyHours[number]>) =>
    onHours(hours.map((h, i) => (i === at ? { ...h, ...change } : h)));
  return (
    <Box role="group" aria-label={title}>
      <Typography variant="h3" sx={{ mb: 2 }}>
        {title}
      </Typography>
      {weekdaysFrom(weekStart)
        .map((weekday) => ({ weekday, day: weekdayNames[weekday]! }))
        .map(({ day, weekday }) => (
          <Box
            key={day}
            sx={{
              display: "flex",
              gap: 3,
              py: 1.5,
              borderTop: `1px solid ${ink.line}`,
              alignItems: "flex-start",
              minHeight: 52,
            }}
          >
            <Box sx={{ width: 100, pt: 2 }}>{day}</Box>
            <Box sx={{ flex: 1, display: "grid", gap: 2 }}>
              {hours.map(
                (span, at) =>
                  span.weekday === weekday && (
                    <Box key={at}>
                      <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
                        <TimeField
                          label={`${day} from`}
                          value={span.opens}
                          onValue={(opens) => set(at, { opens })}
                          sx={{ width: 140 }}
                        />
                        <TimeField
                          label={`${day} to`}
                          value={span.closes}
                          onValue={(closes) => set(at, { closes })}
                          sx={{ width: 140 }}
                        />
                        <IconButton
                          aria-label={`Remove this span of ${day}`}
                          onClick={() => onHours(hours.filter((_, i) => i !== at))}
                        >
                          <Close fontSize="small" />
                        </IconButton>
                      </Box>
                      {(wrong(`/hours/${at}`) ?? wrong(`/hours/${at}/opens`) ?? wrong(`/hours/${at}/closes`)) && (
                        <Box sx={{ color: "error.main", fontSize: 13 }}>
                          {wrong(`/hours/${at}`) ?? "A time, such as 9:00"}
                        </Box>
                      )}
                    </Box>
                  ),
              )}
            </Box>
            <Button
              size="small"
              startIcon={<Add />}
              aria-label={`Add a span to ${day}`}
              onClick={() => onHours([...hours, { weekday, ...nextSpan(hours.filter((h) => h.weekday === weekday)) }])}
            >
              Add hours
            </Button>
          </Box>
        ))}
    </Box>
  );
}

const nextSpan = (spans: { closes: number }[]) => {
  const from = spans.length ? Math.min(1320, Math.max(...spans.map((s) => s.closes)) + 30) : 480;
  return { opens: from, closes: Math.min(1440, from + 240) };
};

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
      getOptionLabel={ruleWords}
      isOptionEqualToValue={same}
      onChange={(_, chosen) => onRepeats(chosen)}
      renderInput={(params) => (
        <TextField {...params} label="Customers may have it come again" helperText="Nothing: only once" />
      )}
    />
  );
}
