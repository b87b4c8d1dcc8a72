"use client";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { Columns, FormFrame, TimeField, useSavedNote, WeekdaysField, WholeField } from "./form-parts";
import type { SetupData } from "./setup-screen";

export function RulesForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const [rules, setRules] = useState(data.rules);
  const { send, busy, problem, wrong } = useChange("save-booking-rules");
  const note = useSavedNote();
  const setWindow = (at: number, change: Partial<(typeof rules.windows)[number]>) => setRules({ ...rules, windows: rules.windows.map((w, i) => (i === at ? { ...w, ...change } : w)) });
  const last = rules.windows.at(-1);

  return (
    <FormFrame title="Windows and booking rules" note="Promised windows stay as they are; changes count for new bookings." problem={problem} busy={busy} onSave={() => void send(rules).then((done) => done && (note("The window pattern"), saved()))}>
      <Columns>
        <WholeField label="Notice, hours" value={rules.noticeMinutes / 60} onValue={(hours) => setRules({ ...rules, noticeMinutes: hours * 60 })} wrong={wrong("/noticeMinutes")} helperText="Soonest booking before a window opens" />
        <WholeField label="Horizon, days" value={rules.horizonDays} onValue={(horizonDays) => setRules({ ...rules, horizonDays })} wrong={wrong("/horizonDays")} helperText="Furthest day that can be booked" />
        <WholeField label="Hold, minutes" value={rules.holdMinutes} onValue={(holdMinutes) => setRules({ ...rules, holdMinutes })} wrong={wrong("/holdMinutes")} helperText="An offer is kept while they finish" />
      </Columns>
      <Box role="group" aria-label="Windows">
        <Typography variant="h3" sx={{ mb: 2 }}>Windows</Typography>
        {rules.windows.map((window, at) => (
          <Box key={at} sx={{ py: 2, borderTop: `1px solid ${ink.line}` }}>
            <Box sx={{ display: "flex", gap: 3, alignItems: "flex-end", flexWrap: "wrap" }}>
              <TimeField label="From" value={window.from} onValue={(from) => setWindow(at, { from })} sx={{ width: 110 }} />
              <TimeField label="To" value={window.to} onValue={(to) => setWindow(at, { to })} sx={{ width: 110 }} />
              <WeekdaysField label="On" value={window.weekdays} onValue={(weekdays) => setWindow(at, { weekdays })} wrong={wrong(`/windows/${at}/weekdays`)} />
              <IconButton aria-label="Remove this window" onClick={() => setRules({ ...rules, windows: rules.windows.filter((_, i) => i !== at) })}><Close fontSize="small" /></IconButton>
            </Box>
            {wrong(`/windows/${at}`) && <Box sx={{ color: "error.main", fontSize: 13, mt: 1 }}>{wrong(`/windows/${at}`)}</Box>}
          </Box>
        ))}
        <Button startIcon={<Add />} onClick={() => setRules({ ...rules, windows: [...rules.windows, { weekdays: last?.weekdays ?? 31, from: last ? Math.min(1320, last.to) : 540, to: last ? Math.min(1440, last.to + 120) : 660 }] })}>Window</Button>
        {wrong("/windows") && <Box sx={{ color: "error.main", fontSize: 13 }}>{wrong("/windows")}</Box>}
      </Box>
    </FormFrame>
  );
}
