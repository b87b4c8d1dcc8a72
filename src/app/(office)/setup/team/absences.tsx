"use client";
import { clock, dateWords } from "@/core/time/words";
import { AddressField, type FoundAddress } from "@/ui/address-field";
import { DateField } from "@/ui/date-field";
import { Field, TimeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import Typography from "@mui/material/Typography";
import { useSnackbar } from "notistack";
import { type ReactNode, useState } from "react";
import type { SetupData } from "../data";

type Technician = SetupData["technicians"][number];
interface About {
  technician: Technician;
  today: string;
  saved: () => void;
}

/** What takes a technician's time: days and hours off, other hours on a date, errands. */
export function Absences(about: About) {
  return (
    <>
      <TimeOff {...about} />
      <DayHours {...about} />
      <Errands {...about} />
    </>
  );
}

function useFreedNote() {
  const { enqueueSnackbar } = useSnackbar();
  return (what: string, freed: number) =>
    enqueueSnackbar(
      freed
        ? `${what} is saved. ${freed} ${freed === 1 ? "visit waits" : "visits wait"} in the tray for somebody else.`
        : `${what} is saved`,
      { variant: freed ? "warning" : "success" },
    );
}

function Section({
  title,
  entries,
  children,
}: {
  title: string;
  entries: { key: string | number; words: string; remove: () => void }[];
  children: ReactNode;
}) {
  return (
    <Box component="section" aria-label={title} sx={{ mt: 8 }}>
      <Typography variant="h3" sx={{ mb: 2 }}>
        {title}
      </Typography>
      {entries.map(({ key, words, remove }) => (
        <Box key={key} sx={{ display: "flex", alignItems: "center", py: 1, borderTop: `1px solid ${ink.line}` }}>
          <Box sx={{ flex: 1 }}>{words}</Box>
          <Button size="small" onClick={remove} aria-label={`Remove ${words}`}>
            Remove
          </Button>
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 2, mt: 2, alignItems: "flex-start", flexWrap: "wrap" }}>{children}</Box>
    </Box>
  );
}

const addButton = { height: 40, flex: "none" };

function TimeOff({ technician, today, saved }: About) {
  const [first, setFirst] = useState(today);
  const [last, setLast] = useState(today);
  const [reason, setReason] = useState("Ill");
  const [hours, setHours] = useState<{ fromMinute: number; toMinute: number } | null>(null);
  const add = useChange("record-time-off");
  const remove = useChange("remove-time-off", { then: saved });
  const note = useFreedNote();
  const record = async () => {
    const done = await add.send({ technicianId: technician.id, firstDate: first, lastDate: last, reason, ...hours });
    if (!done) return;
    note(reason, done.value.freed);
    saved();
  };
  const words = (o: Technician["timeOff"][number]) =>
    `${o.reason}: ${dateWords(o.first_date)}${o.last_date === o.first_date ? "" : ` to ${dateWords(o.last_date)}`}${o.from_minute === null ? "" : `, ${clock(o.from_minute)} to ${clock(o.to_minute!)}`}`;
  return (
    <Section
      title="Time off"
      entries={technician.timeOff.map((o) => ({
        key: o.id,
        words: words(o),
        remove: () => void remove.send({ id: o.id }),
      }))}
    >
      <DateField
        label="First day"
        value={first}
        onValue={(day) => day && setFirst(day)}
        wrong={add.wrong("/firstDate")}
        width={170}
      />
      <DateField
        label="Last day"
        value={last}
        onValue={(day) => day && setLast(day)}
        wrong={add.wrong("/lastDate")}
        width={170}
      />
      <Field
        label="Reason"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        wrong={add.wrong("/reason")}
        sx={{ width: 160 }}
      />
      <FormControlLabel
        control={
          <Switch
            checked={hours !== null}
            onChange={(e) => setHours(e.target.checked ? { fromMinute: 780, toMinute: 1020 } : null)}
          />
        }
        label="Some hours only"
      />
      {hours && (
        <TimeField
          label="Off from"
          value={hours.fromMinute}
          onValue={(fromMinute) => setHours({ ...hours, fromMinute })}
          sx={{ width: 110 }}
        />
      )}
      {hours && (
        <TimeField
          label="Off to"
          value={hours.toMinute}
          onValue={(toMinute) => setHours({ ...hours, toMinute })}
          wrong={add.wrong("/toMinute")}
          sx={{ width: 110 }}
        />
      )}
      <Button variant="outlined" disabled={add.busy} onClick={() => void record()} sx={addButton}>
        Add time off
      </Button>
    </Section>
  );
}

function DayHours({ technician, today, saved }: About) {
  const [date, setDate] = useState(today);
  const [opens, setOpens] = useState(480);
  const [closes, setCloses] = useState(780);
  const change = useChange("set-day-hours");
  const note = useFreedNote();
  const save = async (on: string, spans: { opens: number; closes: number }[] | null) => {
    const done = await change.send({ technicianId: technician.id, date: on, spans });
    if (!done) return;
    note(spans ? `The hours on ${dateWords(on)}` : "The usual week", done.value.freed);
    saved();
  };
  const dates = [...new Set(technician.dayHours.map((h) => h.date))];
  const spansOn = (on: string) => technician.dayHours.filter((h) => h.date === on);
  return (
    <Section
      title="Other hours on one day"
      entries={dates.map((on) => ({
        key: on,
        words: `${dateWords(on)}: ${spansOn(on)
          .map((h) => `${clock(h.opens)} to ${clock(h.closes)}`)
          .join(", ")}`,
        remove: () => void save(on, null),
      }))}
    >
      <DateField
        label="Day"
        value={date}
        onValue={(day) => day && setDate(day)}
        wrong={change.wrong("/date")}
        width={170}
      />
      <TimeField label="Works from" value={opens} onValue={setOpens} sx={{ width: 110 }} />
      <TimeField
        label="Works to"
        value={closes}
        onValue={setCloses}
        wrong={change.wrong("/spans/0") ?? change.wrong(`/spans/${spansOn(date).length}`)}
        sx={{ width: 110 }}
      />
      <Button
        variant="outlined"
        disabled={change.busy}
        onClick={() =>
          void save(
            date,
            [...spansOn(date).map((h) => ({ opens: h.opens, closes: h.closes })), { opens, closes }].sort(
              (a, b) => a.opens - b.opens,
            ),
          )
        }
        sx={addButton}
      >
        Add hours
      </Button>
    </Section>
  );
}

function Errands({ technician, today, saved }: About) {
  const [date, setDate] = useState(today);
  const [fromMinute, setFrom] = useState(720);
  const [toMinute, setTo] = useState(780);
  const [title, setTitle] = useState("");
  const [address, setAddress] = useState<FoundAddress | null>(null);
  const add = useChange("record-errand");
  const remove = useChange("remove-errand", { then: saved });
  const note = useFreedNote();
  const record = async () => {
    const done = await add.send({
      technicianId: technician.id,
      date,
      fromMinute,
      toMinute,
      title,
      addressId: address?.id ?? null,
    });
    if (!done) return;
    note(title, done.value.freed);
    setTitle("");
    saved();
  };
  return (
    <Section
      title="Errands"
      entries={technician.errands.map((e) => ({
        key: e.id,
        words: `${e.title}: ${dateWords(e.date)}, ${clock(e.from)} to ${clock(e.to)}${e.place ? `, ${e.place}` : ""}`,
        remove: () => void remove.send({ id: e.id }),
      }))}
    >
      <Field
        label="What"
        value={title}
        onChange={(e) => setTitle(e.target.value)}
        wrong={add.wrong("/title")}
        sx={{ width: 200 }}
      />
      <DateField
        label="Day"
        value={date}
        onValue={(day) => day && setDate(day)}
        wrong={add.wrong("/date")}
        width={170}
      />
      <TimeField label="From" value={fromMinute} onValue={setFrom} sx={{ width: 100 }} />
      <TimeField label="To" value={toMinute} onValue={setTo} wrong={add.wrong("/toMinute")} sx={{ width: 100 }} />
      <Box sx={{ width: 300 }}>
        <AddressField
          label="Where (if it matters)"
          value={address}
          onValue={setAddress}
          wrong={add.wrong("/addressId")}
        />
      </Box>
      <Button variant="outlined" disabled={add.busy} onClick={() => void record()} sx={addButton}>
        Add errand
      </Button>
    </Section>
  );
}
