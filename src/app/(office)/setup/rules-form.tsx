"use client";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { ForecastRoom } from "@/core/windows/forecasts";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { Columns, FormFrame, useSavedNote, WholeField } from "./form-parts";
import { capacityWords, LimitsField, PatternField } from "./rule-fields";
import type { SetupData } from "./setup-screen";

const forecastWords: Record<ForecastRoom, string> = {
  full: "all of their room",
  half: "that of every other one",
  none: "none: bookings go first",
};

export function RulesForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const [rules, setRules] = useState(data.rules);
  const { send, busy, problem, wrong } = useChange("save-booking-rules");
  const note = useSavedNote();
  const set = (change: Partial<typeof rules>) => setRules({ ...rules, ...change });

  return (
    <FormFrame title="Windows and booking rules" problem={problem} busy={busy} onSave={() => void send(rules).then((done) => done && (note("The window pattern"), saved()))}
      note={<>Promised windows stay as they are; changes count for new bookings. <LinkBox href="/why-not" sx={{ color: ink.lake }}>Why is a window not offered?</LinkBox></>}>
      <Columns>
        <WholeField label="Notice, hours" value={rules.noticeMinutes / 60} onValue={(hours) => set({ noticeMinutes: hours * 60 })} wrong={wrong("/noticeMinutes")} helperText="Soonest booking before a window opens" />
        <WholeField label="Horizon, days" value={rules.horizonDays} onValue={(horizonDays) => set({ horizonDays })} wrong={wrong("/horizonDays")} helperText="Furthest day that can be booked" />
        <WholeField label="Hold, minutes" value={rules.holdMinutes} onValue={(holdMinutes) => set({ holdMinutes })} wrong={wrong("/holdMinutes")} helperText="An offer is kept while they finish" />
      </Columns>
      <Columns>
        <TextField select label="Capacity" value={rules.capacity} onChange={(e) => set({ capacity: e.target.value as typeof rules.capacity })} helperText={capacityWords[rules.capacity].about}>
          {Object.entries(capacityWords).map(([mode, { name }]) => <MenuItem key={mode} value={mode}>{name}</MenuItem>)}
        </TextField>
        <TextField select label="Forecasts of repeats keep" value={rules.forecastRoom} onChange={(e) => set({ forecastRoom: e.target.value as ForecastRoom })} helperText="What new bookings may not take">
          {Object.entries(forecastWords).map(([room, words]) => <MenuItem key={room} value={room}>{words}</MenuItem>)}
        </TextField>
      </Columns>
      <LimitsField limits={rules.limits} onLimits={(limits) => set({ limits })} wrong={wrong} />
      <Box>
        <Typography variant="h3" sx={{ mb: 2 }}>Windows</Typography>
        <PatternField parts={rules.windows} onParts={(windows) => set({ windows })} wrong={wrong} />
      </Box>
    </FormFrame>
  );
}
