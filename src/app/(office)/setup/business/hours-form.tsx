"use client";
import { FormFrame } from "@/ui/form-frame";
import { useKeptForm } from "@/ui/use-kept-form";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import type { SetupData } from "../data";
import { HoursField } from "../windows/hours-field";
import { Holidays } from "./holidays";
import { SpecialDays } from "./special-days";

/** When the business is open: the week, and the days that are different. */
export function HoursForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-opening",
    of: "hours",
    from: { hours: data.opening },
    input: (d) => d,
    name: () => "The week",
    saved: () => saved(),
  });
  return (
    <>
      <FormFrame
        title="Opening hours"
        key={round}
        {...frame}
        note="Windows are offered within them. What is promised at other times stays promised."
      >
        <FormControlLabel
          control={
            <Switch
              checked={draft.hours.length > 0}
              onChange={(e) =>
                set({
                  hours: e.target.checked
                    ? [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 480, closes: 1080 }))
                    : [],
                })
              }
            />
          }
          label={draft.hours.length ? "Open at these hours" : "Open whenever somebody works"}
        />
        {draft.hours.length > 0 && (
          <HoursField title="The week" hours={draft.hours} onHours={(hours) => set({ hours })} wrong={wrong} />
        )}
      </FormFrame>
      <SpecialDays data={data} saved={saved} />
      <Holidays saved={saved} />
    </>
  );
}
