"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { changePrice, roundingNamed, roundings, type RoundingName } from "@/core/catalogue/prices";
import { moneyWords } from "@/core/money/amounts";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { Columns, FormFrame, SignedWholeField } from "./form-parts";
import type { SetupData } from "./setup-screen";

/** Many prices up or down at once: what they are, what they would be, and the way back. */
export function PricesForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const [percent, setPercent] = useState(5);
  const [rounding, setRounding] = useState<RoundingName>("1");
  const [chosen, setChosen] = useState(() => new Set(data.services.map((s) => s.id)));
  const { send, busy, problem } = useChange("change-prices");
  const { send: putBack } = useChange("set-prices");
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const share = Number.isFinite(percent) ? percent * 100 : 0;
  const next = (priceMinor: number) => changePrice(priceMinor, share, roundingNamed(rounding, data.currency));
  const amount = (minor: number) => moneyWords(minor, data.currency);
  const toggle = (ids: number[], on: boolean) => setChosen(new Set(on ? [...chosen, ...ids] : [...chosen].filter((id) => !ids.includes(id))));

  const change = async () => {
    const done = await send({ serviceIds: [...chosen], basisPoints: share, rounding });
    if (!done) return;
    const undo = (key: string | number) => void putBack({ prices: done.value.before }).then((back) => back && (closeSnackbar(key), saved()));
    enqueueSnackbar(`${chosen.size} ${chosen.size === 1 ? "price is" : "prices are"} changed`, { variant: "success", autoHideDuration: 20_000, action: (key) => <Button color="inherit" onClick={() => undo(key)}>Undo</Button> });
    saved();
  };
  return (
    <FormFrame title="Prices of many services" note="For new bookings. What was booked keeps its price." problem={problem} busy={busy || chosen.size === 0} save="Change prices" onSave={() => void change()}>
      <Columns>
        <SignedWholeField label="Change, %" value={percent} onValue={setPercent} helperText="With a minus: down" />
        <TextField select label="Rounded to" value={rounding} onChange={(e) => setRounding(e.target.value as RoundingName)}>
          {roundings.map((name) => <MenuItem key={name} value={name}>{name === "ending in 9" ? name : `${name} ${data.currency}`}</MenuItem>)}
        </TextField>
      </Columns>
      <Box component="table" sx={{ borderCollapse: "collapse", "& td, & th": { borderTop: `1px solid ${ink.line}`, py: 1, pr: 3, textAlign: "left" }, "& .number": { textAlign: "right", fontVariantNumeric: "tabular-nums" } }}>
        <thead>
          <tr>
            <th><Checkbox size="small" checked={chosen.size === data.services.length} indeterminate={chosen.size > 0 && chosen.size < data.services.length} onChange={(e) => toggle(data.services.map((s) => s.id), e.target.checked)} slotProps={{ input: { "aria-label": "All services" } }} /></th>
            <th>Service</th><th className="number">Price now</th><th className="number">New price</th>
          </tr>
        </thead>
        <tbody>
          {data.services.map((s) => {
            const on = chosen.has(s.id);
            return (
              <tr key={s.id}>
                <td><Checkbox size="small" checked={on} onChange={(e) => toggle([s.id], e.target.checked)} slotProps={{ input: { "aria-label": s.name } }} /></td>
                <td>{s.name}</td>
                <td className="number">{amount(s.priceMinor)}</td>
                <td className="number">{on ? <b>{amount(next(s.priceMinor))}</b> : "as it is"}</td>
              </tr>
            );
          })}
        </tbody>
      </Box>
    </FormFrame>
  );
}
