"use client";
import { datesOf, ruleWords } from "@/core/repeats/rule";
import { addDays, weekdayOf } from "@/core/time/dates";
import { dayShort, weekdayNames, windowWords } from "@/core/time/words";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import { useState } from "react";
import type { VisitDetails } from "./data";

/** Makes a visit come back, as a sentence: "Thursdays, every 2 weeks, 9–11, until cancelled". */
export function RepeatForm({ visit }: { visit: VisitDetails }) {
  const [every, setEvery] = useState("4");
  const [unit, setUnit] = useState<"day" | "week" | "month" | "year">("week");
  const { send, busy, wrong } = useChange("make-repeat");
  const { enqueueSnackbar } = useSnackbar();
  const count = Number(every);
  const valid = Number.isInteger(count) && count >= 1 && count <= 120;
  const rule = { every: count, unit, start: visit.date };
  const next = valid ? datesOf(rule, visit.date, addDays(visit.date, 400 * 3), 3) : [];

  const make = async () => {
    const made = await send({ visitId: visit.id, every: count, unit, until: null });
    if (!made) return;
    enqueueSnackbar(`It repeats ${ruleWords({ every: count, unit })}; ${made.value.forecasts} dates are on the board`, {
      variant: "success",
    });
  };
  return (
    <Stack spacing={3}>
      <Stack direction="row" spacing={2} sx={{ alignItems: "flex-start" }}>
        <TextField
          label="Every"
          value={every}
          onChange={(e) => setEvery(e.target.value)}
          error={!valid || !!wrong("/every")}
          helperText={!valid ? "1 to 120" : wrong("/every")}
          slotProps={{ htmlInput: { inputMode: "numeric" } }}
          sx={{ width: 90 }}
        />
        <TextField select label="Unit" value={unit} onChange={(e) => setUnit(e.target.value as typeof unit)}>
          {(["day", "week", "month", "year"] as const).map((u) => (
            <MenuItem key={u} value={u}>
              {u}
              {count === 1 ? "" : "s"}
            </MenuItem>
          ))}
        </TextField>
        <Button
          variant="outlined"
          disabled={busy || !valid}
          onClick={() => void make()}
          sx={{ height: 40, flex: "none" }}
        >
          Repeat
        </Button>
      </Stack>
      {valid && (
        <span style={{ color: ink.ash, fontSize: 14 }}>
          {unit === "week" ? `${weekdayNames[weekdayOf(visit.date)]}s, ` : ""}
          {ruleWords({ every: count, unit })}, {windowWords(visit.windowFrom, visit.windowTo)}, until cancelled. Next:{" "}
          {next.map(dayShort).join(", ")}.
        </span>
      )}
    </Stack>
  );
}
