"use client";
import { dayShort, windowWords } from "@/core/time/words";
import { stateGlyphs } from "@/ui/arch";
import { DateField } from "@/ui/date-field";
import { TimeField } from "@/ui/form-parts";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import { useState } from "react";
import type { RepeatDetails } from "./data";
import { PatternField } from "./pattern-fields";
import { TechnicianField } from "./term-fields";

type Coming = RepeatDetails["coming"][number];

/** A date of a repeat, what becomes of it, and what can be agreed for it alone. */
export function DateRow({ repeat, date, mayChange }: { repeat: RepeatDetails; date: Coming; mayChange: boolean }) {
  const [moving, setMoving] = useState(false);
  const { send, busy, wrong } = useChange("agree-repeat-date", { then: () => setMoving(false) });
  const sayWithUndo = useUndo();
  const about = { repeatId: repeat.id, date: date.date };
  const isOwn = repeat.agreed.includes(date.date);
  const isOpen = date.state === null || date.state === "forecast";
  const dayOf = (day: string) =>
    day.slice(0, 4) === repeat.today.slice(0, 4) ? dayShort(day) : `${dayShort(day)} ${day.slice(0, 4)}`;
  const skip = async () => {
    if (await send({ ...about, skip: true })) sayWithUndo(`${dayOf(date.date)} is left out`, () => send(about));
  };
  return (
    <Box sx={{ borderTop: `1px solid ${ink.line}`, py: 1.25, fontSize: 14.5 }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 2 }}>
        <Box aria-hidden sx={{ width: 18, textAlign: "center" }}>
          {glyphOf(date)}
        </Box>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          {date.day !== date.date && (
            <Box component="s" sx={{ color: ink.ash, mr: 1 }}>
              {dayOf(date.date)}
            </Box>
          )}
          {date.day &&
            (date.visitId ? (
              <LinkBox href={`/board?date=${date.day}&visit=${date.visitId}`} sx={{ color: ink.ink, fontWeight: 650 }}>
                {dayOf(date.day)}
              </LinkBox>
            ) : (
              dayOf(date.day)
            ))}{" "}
          <Box component="span" sx={{ color: date.state === "forecast" && !date.technician ? ink.ember : ink.ash }}>
            {factsOf(repeat, date)}
          </Box>
        </Box>
        {mayChange && isOpen && (
          <>
            {isOwn || date.becomes === "skipped" ? (
              isOwn && (
                <Button
                  size="small"
                  disabled={busy}
                  onClick={() => void send({ ...about, technicianId: null, patternId: null })}
                >
                  As the rule says
                </Button>
              )
            ) : (
              <>
                <Button size="small" aria-expanded={moving} onClick={() => setMoving(!moving)}>
                  Change
                </Button>
                <Button size="small" disabled={busy} onClick={() => void skip()}>
                  Skip
                </Button>
              </>
            )}
          </>
        )}
      </Box>
      {date.room && <Room repeatId={repeat.id} room={date.room} mayChange={mayChange} />}
      {moving && (
        <ChangeOne
          date={date}
          busy={busy}
          wrong={wrong}
          repeat={repeat}
          onAgree={({ to, window, ...own }) =>
            void send({
              ...about,
              ...own,
              ...(to !== date.date && { to }),
              ...((window[0] !== date.window[0] || window[1] !== date.window[1]) && {
                window: { fromMinute: window[0], toMinute: window[1] },
              }),
            })
          }
        />
      )}
    </Box>
  );
}

/** Why a date has no room as things stand; or that there is some by now, which can be taken at once. */
function Room({
  repeatId,
  room,
  mayChange,
}: {
  repeatId: number;
  room: NonNullable<Coming["room"]>;
  mayChange: boolean;
}) {
  const { send, busy } = useChange("look-for-room");
  return (
    <Box sx={{ color: ink.ember, fontSize: 13.5, pl: 4.5 }}>
      {"why" in room ? room.why : `There is room now on ${dayShort(room.roomOn)}.`}
      {"roomOn" in room && mayChange && (
        <Button size="small" disabled={busy} onClick={() => void send({ repeatId })} sx={{ ml: 1 }}>
          Take it
        </Button>
      )}
    </Box>
  );
}

const glyphOf = ({ state, becomes, technician }: Coming): string =>
  state === "forecast" && !technician
    ? "△"
    : state
      ? stateGlyphs[state]!
      : ({ skipped: "⁄", paused: "‖", "no day": "△" }[becomes as string] ?? "◌");

function factsOf(repeat: RepeatDetails, { state, becomes, technician, window, otherWork }: Coming): string {
  const own = window[0] !== repeat.fromMinute || window[1] !== repeat.toMinute;
  const what =
    state === "forecast"
      ? (technician ?? "finds no room yet")
      : state === null
        ? becomes === "planned" || becomes === "moved"
          ? "not laid out yet"
          : becomes === "no day"
            ? "nobody comes near this day"
            : becomes
        : technician
          ? `${state}, ${technician}`
          : state;
  return [otherWork?.name, own && windowWords(...window), what].filter(Boolean).join(", ");
}

interface AgreedAlone {
  to: string;
  window: [number, number];
  technicianId?: number | null;
  patternId?: number | null;
}

/** What can be agreed for one date alone: another day, window, technician or work. */
function ChangeOne({
  repeat,
  date,
  busy,
  wrong,
  onAgree,
}: {
  repeat: RepeatDetails;
  date: Coming;
  busy: boolean;
  wrong: (pointer: string) => string | undefined;
  onAgree: (agreed: AgreedAlone) => void;
}) {
  const [to, setTo] = useState(date.day ?? date.date);
  const [from, setFrom] = useState(date.window[0]);
  const [until, setUntil] = useState(date.window[1]);
  const [technicianId, setTechnicianId] = useState<number | null>(date.technicianThen);
  const [patternId, setPatternId] = useState<number | null>(null);
  return (
    <Stack spacing={2} sx={{ mt: 2 }}>
      <Stack direction="row" spacing={2} sx={{ alignItems: "flex-start" }}>
        <DateField label="To" value={to} onValue={(day) => day && setTo(day)} wrong={wrong("/to")} width={160} />
        <TimeField label="From" value={from} onValue={setFrom} sx={{ width: 86 }} />
        <TimeField label="Until" value={until} onValue={setUntil} wrong={wrong("/window")} sx={{ width: 86 }} />
      </Stack>
      <TechnicianField
        technicians={repeat.technicians}
        none="as agreed"
        value={technicianId}
        onValue={setTechnicianId}
      />
      {repeat.patterns.length > 0 && (
        <PatternField
          label="Work"
          none={date.otherWork?.name ?? "as usual"}
          patterns={repeat.patterns}
          value={patternId}
          onValue={setPatternId}
        />
      )}
      <Button
        variant="outlined"
        disabled={busy}
        onClick={() => onAgree({ to, window: [from, until], technicianId, ...(patternId !== null && { patternId }) })}
        sx={{ alignSelf: "flex-start" }}
      >
        Do this for this one
      </Button>
    </Stack>
  );
}
