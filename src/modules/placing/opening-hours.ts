import type { Opening } from "@/core/time/opening";
import type { ViewContext } from "@/kernel/operation";
import { spansColumn } from "@/store/columns";

/** When the business is open: its weekly hours and its special days. */
export const readOpening = ({ sql }: Pick<ViewContext, "sql">): Opening => ({
  hours: sql<{ weekday: number; opens: number; closes: number }>(
    "SELECT weekday, opens, closes FROM opening_hours ORDER BY weekday, opens",
  ).all(),
  special: sql<{ name: string; first_date: string; last_date: string; yearly: number; spans: string }>(
    "SELECT name, first_date, last_date, yearly, spans FROM special_days ORDER BY id",
  )
    .all()
    .map((day) => ({
      name: day.name,
      first: day.first_date,
      last: day.last_date,
      yearly: day.yearly === 1,
      spans: spansColumn.read(day.spans),
    })),
});
