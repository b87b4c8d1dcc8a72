"use client";
import type { ViewOutput } from "@/api/client";
import { MoneyField, TimeField, WeekdaysField, WholeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import { useState } from "react";

type Rules = ViewOutput<"collection">["rules"];

/** When what is due is collected by itself, and what of it. */
export function CollectionRules({ rules, currency, onClose }: { rules: Rules; currency: string; onClose: () => void }) {
  const [draft, setDraft] = useState({ ...rules, on: true });
  const [again, setAgain] = useState(rules.again.join(", "));
  const [reminders, setReminders] = useState(rules.reminders.join(", "));
  const set = (part: Partial<Rules>) => setDraft({ ...draft, ...part });
  const { send, busy, wrong } = useChange("save-collection", { compares: true });
  const save = async () => {
    const days = again.split(/\D+/).map(Number).filter(Boolean);
    const steps = [...new Set([...reminders.replaceAll("−", "-").matchAll(/-?\d+/g)].map(([step]) => Number(step)))];
    if (await send({ ...draft, again: days, reminders: steps })) onClose();
  };
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <DialogTitle>What comes in by itself</DialogTitle>
      <DialogContent>
        <Box sx={{ display: "grid", gap: 4, pt: 1 }}>
          <FormControlLabel
            control={<Checkbox checked={draft.on} onChange={(e) => set({ on: e.target.checked })} />}
            label="What is due is charged to the cards of those who have agreed"
          />
          <FormControlLabel
            control={
              <Checkbox checked={draft.newCustomers} onChange={(e) => set({ newCustomers: e.target.checked })} />
            }
            label="Of new customers too, once they have agreed"
          />
          <WeekdaysField
            label="On"
            value={draft.weekdays}
            onValue={(weekdays) => set({ weekdays })}
            wrong={wrong("/weekdays") ?? ""}
          />
          <TimeField label="At" value={draft.at} onValue={(at) => set({ at })} wrong={wrong("/at")} />
          <WholeField
            label="Days past due"
            value={draft.daysPastDue}
            onValue={(daysPastDue) => set({ daysPastDue })}
            wrong={wrong("/daysPastDue")}
            helperText={
              draft.daysPastDue === 0 ? "On the day on which it is due, or as soon as a run comes" : undefined
            }
          />
          <MoneyField
            currency={currency}
            label={`The smallest sum, ${currency}`}
            value={draft.smallestMinor}
            onValue={(smallestMinor) => set({ smallestMinor })}
            wrong={wrong("/smallestMinor")}
          />
          <Box sx={{ display: "flex", gap: 3 }}>
            <MoneyField
              currency={currency}
              label={`At most by one payment, ${currency}`}
              value={draft.mostMinor ?? 0}
              onValue={(minor) => set({ mostMinor: minor || null })}
              wrong={wrong("/mostMinor")}
            />
            <MoneyField
              currency={currency}
              label={`At most on one day, ${currency}`}
              value={draft.dayMinor ?? 0}
              onValue={(minor) => set({ dayMinor: minor || null })}
              wrong={wrong("/dayMinor")}
            />
          </Box>
          <Box sx={{ color: ink.ash, fontSize: 14, mt: -2 }}>
            What your card service takes; 0 where it says nothing. It counts for every card payment.
          </Box>
          <WholeField
            label="Cards that are tried, at most 3"
            value={draft.cards}
            onValue={(cards) => set({ cards: Math.min(3, Math.max(1, cards)) as 1 | 2 | 3 })}
            wrong={wrong("/cards")}
          />
          <TextField
            label="Tried again after days"
            value={again}
            onChange={(e) => setAgain(e.target.value)}
            error={!!wrong("/again")}
            helperText={wrong("/again") ?? "Such as 3, 7; empty: the customer is asked for another card at once"}
          />
          <TextField
            label="Open invoices are reminded of, days after they were due"
            value={reminders}
            onChange={(e) => setReminders(e.target.value)}
            error={!!wrong("/reminders")}
            helperText={
              wrong("/reminders") ??
              "Such as -3, 3, 10, 20: with a minus before. After the last one it is yours to phone."
            }
          />
        </Box>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Not now</Button>
        <Button variant="contained" disabled={busy} onClick={() => void save()}>
          Save
        </Button>
      </DialogActions>
    </Dialog>
  );
}
