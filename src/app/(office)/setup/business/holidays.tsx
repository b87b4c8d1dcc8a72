"use client";
import { readHolidays } from "@/core/time/holidays";
import type { SpecialDay } from "@/core/time/opening";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Typography from "@mui/material/Typography";
import { useSnackbar } from "notistack";
import { useRef, useState } from "react";
import { spanWords } from "./special-days";

/** Holidays from a calendar file: read here, looked over, then taken. */
export function Holidays({ saved }: { saved: () => void }) {
  const [found, setFound] = useState<{ day: SpecialDay; chosen: boolean }[] | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const { send, busy } = useChange("take-special-days");
  const { enqueueSnackbar } = useSnackbar();
  const input = useRef<HTMLInputElement>(null);
  const read = async (file: File | undefined) => {
    if (!file) return;
    try {
      const days = readHolidays(await file.text());
      setFound(days.map((day) => ({ day, chosen: true })));
      setWrong(days.length ? null : "There are no whole days in this calendar.");
    } catch (error) {
      setFound(null);
      setWrong(error instanceof RangeError ? error.message : "This file cannot be read.");
    }
  };
  const take = async () => {
    const days = found!
      .filter((f) => f.chosen)
      .map(({ day: { name, first, last, yearly } }) => ({ name, first, last, yearly, spans: [] }));
    const done = await send({ days });
    if (!done) return;
    const { taken, known, promised } = done.value;
    enqueueSnackbar(
      `${taken} ${taken === 1 ? "day is" : "days are"} closed now${known ? `, ${known} were known` : ""}${promised ? `. ${promised} promised visits on them stay.` : ""}`,
      { variant: promised ? "warning" : "success" },
    );
    setFound(null);
    saved();
  };
  const chosen = found?.filter((f) => f.chosen).length ?? 0;
  return (
    <Box component="section" aria-label="Holidays from a calendar" sx={{ mt: 8 }}>
      <Typography variant="h2" sx={{ mb: 2 }}>
        Holidays from a calendar
      </Typography>
      <Box sx={{ color: ink.ash, mb: 2 }}>
        A calendar file (.ics) of public or school holidays. You see what is in it before anything is closed.
      </Box>
      <input
        ref={input}
        type="file"
        accept=".ics,text/calendar"
        aria-label="Calendar file"
        hidden
        onChange={(e) => {
          void read(e.target.files?.[0]);
          e.target.value = "";
        }}
      />
      <Button variant="outlined" onClick={() => input.current?.click()}>
        Choose a calendar file
      </Button>
      {wrong && (
        <Alert severity="warning" sx={{ mt: 3 }}>
          {wrong}
        </Alert>
      )}
      {found && found.length > 0 && (
        <Box sx={{ mt: 3 }}>
          {found.map(({ day, chosen: on }, at) => (
            <FormControlLabel
              key={at}
              sx={{ display: "flex", borderTop: `1px solid ${ink.line}` }}
              control={
                <Checkbox
                  checked={on}
                  onChange={(e) => setFound(found.map((f, i) => (i === at ? { ...f, chosen: e.target.checked } : f)))}
                />
              }
              label={
                <>
                  <b>{day.name}</b> {spanWords(day)}
                </>
              }
            />
          ))}
          <Button variant="contained" disabled={busy || chosen === 0} onClick={() => void take()} sx={{ mt: 3 }}>
            {chosen ? `Close ${chosen} ${chosen === 1 ? "day" : "days"}` : "Nothing chosen"}
          </Button>
        </Box>
      )}
    </Box>
  );
}
