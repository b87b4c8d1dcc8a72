"use client";
import type { SpecialDay } from "@/core/time/opening";
import { clock, dateWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { Field, TimeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { usePromisesFirst } from "@/ui/use-promises-first";
import { useUndo } from "@/ui/use-undo";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useSnackbar } from "notistack";
import { useState } from "react";
import type { SetupData } from "../data";

type Day = SetupData["specialDays"][number];

export function SpecialDays({ data, saved }: { data: SetupData; saved: () => void }) {
  const [editing, setEditing] = useState<Day | "new" | null>(null);
  const remove = useChange("remove-special-day");
  const put = useChange("save-special-day", { then: saved });
  const sayWithUndo = useUndo();
  const takeAway = async (day: Day) => {
    if (!(await remove.send({ id: day.id }))) return;
    const { name, first, last, yearly, spans } = day;
    sayWithUndo(`${name} is an ordinary day again`, () => put.send({ id: null, name, first, last, yearly, spans }));
    saved();
  };
  return (
    <Box component="section" aria-label="Special days" sx={{ mt: 8 }}>
      <Typography variant="h2" sx={{ mb: 3 }}>
        Special days
      </Typography>
      {data.specialDays.length === 0 && (
        <Box sx={{ color: ink.ash, mb: 3 }}>
          Holidays, a summer break, a Saturday before the season: days that are closed or have other hours.
        </Box>
      )}
      {data.specialDays.map((day) =>
        editing !== "new" && editing?.id === day.id ? (
          <DayForm
            key={day.id}
            day={day}
            today={data.today}
            done={() => {
              setEditing(null);
              saved();
            }}
          />
        ) : (
          <DayRow key={day.id} day={day} change={() => setEditing(day)} remove={() => void takeAway(day)} />
        ),
      )}
      {editing === "new" ? (
        <DayForm
          day={null}
          today={data.today}
          done={() => {
            setEditing(null);
            saved();
          }}
        />
      ) : (
        <Button startIcon={<Add />} onClick={() => setEditing("new")} sx={{ mt: 2 }}>
          Special day
        </Button>
      )}
    </Box>
  );
}

export const spanWords = ({ first, last, yearly }: Pick<SpecialDay, "first" | "last" | "yearly">): string => {
  const short = (date: string) => (yearly ? dateWords(date).replace(/ \d{4}$/, "") : dateWords(date));
  return `${first === last ? short(first) : `${short(first)} to ${short(last)}`}${yearly ? ", every year" : ""}`;
};

function DayRow({ day, change, remove }: { day: Day; change: () => void; remove: () => void }) {
  const hours = day.spans.map((s) => `${clock(s.opens)} to ${clock(s.closes)}`).join(" and ");
  return (
    <Box sx={{ display: "flex", gap: 3, alignItems: "center", borderTop: `1px solid ${ink.line}`, py: 1.5 }}>
      <Box sx={{ flex: 1 }}>
        <b>{day.name}</b> {spanWords(day)}
        <Box sx={{ color: ink.ash, fontSize: 14 }}>
          {hours ? `open ${hours}` : "closed"}
          {day.promised > 0 && `, ${day.promised} promised ${day.promised === 1 ? "visit stays" : "visits stay"}`}
        </Box>
      </Box>
      <Button size="small" aria-label={`Change ${day.name}`} onClick={change}>
        Change
      </Button>
      <IconButton aria-label={`Remove ${day.name}`} onClick={remove}>
        <Close fontSize="small" />
      </IconButton>
    </Box>
  );
}

function DayForm({ day, today, done }: { day: Day | null; today: string; done: () => void }) {
  const [name, setName] = useState(day?.name ?? "");
  const [first, setFirst] = useState(day?.first ?? today);
  const [last, setLast] = useState(day?.last ?? today);
  const [yearly, setYearly] = useState(day?.yearly ?? false);
  const [spans, setSpans] = useState(day?.spans ?? []);
  const { send, busy, wrong } = useChange("save-special-day", { compares: true });
  const { enqueueSnackbar } = useSnackbar();
  const { asks, first: promisesFirst, settle } = usePromisesFirst();
  const save = async () => {
    const typed = { id: day?.id ?? null, name, first, last, yearly, spans };
    const settled = await promisesFirst("save-special-day", typed);
    if (!settled) return;
    const saved = await send(typed);
    if (!saved) return;
    await settle(settled);
    const { promised } = saved.value;
    enqueueSnackbar(
      promised
        ? `${name} is saved. ${promised} ${promised === 1 ? "visit is promised then and stays" : "visits are promised then and stay"}: see the board.`
        : `${name} is saved`,
      { variant: promised ? "warning" : "success" },
    );
    done();
  };
  return (
    <Box
      role="group"
      aria-label={day ? `Change ${day.name}` : "New special day"}
      sx={{ borderTop: `1px solid ${ink.line}`, py: 3, display: "grid", gap: 3 }}
    >
      {asks}
      <Box sx={{ display: "flex", gap: 3, flexWrap: "wrap", alignItems: "flex-start" }}>
        <Field
          label="Called"
          value={name}
          onChange={(e) => setName(e.target.value)}
          wrong={wrong("/name")}
          sx={{ width: 240 }}
        />
        <DateField
          label="First day"
          value={first}
          onValue={(d) => d && (setFirst(d), last < d && setLast(d))}
          wrong={wrong("/first")}
          width={170}
        />
        <DateField label="Last day" value={last} onValue={(d) => d && setLast(d)} wrong={wrong("/last")} width={170} />
        <FormControlLabel
          control={<Checkbox checked={yearly} onChange={(e) => setYearly(e.target.checked)} />}
          label="Every year"
        />
      </Box>
      <Box sx={{ display: "flex", gap: 3, flexWrap: "wrap", alignItems: "flex-start" }}>
        <TextField
          select
          label="Then we are"
          value={spans.length ? "open" : "closed"}
          onChange={(e) => setSpans(e.target.value === "open" ? [{ opens: 540, closes: 720 }] : [])}
          sx={{ width: 200 }}
        >
          <MenuItem value="closed">closed</MenuItem>
          <MenuItem value="open">open at other hours</MenuItem>
        </TextField>
        {spans.map((span, at) => (
          <Box key={at} sx={{ display: "flex", gap: 1 }}>
            <TimeField
              label="From"
              value={span.opens}
              onValue={(opens) => setSpans(spans.map((s, i) => (i === at ? { ...s, opens } : s)))}
              wrong={wrong(`/spans/${at}`)}
              sx={{ width: 110 }}
            />
            <TimeField
              label="To"
              value={span.closes}
              after={span.opens}
              onValue={(closes) => setSpans(spans.map((s, i) => (i === at ? { ...s, closes } : s)))}
              sx={{ width: 110 }}
            />
          </Box>
        ))}
        {spans.length > 0 && (
          <Button
            onClick={() =>
              setSpans([
                ...spans,
                {
                  opens: Math.min(1380, spans.at(-1)!.closes + 60),
                  closes: Math.min(1440, spans.at(-1)!.closes + 240),
                },
              ])
            }
          >
            Add hours
          </Button>
        )}
      </Box>
      <Box sx={{ display: "flex", gap: 2 }}>
        <Button variant="contained" disabled={busy} onClick={() => void save()}>
          Save the day
        </Button>
        <Button onClick={done}>Leave it</Button>
      </Box>
    </Box>
  );
}
