import type { LocalDate } from "@/core/time/dates";
import type { Hogar } from "@/kernel/hogar";
import type { ViewContext } from "@/kernel/operation";
import { keptWith } from "@/store/kept";
import type { PlanChange } from "@/store/plan-changes";
import { type DayKey, readDays, type StoredDay } from "./stored-days";

/**
 * Technicians' days, kept in memory for as long as they do not change. The database numbers every
 * change to somebody's day (store/plan-changes.ts); each look asks first, in the transaction it
 * reads in, for changes since the last one, and drops what they touch: one day, one technician's
 * days, or all. So the answers are those of the database at any time, whichever process changed it;
 * without the cache they would be the same, only slower.
 */
export interface DayCache {
  /** The days of these technicians on these dates, read where they are not known. */
  look: (
    context: ViewContext,
    technicianIds: readonly number[],
    dates: readonly LocalDate[],
  ) => (technicianId: number, date: LocalDate) => StoredDay;
  /** Where the cache stands before a transaction; `back` forgets what was read since, where it is rolled back. */
  mark: () => { back: () => void };
}

/** The cache of an application's days, made when it is first asked for. */
export const dayCacheOf = ({ store }: Hogar): DayCache =>
  keptWith(store, "days", () => {
    const cache = makeDayCache();
    store.caches.push(cache);
    return cache;
  });

function makeDayCache(): DayCache {
  let seen = 0;
  let roads = 0;
  const days = new Map<LocalDate, Map<number, KeptDay>>();

  function dropChanged({ sql, hogar }: ViewContext): void {
    if (hogar.gateways.roads.revision() !== roads) {
      roads = hogar.gateways.roads.revision();
      days.clear();
    }
    for (const change of sql<PlanChange>(
      "SELECT technician_id, date, version FROM plan_changes WHERE version > ? ORDER BY version",
    ).all(seen)) {
      seen = change.version;
      if (change.technician_id === 0) days.clear();
      else if (change.date === "") for (const ofDate of days.values()) ofDate.delete(change.technician_id);
      else days.get(change.date)?.delete(change.technician_id);
    }
  }

  return {
    look(context, technicianIds, dates) {
      dropChanged(context);
      for (const date of days.keys()) if (date < context.today) days.delete(date);
      const missing: DayKey[] = [];
      for (const date of dates) {
        const ofDate = days.get(date);
        for (const technicianId of technicianIds) if (!ofDate?.has(technicianId)) missing.push({ technicianId, date });
      }
      if (missing.length) {
        const read = readDays(context, missing);
        for (const { technicianId, date } of missing) {
          let ofDate = days.get(date);
          if (!ofDate) days.set(date, (ofDate = new Map()));
          ofDate.set(technicianId, { day: read.get(`${technicianId} ${date}`)!, seen });
        }
      }
      return (technicianId, date) => days.get(date)!.get(technicianId)!.day;
    },
    mark() {
      const before = seen;
      return {
        back() {
          if (seen === before) return;
          for (const ofDate of days.values())
            for (const [id, kept] of ofDate) if (kept.seen > before) ofDate.delete(id);
          seen = before;
        },
      };
    },
  };
}

interface KeptDay {
  day: StoredDay;
  /** The number of the last change that was known when it was read. */
  seen: number;
}
