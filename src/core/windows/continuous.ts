import { insertInto, roomsFor } from "../routes/insertion";
import type { SoonestArrivals } from "./patterns";
import type { WindowsQuestion } from "./question";
import { skillGap } from "./skills";

/** Exact times are said in steps of so many minutes. */
const step = 5;

/**
 * When the visit could begin right after the one before: for every technician who can do it and
 * every place in the order of the day, the soonest arrival within the span, rounded up to five minutes.
 */
export const soonestArrivals =
  ({ technicians, visit, travel }: Pick<WindowsQuestion, "technicians" | "visit" | "travel">): SoonestArrivals =>
  (span) => {
    const length = visit.before + visit.minutes + visit.after;
    const starts = new Set<number>();
    for (const { skills, bar, day: dayOf } of technicians) {
      if (bar || skillGap(skills, visit.skills, span.date)) continue;
      const day = dayOf(span.date);
      if (!day.works) continue;
      for (const room of roomsFor(day.day, visit.place, length, travel).rooms) {
        const soonest = insertInto(room, day.day, span, length);
        const at = soonest && Math.ceil(soonest.arrive / step) * step;
        if (at !== null && at <= soonest!.arriveLatest) starts.add(at);
      }
    }
    return [...starts].sort((a, b) => a - b);
  };
