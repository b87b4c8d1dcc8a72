"use client";
import type { ForecastRoom } from "@/core/windows/forecasts";
import { FormFrame } from "@/ui/form-frame";
import { Columns, PercentField, WholeField } from "@/ui/form-parts";
import { useKeptForm } from "@/ui/use-kept-form";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Rules, SetupData } from "../data";
import { PatternField } from "./pattern-field";
import { capacityWords, LimitsField } from "./rule-fields";
import { WindowsPreview } from "./windows-preview";

const forecastWords: Record<ForecastRoom, string> = {
  full: "all of their room",
  half: "that of every other one",
  none: "none: bookings go first",
};

/** How one books, and beside it two weeks as a customer would see them. */
export function RulesForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const {
    draft: rules,
    set,
    wrong,
    round,
    frame,
  } = useKeptForm({
    operation: "save-booking-rules",
    of: "windows",
    from: data.rules,
    input: (r) => r,
    name: () => "The window pattern",
    saved: () => saved(),
  });
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 380px", gap: 6, alignItems: "start" }}>
      <FormFrame
        title="Windows and booking rules"
        note="Promised windows stay as they are; changes count for new bookings."
        key={round}
        {...frame}
      >
        <Columns>
          <WholeField
            label="Notice, hours"
            value={rules.noticeMinutes / 60}
            onValue={(hours) => set({ noticeMinutes: hours * 60 })}
            wrong={wrong("/noticeMinutes")}
            helperText="Soonest booking before a window opens"
          />
          <WholeField
            label="Horizon, days"
            value={rules.horizonDays}
            onValue={(horizonDays) => set({ horizonDays })}
            wrong={wrong("/horizonDays")}
            helperText="Furthest day that can be booked"
          />
          <WholeField
            label="Hold, minutes"
            value={rules.holdMinutes}
            onValue={(holdMinutes) => set({ holdMinutes })}
            wrong={wrong("/holdMinutes")}
            helperText="An offer is kept while they finish"
          />
        </Columns>
        <Columns>
          <TextField
            select
            label="Capacity"
            value={rules.capacity}
            onChange={(e) => set({ capacity: e.target.value as Rules["capacity"] })}
            helperText={capacityWords[rules.capacity].about}
          >
            {Object.entries(capacityWords).map(([mode, { name }]) => (
              <MenuItem key={mode} value={mode}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="Forecasts of repeats keep"
            value={rules.forecastRoom}
            onChange={(e) => set({ forecastRoom: e.target.value as ForecastRoom })}
            helperText="What new bookings may not take"
          >
            {Object.entries(forecastWords).map(([room, words]) => (
              <MenuItem key={room} value={room}>
                {words}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="Addresses outside all zones"
            value={rules.outside}
            onChange={(e) => set({ outside: e.target.value as Rules["outside"] })}
            helperText={
              rules.outside === "refuse"
                ? "Customers are told kindly, with your phone"
                : "Customers may write; a person answers"
            }
          >
            <MenuItem value="refuse">are refused</MenuItem>
            <MenuItem value="request">may ask</MenuItem>
          </TextField>
        </Columns>
        <Columns>
          <WholeField
            label="Move until, h before"
            value={rules.moveHours}
            onValue={(moveHours) => set({ moveHours })}
            wrong={wrong("/moveHours")}
            helperText="Customers, by their own link"
          />
          <WholeField
            label="Cancel until, h before"
            value={rules.cancelHours}
            onValue={(cancelHours) => set({ cancelHours })}
            wrong={wrong("/cancelHours")}
            helperText="Afterwards they read your phone number"
          />
          <PercentField
            label="Windows on your way, % off"
            value={rules.onOurWayBp}
            onValue={(onOurWayBp) => set({ onOurWayBp })}
            wrong={wrong("/onOurWayBp")}
            helperText="Those that add hardly any driving"
          />
        </Columns>
        <TextField
          select
          label="Moving when cancelling already costs a fee"
          value={rules.lateMoves}
          onChange={(e) => set({ lateMoves: e.target.value as typeof rules.lateMoves })}
          helperText="Otherwise one would move far away and cancel there for nothing"
        >
          <MenuItem value="fee">Customers may move; cancelling costs the fee ever after</MenuItem>
          <MenuItem value="refused">Customers call to move</MenuItem>
        </TextField>
        <Columns>
          <WholeField
            label="Repeats laid out, months ahead"
            value={rules.repeatMonths}
            onValue={(repeatMonths) => set({ repeatMonths })}
            wrong={wrong("/repeatMonths")}
            helperText="As forecasts on the board"
          />
          <WholeField
            label="Promised, days before"
            value={rules.promiseDays}
            onValue={(promiseDays) => set({ promiseDays })}
            wrong={wrong("/promiseDays")}
            helperText="A forecast becomes a visit then, and its customer is told"
          />
          <WholeField
            label="Asked first, days before"
            value={rules.askDays}
            onValue={(askDays) => set({ askDays })}
            wrong={wrong("/askDays")}
            helperText="Whoever is asked before a visit comes back"
          />
          <WholeField
            label="Asked once more, days after"
            value={rules.askAgainDays}
            onValue={(askAgainDays) => set({ askAgainDays })}
            wrong={wrong("/askAgainDays")}
            helperText="Then it waits for a person"
          />
        </Columns>
        <LimitsField limits={rules.limits} onLimits={(limits) => set({ limits })} wrong={wrong} />
        <Box>
          <Typography variant="h3" sx={{ mb: 2 }}>
            Windows
          </Typography>
          <PatternField parts={rules.windows} onParts={(windows) => set({ windows })} wrong={wrong} />
        </Box>
      </FormFrame>
      <WindowsPreview rules={rules} data={data} />
    </Box>
  );
}
