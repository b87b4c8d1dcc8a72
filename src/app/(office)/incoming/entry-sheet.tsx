"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { dayWords, durationWords } from "@/core/time/words";
import { AddressField } from "@/ui/address-field";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { Photos } from "@/ui/photos";
import { Fact, SheetSection, SideSheet } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Entry } from "./data";
import { DeclineForm } from "./decline-form";
import { QuoteForm } from "./quote-form";
import { Windows } from "./windows";

type View = ViewOutput<"incoming">;

interface EntrySheetProps {
  entry: Pick<Entry, "kind" | "id">;
  view: View;
  onClose: () => void;
  /** It does not wait any more. */
  onDone: (words: string) => void;
}

/** One that waits: all that was said, the best windows with who would come, and what to do about it. */
export function EntrySheet({ entry, view, onClose, onDone }: EntrySheetProps) {
  const [serviceId, setServiceId] = useState<number | null>(null);
  const [option, setOption] = useState(0);
  const [date, setDate] = useState<string | null>(null);
  const { data, problem } = useLive("incoming-entry", {
    kind: entry.kind,
    id: entry.id,
    ...(serviceId !== null && { serviceId }),
    option,
    date,
  });
  const name = data?.name ?? "";
  const approve = useChange("approve-bookings", { then: () => onDone(`${name} is confirmed and told`) });
  const answer = useChange("answer-requests", { then: () => onDone(`The request of ${name} is answered`) });
  const takeOn = useChange("take-on");
  const locate = useChange("locate-request");
  const putAway = useChange("put-away-quotes", { then: () => onDone(`The quote to ${name} is put away`) });
  const [open, setOpen] = useState<"decline" | "quote" | null>(null);
  const toggle = (what: typeof open) => setOpen(open === what ? null : what);
  if (!data)
    return (
      <SideSheet title={problem ? "It does not wait any more" : "…"} onClose={onClose}>
        {problem ? <Alert severity="warning">{problem.sentence}</Alert> : <Skeleton variant="rounded" height={280} />}
      </SideSheet>
    );
  const amount = (minor: number) => moneyWords(minor, view.currency);
  const self = { kind: entry.kind, id: entry.id };
  const quoted = data.kind === "quote";
  const over = data.standing === "over";
  return (
    <SideSheet title={data.name} onClose={onClose} width={open === "quote" ? 560 : 430}>
      {quoted && (
        <Fact name="Quote">
          {data.id}, {data.waits}
        </Fact>
      )}
      <Fact name="What">
        {data.what}
        {data.minutes !== null && `, ${durationWords(data.minutes)}`}
        {data.totalMinor !== null && (
          <>
            , <b>{amount(data.totalMinor)}</b>
          </>
        )}
      </Fact>
      <Fact name="Where">{data.where}</Fact>
      <Fact name="Reach them">
        <a href={`tel:${data.phone.replace(/[^\d+]/g, "")}`}>{data.phone}</a>
        <br />
        <a href={`mailto:${data.mail}`}>{data.mail}</a>
      </Fact>
      {data.chosen && (
        <Fact name="Chosen">
          <LinkBox href={`/board?date=${data.chosen.date}&visit=${data.chosen.visit}`}>
            {dayWords(data.chosen.date)}, {data.chosen.words}
          </LinkBox>
          , pencilled in for {data.chosen.technicians.join(" and ") || "nobody"}
        </Fact>
      )}
      {data.lines.map((line, i) => (
        <Fact key={i} name={i === 0 ? "Lines" : ""}>
          <Box sx={{ display: "flex", justifyContent: "space-between", gap: 2 }}>
            <span>
              {line.description}
              {line.quantity !== 1 && ` × ${line.quantity}`}
            </span>
            <span>{amount(line.amountMinor)}</span>
          </Box>
        </Fact>
      ))}
      {data.wish && <Fact name="Would suit">{data.wish}</Fact>}
      {data.words && (
        <Fact name="They say">
          <span style={{ whiteSpace: "pre-wrap" }}>{data.words}</span>
        </Fact>
      )}
      {data.answers.map((a, i) => (
        <Fact key={i} name="Asked">
          {a.question} <b>{a.words}</b>
          <Photos tokens={a.photos} />
        </Fact>
      ))}
      {data.photos.length > 0 && (
        <Fact name="Photos">
          <Photos tokens={data.photos} size={96} />
        </Fact>
      )}
      <Fact name="On it">
        <TextField
          select
          size="small"
          value={data.handlerId ?? 0}
          onChange={(e) => void takeOn.send({ entries: [self], personId: Number(e.target.value) || null })}
          slotProps={{ htmlInput: { "aria-label": "Who is on it" } }}
          sx={{ maxWidth: 220 }}
        >
          <MenuItem value={0}>nobody</MenuItem>
          {view.people.map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.id === view.meId ? `${p.name} (me)` : p.name}
            </MenuItem>
          ))}
        </TextField>
      </Fact>
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", mt: 4 }}>
        {data.kind === "booking" && (
          <Button variant="contained" disabled={approve.busy} onClick={() => void approve.send({ jobIds: [data.id] })}>
            Confirm and tell them
          </Button>
        )}
        {data.kind === "request" && (
          <Button variant="outlined" disabled={answer.busy} onClick={() => void answer.send({ ids: [data.id] })}>
            Answered by phone
          </Button>
        )}
        {over && (
          <Button variant="outlined" disabled={putAway.busy} onClick={() => void putAway.send({ ids: [data.id] })}>
            Put it away
          </Button>
        )}
        {data.needs !== "place" && (
          <Button variant="outlined" aria-expanded={open === "quote"} onClick={() => toggle("quote")}>
            {quoted ? "Change the quote…" : "Make it a quote…"}
          </Button>
        )}
        {!over && (
          <Button aria-expanded={open === "decline"} onClick={() => toggle("decline")}>
            {quoted ? "Take it back…" : "Decline…"}
          </Button>
        )}
      </Box>
      {open === "decline" && (
        <Box sx={{ mt: 3 }}>
          <DeclineForm entries={[self]} onDone={() => onDone(`${data.name} is told`)} />
        </Box>
      )}
      {open === "quote" && (
        <Box sx={{ mt: 4 }}>
          <QuoteForm about={self} name={data.name} onSent={() => onDone(`${data.name} gets it by email and text`)} />
        </Box>
      )}
      {open !== "quote" && data.needs === "place" && (
        <SheetSection title="Where is it?">
          <AddressField
            label="Address"
            value={null}
            onValue={(address) => address && void locate.send({ requestId: data.id, addressId: address.id })}
          />
        </SheetSection>
      )}
      {open !== "quote" && data.services.length > 0 && data.needs !== "place" && (
        <SheetSection title="What would we do there?">
          <TextField
            select
            label="Service"
            value={serviceId ?? ""}
            onChange={(e) => setServiceId(Number(e.target.value))}
          >
            {data.services.map((s) => (
              <MenuItem key={s.id} value={s.id}>
                {s.name}
              </MenuItem>
            ))}
          </TextField>
        </SheetSection>
      )}
      {open !== "quote" && data.options.length > 0 && (
        <SheetSection title="Which one do they want?">
          <TextField select label="Option" value={option} onChange={(e) => setOption(Number(e.target.value))}>
            {data.options.map(({ name, totalMinor }, i) => (
              <MenuItem key={i} value={i}>
                {name}, {amount(totalMinor)}
              </MenuItem>
            ))}
          </TextField>
        </SheetSection>
      )}
      {open !== "quote" && data.needs !== "place" && (data.needs === null || serviceId !== null) && (
        <Windows
          key={`${date} ${option}`}
          data={data}
          serviceId={serviceId}
          option={option}
          date={date}
          onDate={setDate}
          onDone={onDone}
        />
      )}
    </SideSheet>
  );
}
