"use client";
import { canCountFromVisits, type Counted } from "@/core/repeats/counted";
import { type Comes, comesWords, waysToCome } from "@/core/repeats/flexible";
import { readRule } from "@/core/repeats/recurrence";
import { OptionalWholeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { RepeatDetails } from "./data";

/** How its visits come, from what dates are counted, and when they are promised. */
export function WaysForm({ repeat, onDone }: { repeat: RepeatDetails; onDone: () => void }) {
  const before = {
    comes: repeat.comes,
    leewayDays: repeat.leewayDays,
    counted: repeat.counted,
    promiseDays: repeat.promiseDays,
    asks: repeat.asks,
  };
  const [ways, setWays] = useState(before);
  const set = (change: Partial<typeof ways>) => setWays({ ...ways, ...change });
  const { send, busy, wrong } = useChange("set-repeat-ways");
  const sayWithUndo = useUndo();
  const save = async () => {
    if (!(await send({ repeatId: repeat.id, ...ways }))) return;
    onDone();
    sayWithUndo("The repeat comes so from now on", () => send({ repeatId: repeat.id, ...before }));
  };
  const forecasts = repeat.coming.filter(({ state }) => state === "forecast").length;
  return (
    <Box sx={{ mt: 3, p: 3, bgcolor: ink.plaster, borderRadius: "6px" }}>
      <Stack spacing={3}>
        <TextField select label="It comes" value={ways.comes} onChange={(e) => set({ comes: e.target.value as Comes })}>
          {waysToCome.map((way) => (
            <MenuItem key={way} value={way}>
              {comesWords[way]}
            </MenuItem>
          ))}
        </TextField>
        {ways.comes === "flexible" && (
          <OptionalWholeField
            label="Days before and after its date"
            value={ways.leewayDays}
            onValue={(leewayDays) => set({ leewayDays })}
            wrong={wrong("/leewayDays")}
            helperText="Empty: within the week of its date. Day, window and technician are those that add least driving"
          />
        )}
        {ways.comes === "ask" && (
          <TextField
            select
            label="Who asks"
            value={ways.asks}
            onChange={(e) => set({ asks: e.target.value as typeof ways.asks })}
          >
            <MenuItem value="customer">the customer gets a link with times</MenuItem>
            <MenuItem value="office">we phone: it waits in Incoming</MenuItem>
          </TextField>
        )}
        {canCountFromVisits(readRule(repeat.rule)) && (
          <TextField
            select
            label="Counted"
            value={ways.counted}
            onChange={(e) => set({ counted: e.target.value as Counted })}
            error={!!wrong("/counted")}
            helperText={wrong("/counted")}
          >
            <MenuItem value="calendar">by the calendar</MenuItem>
            <MenuItem value="done">from the last visit that was done</MenuItem>
          </TextField>
        )}
        {ways.comes !== "ask" && (
          <OptionalWholeField
            label="Promised, days before"
            value={ways.promiseDays}
            onValue={(promiseDays) => set({ promiseDays })}
            wrong={wrong("/promiseDays")}
            helperText="Empty: as the service or the business has it"
          />
        )}
        <Box role="status" sx={{ fontSize: 14.5 }}>
          {forecasts === 1 ? "1 forecast is" : `${forecasts} forecasts are`} laid out anew; what is promised stays.
          {ways.comes === "ask" && " Nothing is promised any more before somebody has said yes."}
        </Box>
        <Button variant="contained" disabled={busy} onClick={() => void save()} sx={{ alignSelf: "flex-start" }}>
          Do this
        </Button>
      </Stack>
    </Box>
  );
}
