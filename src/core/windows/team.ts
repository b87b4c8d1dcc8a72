import { type PreparedDay, type Rooms, roomsFor } from "@/core/routes/insertion";
import { type LocalDate } from "@/core/time/dates";
import { type Limit } from "./limits";
import { lengthOf, type WindowsQuestion } from "./question";
import type { TechnicianReason } from "./reasons";
import { skillGap } from "./skills";

// ---------------------------------------------------------------- who could come on a date

export interface Team {
  able: AbleTechnician[];
  /** Why the others cannot come, on that date. */
  reasons: TechnicianRefusal[];
  /** Those with the skills who go there and do this, and those of them who are at work that day. */
  suited: string[];
  there: string[];
}

interface AbleTechnician {
  id: string;
  load: number;
  limits: readonly Limit[];
  mostMinutes: number;
  day: PreparedDay;
  rooms: Rooms;
}

export type TechnicianRefusal = { technician: string } & TechnicianReason;

/** Who could come on a date at all, and the room they have: found once for all windows of the date. */
export function teamOn({ technicians, visit, travel, wanted }: WindowsQuestion): (date: LocalDate) => Team {
  const asked = wanted?.only && visit.crew === 1 ? technicians.filter((t) => t.id === wanted.technician) : technicians;
  const length = lengthOf(visit);
  const known = new Map<LocalDate, Team>();

  const read = (date: LocalDate): Team => {
    const able: AbleTechnician[] = [];
    const reasons: TechnicianRefusal[] = [];
    const suited: string[] = [];
    const there: string[] = [];
    for (const { id, skills, bar, limits = [], mostMinutes, day: dayOf } of asked) {
      const gap = skillGap(skills, visit.skills, date);
      if (gap ?? bar) {
        reasons.push({ technician: id, ...(gap ?? { code: bar! }) });
        continue;
      }
      suited.push(id);
      const day = dayOf(date);
      if (day.works)
        able.push({
          id,
          load: day.load,
          limits,
          mostMinutes: mostMinutes ?? Infinity,
          day: day.day,
          rooms: roomsFor(day.day, visit.place, length, travel),
        });
      else reasons.push({ technician: id, code: day.code });
      if (day.works || day.code === "day-not-feasible") there.push(id);
    }
    return { able, reasons, suited, there };
  };
  return (date) => {
    let team = known.get(date);
    if (!team) {
      // Windows come in time order: what lies behind is hardly asked for again, and let go.
      for (const past of known.keys()) if (past < date) known.delete(past);
      known.set(date, (team = read(date)));
    }
    return team;
  };
}
