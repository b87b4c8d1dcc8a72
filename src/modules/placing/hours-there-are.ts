import { groupBy } from "@/core/group";
import { datesFrom, type LocalDate, weekdayOf } from "@/core/time/dates";
import { isOpen } from "@/core/time/opening";
import type { ViewContext } from "@/kernel/operation";
import { readOpening } from "./opening-hours";

/** Minutes of work there are on each day: of all technicians, by their hours, without time off and closed days; whatever they are filled with. */
export function minutesThereAre(
  context: ViewContext,
  from: LocalDate,
  to: LocalDate,
): { date: LocalDate; minutes: number }[] {
  const { sql } = context;
  const opening = readOpening(context);
  const usual = groupBy(
    sql<{ technician_id: number; weekday: number; minutes: number }>(
      `SELECT s.technician_id, s.weekday, sum(s.closes - s.opens) AS minutes
        FROM working_spans s JOIN technicians t ON t.id = s.technician_id WHERE t.active = 1
        GROUP BY s.technician_id, s.weekday`,
    ).all(),
    (row) => row.weekday,
  );
  const own = groupBy(
    sql<{ technician_id: number; date: LocalDate; minutes: number }>(
      `SELECT technician_id, date, sum(closes - opens) AS minutes
        FROM day_hours WHERE date BETWEEN ? AND ? GROUP BY technician_id, date`,
    ).all(from, to),
    (row) => row.date,
  );
  const off = sql<{ technician_id: number; first_date: LocalDate; last_date: LocalDate }>(
    "SELECT technician_id, first_date, last_date FROM time_off WHERE last_date >= ? AND first_date <= ?",
  ).all(from, to);
  return datesFrom(from, to).map((date) => {
    if (!isOpen(opening, date)) return { date, minutes: 0 };
    const away = new Set(off.filter((o) => o.first_date <= date && date <= o.last_date).map((o) => o.technician_id));
    const special = own.get(date) ?? [];
    const others = (usual.get(weekdayOf(date)) ?? []).filter(
      (row) => !special.some((one) => one.technician_id === row.technician_id),
    );
    const works = [...special, ...others].filter((row) => !away.has(row.technician_id));
    return { date, minutes: works.reduce((sum, row) => sum + row.minutes, 0) };
  });
}
