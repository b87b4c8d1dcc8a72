"use client";
import type { ViewOutput } from "@/api/client";
import { windowIn } from "@/core/time/local-words";
import { addDays } from "@/core/time/dates";
import { dayShort, dayWords, windowWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useView } from "@/ui/use-view";
import { type PickedWindow, PickerSkeleton, WindowPicker } from "@/ui/window-picker";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Skeleton from "@mui/material/Skeleton";
import Typography from "@mui/material/Typography";
import { useState } from "react";

type Dates = ViewOutput<"my-dates">;
type OneDate = Dates["dates"][number];
const tall = { minHeight: 44 };

/** The coming dates of a customer's repeat: each can be moved or left out until it is promised, and all can pause. */
export function OwnDates({ token, timeZone }: { token: string; timeZone: string }) {
  const { data, problem, refresh } = useView("my-dates", {}, token);
  const [pausing, setPausing] = useState(false);
  const endPause = useChange("end-pause-by-link", { then: refresh });
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!data) return <Skeleton variant="rounded" height={160} />;
  return (
    <Box component="section" aria-label="Coming dates" sx={{ mt: 3 }}>
      {data.asksFirst && (
        <Typography color="textSecondary" sx={{ mb: 2 }}>
          We ask you before each of these; nothing is booked until you have said yes.
        </Typography>
      )}
      {data.dates.map((date) => (
        <Row key={date.date} date={date} token={token} timeZone={timeZone} refresh={refresh} />
      ))}
      {data.pauses.map((pause) => (
        <Box key={pause.id} sx={{ py: 1.5, borderTop: `1px solid ${ink.line}` }}>
          Pause from {dayShort(pause.first)} to {dayShort(pause.last)}{" "}
          <Button size="small" onClick={() => void endPause.send({ pauseId: pause.id }, token)}>
            End the pause
          </Button>
        </Box>
      ))}
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", my: 2 }}>
        <Button variant="outlined" aria-expanded={pausing} onClick={() => setPausing(!pausing)} sx={tall}>
          Pause for a while
        </Button>
        <Button variant="outlined" href={`/my/${token}/repeat.ics`} download="repeat.ics" sx={tall}>
          All into my calendar
        </Button>
      </Box>
      {pausing && (
        <Pause
          today={data.today}
          token={token}
          onDone={() => {
            setPausing(false);
            refresh();
          }}
        />
      )}
    </Box>
  );
}

function Row({
  date,
  token,
  timeZone,
  refresh,
}: {
  date: OneDate;
  token: string;
  timeZone: string;
  refresh: () => void;
}) {
  const [moving, setMoving] = useState(false);
  const change = useChange("change-date-by-link", { quiet: true, then: refresh });
  const restore = useChange("restore-date-by-link", { quiet: true, then: refresh });
  const problem = change.problem ?? restore.problem;
  const year = (day: string) => `${dayShort(day)} ${day.slice(0, 4)}`;
  return (
    <Box sx={{ py: 1, borderTop: `1px solid ${ink.line}` }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap" }}>
        <Box sx={{ flex: 1, minWidth: 150 }}>
          {date.day === null ? <s>{year(date.date)}</s> : year(date.day)}
          {date.window && `, ${windowWords(...date.window)}`}
          <Box component="span" sx={{ color: ink.ash }}>
            {" "}
            {said(date)}
          </Box>
        </Box>
        {!date.isPromised && date.isAgreed && (
          <Button
            size="small"
            disabled={restore.busy}
            onClick={() => void restore.send({ date: date.date }, token)}
            sx={tall}
          >
            Undo
          </Button>
        )}
        {!date.isPromised && !date.isAgreed && date.day !== null && (
          <>
            <Button size="small" aria-expanded={moving} onClick={() => setMoving(!moving)} sx={tall}>
              Move
            </Button>
            <Button
              size="small"
              disabled={change.busy}
              onClick={() => void change.send({ date: date.date, window: null }, token)}
              sx={tall}
            >
              Skip
            </Button>
          </>
        )}
      </Box>
      {problem && (
        <Alert severity="warning" role="alert" sx={{ my: 2, fontSize: 16 }}>
          {problem.sentence}
        </Alert>
      )}
      {moving && (
        <MoveOne
          date={date.date}
          token={token}
          timeZone={timeZone}
          busy={change.busy}
          onMove={async ({ date: to, from, to: until }) => {
            if (await change.send({ date: date.date, window: { date: to, from, to: until } }, token)) setMoving(false);
          }}
        />
      )}
    </Box>
  );
}

const said = ({ isPromised, day, becomes, isAgreed }: OneDate): string =>
  isPromised
    ? "promised"
    : day === null
      ? becomes === "paused"
        ? "pause"
        : becomes === "no day"
          ? "we look for a day"
          : "left out"
      : isAgreed
        ? "moved"
        : "";

function MoveOne({
  date,
  token,
  timeZone,
  busy,
  onMove,
}: {
  date: string;
  token: string;
  timeZone: string;
  busy: boolean;
  onMove: (window: PickedWindow) => Promise<void>;
}) {
  const { data: offers, problem } = useView("my-date-offers", { date }, token);
  const [chosen, setChosen] = useState<PickedWindow | null>(null);
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!offers) return <PickerSkeleton />;
  if (offers.length === 0) return <Typography sx={{ my: 2 }}>Nothing else is free around that day.</Typography>;
  return (
    <Box role="group" aria-label={`Move ${dayWords(date)}`} sx={{ my: 2 }}>
      <WindowPicker offers={offers} chosen={chosen} onChoose={setChosen} />
      <Button
        variant="contained"
        fullWidth
        disabled={!chosen || busy}
        onClick={() => chosen && void onMove(chosen)}
        sx={{ minHeight: 52, mt: 2 }}
      >
        {chosen ? `Move to ${dayWords(chosen.date)}, ${windowIn(chosen.from, chosen.to, timeZone)}` : "Choose a window"}
      </Button>
    </Box>
  );
}

function Pause({ today, token, onDone }: { today: string; token: string; onDone: () => void }) {
  const [first, setFirst] = useState(addDays(today, 1));
  const [last, setLast] = useState(addDays(today, 30));
  const { send, busy, wrong } = useChange("pause-by-link", { then: onDone });
  return (
    <Box role="group" aria-label="Pause for a while" sx={{ mt: 3, display: "grid", gap: 3 }}>
      <DateField label="From" value={first} onValue={(day) => day && setFirst(day)} wrong={wrong("/first")} />
      <DateField label="Until" value={last} onValue={(day) => day && setLast(day)} wrong={wrong("/last")} />
      <Typography color="textSecondary">
        A visit that is promised already stays: move or cancel it by its own link.
      </Typography>
      <Button
        variant="contained"
        disabled={busy || last < first}
        onClick={() => void send({ first, last }, token)}
        sx={{ minHeight: 52 }}
      >
        Pause
      </Button>
    </Box>
  );
}
