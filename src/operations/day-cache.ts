import type { LocalDate } from "@/core/time/local";
import type { PlanChange } from "@/store/plan-changes";
import type { ViewContext } from "./door";
import { readDays, type DayKey, type StoredDay } from "./stored-days";

/**
 * Technicians' days, kept in memory for as long as they do not change. The database numbers every
 * change to somebody's day (store/plan-changes.ts); each look asks first, in the transaction it
 * reads in, for changes since the last one, and drops what they touch: one day, one technician's
 * days, or all. So the answers are those of the database at any time, whichever process changed it;
 * without the cache they would be the same, only slower.
 */
export interface DayCache {
  /** The days of these technicians on these dates, read where they are not known. */
  look: (context: ViewContext, technicianIds: readonly number[], dates: readonly LocalDate[]) => (technicianId: number, date: LocalDate) => StoredDay;
  /** Where the cache stands before a transaction; `back` forgets what was read since, where it is rolled back. */
  mark: () => { back: () => void };
}

export function makeDayCache(): DayCache {
  let seen = 0;
  let roads = 0;
  const days = new Map<string, { day: StoredDay; date: LocalDate; technicianId: number; seen: number }>();

  function dropChanged({ sql, hogar }: ViewContext): void {
    if (hogar.gateways.roads.revision() !== roads) {
      roads = hogar.gateways.roads.revision();
      days.clear();
    }
    for (const change of sql<PlanChange>("SELECT technician_id, date, version FROM plan_changes WHERE version > ? ORDER BY version").all(seen)) {
      seen = change.version;
      if (change.technician_id === 0) days.clear();
      else if (change.date === "") dropWhere((kept) => kept.technicianId === change.technician_id);
      else days.delete(`${change.technician_id} ${change.date}`);
    }
  }

  function dropWhere(gone: (kept: { date: LocalDate; technicianId: number; seen: number }) => boolean): void {
    for (const [key, kept] of days) if (gone(kept)) days.delete(key);
  }

  return {
    look(context, technicianIds, dates) {
      dropChanged(context);
      const missing: DayKey[] = [];
      for (const date of dates) for (const technicianId of technicianIds) if (!days.has(`${technicianId} ${date}`)) missing.push({ technicianId, date });
      if (missing.length) {
        dropWhere((kept) => kept.date < context.today);
        const read = readDays(context, missing);
        for (const { technicianId, date } of missing) days.set(`${technicianId} ${date}`, { day: read.get(`${technicianId} ${date}`)!, date, technicianId, seen });
      }
      return (technicianId, date) => days.get(`${technicianId} ${date}`)!.day;
    },
    mark() {
      const before = seen;
      return {
        back() {
          if (seen === before) return;
          dropWhere((kept) => kept.seen > before);
          seen = before;
        },
      };
    },
  };
}
