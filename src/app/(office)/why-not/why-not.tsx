"use client";
import type { ViewInput, ViewOutput } from "@/api/client";
import { addDays } from "@/core/time/dates";
import { dayWords, durationWords } from "@/core/time/words";
import { AddressField, type FoundAddress } from "@/ui/address-field";
import { DateField } from "@/ui/date-field";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import LinearProgress from "@mui/material/LinearProgress";
import ListSubheader from "@mui/material/ListSubheader";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { type Explained } from "./data";
import { WindowsTable } from "./windows-table";

type Items = ViewInput<"why-not">["items"];

/** An address, a service and a day: every window, every technician, what stops it and what would open it. */
export function WhyNot({
  choices,
  serviceId: asked,
  date: askedDate,
}: {
  choices: ViewOutput<"why-not-choices">;
  serviceId: number | null;
  date: string | null;
}) {
  const [address, setAddress] = useState<FoundAddress | null>(choices.address);
  const [items, setItems] = useState<Items>(() => {
    const first = asked ?? choices.services[0]?.id;
    return first === undefined ? [] : [{ serviceId: first }];
  });
  const [date, setDate] = useState(askedDate ?? addDays(choices.today, 1));
  const [wish, setWish] = useState<{ technicianId: number | null; only: boolean }>({ technicianId: null, only: false });
  const [main] = items;
  const question = address && main ? { addressId: address.id, items, date, ...wish } : null;
  const { data, problem } = useLive("why-not", question);

  return (
    <Box sx={{ px: 6, pb: 8 }}>
      <Box
        component="form"
        onSubmit={(e) => e.preventDefault()}
        sx={{
          display: "grid",
          gridTemplateColumns: "minmax(220px, 2fr) minmax(180px, 1.5fr) 180px minmax(200px, 1fr)",
          gap: 3,
          py: 3,
          alignItems: "start",
        }}
      >
        <AddressField label="Address" value={address} onValue={setAddress} />
        <TextField
          select
          label="Service"
          value={main ? (main.patternId ? `pattern ${main.patternId}` : `service ${main.serviceId}`) : ""}
          onChange={(e) => {
            const [kind, id] = e.target.value.split(" ");
            const pattern = kind === "pattern" && choices.patterns.find((one) => one.id === Number(id));
            setItems(pattern ? pattern.items : [{ serviceId: Number(id) }]);
          }}
        >
          {choices.patterns.length > 0 && <ListSubheader>Job patterns</ListSubheader>}
          {choices.patterns.map(({ id, name }) => (
            <MenuItem key={`pattern ${id}`} value={`pattern ${id}`}>
              {name}
            </MenuItem>
          ))}
          {choices.patterns.length > 0 && <ListSubheader>Services</ListSubheader>}
          {choices.services.map((s) => (
            <MenuItem key={`service ${s.id}`} value={`service ${s.id}`}>
              {s.name}
            </MenuItem>
          ))}
        </TextField>
        <DateField label="Day" value={date} onValue={(day) => day && setDate(day)} />
        <TextField
          select
          label="Who"
          value={`${wish.technicianId ?? ""} ${wish.only}`}
          onChange={(e) => setWish(wishOf(e.target.value))}
        >
          <MenuItem value=" false">Anybody</MenuItem>
          {choices.technicians.flatMap(({ id, name }) => [
            <MenuItem key={id} value={`${id} false`}>
              Rather {name}
            </MenuItem>,
            <MenuItem key={`${id} only`} value={`${id} true`}>
              Only {name}
            </MenuItem>,
          ])}
        </TextField>
      </Box>
      {!question && (
        <Typography sx={{ color: ink.ash, py: 6 }}>
          {choices.services.length
            ? "Choose an address to begin with: type the beginning of its street."
            : "There are no services yet. Add one under Set-up."}
        </Typography>
      )}
      {question && !data && !problem && <LinearProgress aria-label="Computing" />}
      {problem && (
        <Typography role="alert" sx={{ color: ink.ember, py: 4 }}>
          {problem.sentence}
        </Typography>
      )}
      {data && (
        <>
          <Typography sx={{ mb: 4 }}>{summary(data, date)}</Typography>
          {data.windows.length ? (
            <WindowsTable
              data={data}
              date={date}
              asked={{
                work: {
                  addressId: question!.addressId,
                  items: question!.items,
                  technicianId: wish.technicianId,
                },
                questions: choices.services.find((s) => s.id === main?.serviceId)?.questions ?? [],
                answers: main?.answers ?? {},
                currency: choices.currency,
                customer: choices.customer,
                onAnswers: (answers) => setItems(items.map((item, i) => (i === 0 ? { ...item, answers } : item))),
              }}
            />
          ) : (
            <Typography sx={{ color: ink.ash }}>
              {data.mode === "ask"
                ? "Customers are asked what suits them; no windows are shown for this service."
                : "The window pattern has no window on this day."}
            </Typography>
          )}
        </>
      )}
    </Box>
  );
}

const wishOf = (value: string): { technicianId: number | null; only: boolean } => {
  const [id, only] = value.split(" ");
  return { technicianId: id ? Number(id) : null, only: only === "true" };
};

function summary({ zone, service, windows }: Explained, date: string): string {
  const open = windows.filter((w) => w.offered).length;
  const length = service.before + service.minutes + service.after;
  const work = `${service.name} takes ${durationWords(length)}${service.before || service.after ? " with what comes before and after" : ""}${service.crew > 1 ? ` and ${service.crew} people` : ""}${service.days > 1 ? ` on each of ${service.days} days` : ""}.`;
  return `${dayWords(date)}: ${open} of ${windows.length} windows can be promised ${zone ? `in ${zone}` : "at this address, which lies in no zone"}. ${work}`;
}
