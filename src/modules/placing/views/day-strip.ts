import { addDays, datesFrom } from "@/core/time/dates";
import { isOpen } from "@/core/time/opening";
import { minutesIn } from "@/core/time/spans";
import { Nothing } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { readOpening } from "@/modules/placing/opening-hours";
import { loadPlanning } from "@/modules/placing/planning";

/** How full the next fourteen days are, and where a person is needed. */
export const dayStrip = defineView({
  name: "day-strip",
  access: "office.see",
  input: Nothing,
  read(context) {
    const { sql, today } = context;
    const dates = datesFrom(today, addDays(today, 13));
    const planning = loadPlanning(context, dates);
    const opening = readOpening(context);
    const promised = new Map(
      sql<{ date: string; minutes: number }>(
        // Who shares a time is with the technician at once.
        `SELECT date, sum(leaves - arrives + driving) AS minutes
          FROM (SELECT DISTINCT date, technician_id, arrives, leaves, driving FROM placements WHERE date BETWEEN ? AND ?)
          GROUP BY date`,
      )
        .all(today, dates.at(-1)!)
        .map((d) => [d.date, d.minutes]),
    );
    const unplaced = new Map(
      sql<{ date: string; n: number }>(
        `SELECT date, count(DISTINCT coalesce(shared_id, -id)) AS n
          FROM visits v WHERE date BETWEEN ? AND ? AND state = 'promised'
            AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
          GROUP BY date`,
      )
        .all(today, dates.at(-1)!)
        .map((d) => [d.date, d.n]),
    );
    return dates.map((date) => {
      const days = planning.technicians.map((t) => planning.dayOf(t.id, date));
      const hours = days.reduce((sum, day) => sum + minutesIn(day.hours), 0);
      return {
        date,
        workable: isOpen(opening, date) ? hours : 0,
        promised: promised.get(date) ?? 0,
        needsPerson: unplaced.get(date) ?? 0,
        off: days.filter((d) => d.absence === "off").length,
      };
    });
  },
});
