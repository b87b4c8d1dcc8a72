"use client";
import { clock, windowWords } from "@/core/time/words";
import { visitStates } from "@/core/visits/states";
import { DateField } from "@/ui/date-field";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useEffect, useState } from "react";
import type { VisitDetails } from "./data";
import { MoveQuestion, useMove, type AskedMove } from "./move";

/** Moving by menu: a day, a window, and who; with what each would cost, or why it cannot be. */
export function MoveForm({ visit }: { visit: VisitDetails }) {
  const [date, setDate] = useState(visit.date);
  const [window, setWindow] = useState<string>(`${visit.windowFrom} ${visit.windowTo}`);
  const [chosen, setChosen] = useState<number[]>(visit.technicians.map((t) => t.id));
  const [wish, setWish] = useState<AskedMove | null>(null);
  const { data: options } = useLive("placement-options", { visitId: visit.id, date });
  const [alone, setAlone] = useState(false);
  const move = useMove();

  useEffect(() => {
    if (options && !options.some((o) => `${o.from} ${o.to}` === window) && options[0])
      setWindow(`${options[0].from} ${options[0].to}`);
  }, [options, window]);

  const option = options?.find((o) => `${o.from} ${o.to}` === window);
  const toggle = (id: number) =>
    setChosen((now) =>
      visit.crew === 1 ? [id] : now.includes(id) ? now.filter((n) => n !== id) : [...now, id].slice(-visit.crew),
    );
  const coming = visit.comes?.who.filter((one) => visitStates.allows("plan", one.state)).length ?? 1;
  const whoMoves = coming > 1 && !alone ? `${coming} customers` : visit.customer.name;
  const go = () => {
    if (!option) return;
    const asked: AskedMove = {
      visit: {
        id: visit.id,
        customer: whoMoves,
        windowFrom: visit.windowFrom,
        windowTo: visit.windowTo,
        repeatId: visit.repeatId,
      },
      tells: visit.state === "promised" && (date !== visit.date || !option.isPromised),
      date,
      technicianIds: chosen,
      from: option.from,
      to: option.to,
      ...(alone && { alone }),
      before: date === visit.date ? visit.technicians.map((t) => t.id) : [],
    };
    if (asked.tells || visit.repeatId !== null) setWish(asked);
    else void move(asked);
  };

  return (
    <Stack spacing={3}>
      <Stack direction="row" spacing={2}>
        <DateField label="Day" value={date} onValue={(day) => day && setDate(day)} width={170} />
        <TextField select label="Window" value={option ? window : ""} onChange={(e) => setWindow(e.target.value)}>
          {(options ?? []).map((o) => (
            <MenuItem key={`${o.from} ${o.to}`} value={`${o.from} ${o.to}`}>
              {windowWords(o.from, o.to)}
              {o.isPromised ? ", promised" : ""}
            </MenuItem>
          ))}
        </TextField>
      </Stack>
      {!options && <Skeleton variant="rounded" height={180} />}
      <Box role="group" aria-label="Technician">
        {option?.technicians.map((t) => {
          const has = chosen.includes(t.id);
          return (
            <Box
              key={t.id}
              component="button"
              type="button"
              aria-pressed={has}
              onClick={() => toggle(t.id)}
              sx={{
                display: "flex",
                width: "100%",
                textAlign: "left",
                font: "inherit",
                fontSize: 14.5,
                gap: 2,
                px: 2,
                py: 1.5,
                border: 0,
                borderTop: `1px solid ${ink.line}`,
                bgcolor: has ? ink.plaster : "transparent",
                cursor: "pointer",
                color: ink.ink,
              }}
            >
              <Box sx={{ flex: 1, fontWeight: has ? 700 : 400 }}>{t.name}</Box>
              <Box sx={{ color: t.fits ? ink.moss : ink.ash, textAlign: "right", maxWidth: 210 }}>
                {t.fits ? `${clock(t.arrives)}, +${t.extraDriving} min` : t.why.replace(`${t.name} `, "")}
              </Box>
            </Box>
          );
        })}
      </Box>
      {coming > 1 && (
        <FormControlLabel
          control={<Checkbox size="small" checked={alone} onChange={(e) => setAlone(e.target.checked)} />}
          label={`Only ${visit.customer.name}, not all who come then`}
        />
      )}
      <Button variant="contained" onClick={go} disabled={!option || chosen.length !== visit.crew}>
        {coming > 1 && !alone ? `Move all ${coming}` : "Move the visit"}
      </Button>
      <MoveQuestion
        wish={wish}
        onNo={() => setWish(null)}
        onYes={(asked) => {
          setWish(null);
          void move(asked);
        }}
      />
    </Stack>
  );
}
