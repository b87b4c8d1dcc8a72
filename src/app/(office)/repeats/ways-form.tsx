"use client";
import { readRule } from "@/core/repeats/recurrence";
import { OptionalWholeField } from "@/ui/form-parts";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { RepeatDetails } from "./data";
import { ComesField, CountedField, OpenedForm } from "./term-fields";

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
    <OpenedForm
      says={
        <>
          {forecasts === 1 ? "1 forecast is" : `${forecasts} forecasts are`} laid out anew; what is promised stays.
          {ways.comes === "ask" && " Nothing is promised any more before somebody has said yes."}
        </>
      }
      disabled={busy}
      onDo={() => void save()}
    >
      <ComesField value={ways.comes} onValue={(comes) => set({ comes })} />
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
      <CountedField
        rule={readRule(repeat.rule)}
        value={ways.counted}
        onValue={(counted) => set({ counted })}
        wrong={wrong("/counted")}
      />
      {ways.comes !== "ask" && (
        <OptionalWholeField
          label="Promised, days before"
          value={ways.promiseDays}
          onValue={(promiseDays) => set({ promiseDays })}
          wrong={wrong("/promiseDays")}
          helperText="Empty: as the service or the business has it"
        />
      )}
    </OpenedForm>
  );
}
