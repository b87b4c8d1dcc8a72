import { groupBy } from "@/core/group";
import { windowIn } from "@/core/time/local-words";
import type { LocalDate } from "@/core/time/dates";
import { calendarRefusal } from "@/core/windows/calendar";
import type { Reason } from "@/core/windows/reasons";
import { type HeldSkill, type SkillNeed, skillGap } from "@/core/windows/skills";
import { reasonWords } from "@/core/windows/words";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { idsColumn, skillNeedsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { readBars } from "./bars";
import { dayCacheOf } from "./day-cache";
import { answersWithin, calendarFor, namesOf } from "./windows";
import { placingOf, readVisit, type VisitRow } from "./visits";

/** Which promises a change of set-up can touch. */
export type Touches = { technicianId: number } | { zoneId: number } | { serviceId: number } | "all";

interface Placed extends VisitRow {
  technician_id: number;
  arrives: number;
  leaves: number;
}

/**
 * Promised visits that lie ahead, with a technician, and cannot be kept as things are set up: by what is open, by zone and
 * service, by the skills, hours and limits of whoever is to come. Answers the first reason of each.
 */
function misfits(context: ViewContext, touches: Touches): Map<number, Reason> {
  const { sql, today } = context;
  const of = touches === "all" ? {} : touches;
  const rows = sql<Placed>(
    `SELECT v.*, p.technician_id, p.arrives, p.leaves FROM visits v JOIN placements p ON p.visit_id = v.id
      WHERE v.state = 'promised' AND v.date >= @today
        AND (@technicianId IS NULL OR p.technician_id = @technicianId) AND (@zoneId IS NULL OR v.zone_id = @zoneId)
        AND (@serviceId IS NULL OR v.service_id = @serviceId)`,
  ).all({ today, technicianId: null, zoneId: null, serviceId: null, ...of });
  const found = new Map<number, Reason>();
  if (rows.length === 0) return found;
  const byTechnician = checksOf(context, rows);
  const calendars = memoBy(
    (v: Placed) => `${v.zone_id} ${v.service_id} ${v.also} ${v.work_place}`,
    (v) => calendarRefusal({ ...calendarFor(context, placingOf(v)), nearest: null }),
  );
  for (const row of rows) {
    if (found.has(row.id)) continue;
    const [rule] = calendars(row)({ date: row.date, from: row.window_from, to: row.window_to });
    const reason = rule ?? byTechnician(row);
    if (reason) found.set(row.id, reason);
  }
  return found;
}

/** What keeps whoever is to come from a visit: skills, zone and services, hours, work of the day. */
function checksOf(context: ViewContext, rows: readonly Placed[]): (row: Placed) => Reason | null {
  const { sql, hogar } = context;
  const skills = groupBy(
    sql<{ technician_id: number; skill_id: number; level: number; valid_until: string | null }>(
      "SELECT * FROM technician_skills",
    ).all(),
    (row) => row.technician_id,
  );
  const held = (id: number): HeldSkill[] =>
    (skills.get(id) ?? []).map((s) => ({ skill: String(s.skill_id), level: s.level, until: s.valid_until }));
  const bars = memoBy(
    (zoneId: number | null) => String(zoneId),
    (zoneId) => readBars(context, zoneId, true),
  );
  const ids = [...new Set(rows.map((row) => row.technician_id))];
  const days = dayCacheOf(hogar).look(context, ids, [...new Set(rows.map((row) => row.date))].sort());
  return (row) => {
    const id = row.technician_id;
    const by = { technician: String(id) };
    const gap = skillGap(held(id), skillNeedsColumn.read(row.skills) as SkillNeed[], row.date);
    if (gap) return { ...by, ...gap };
    const bar = bars(row.zone_id).of(id, [row.service_id, ...idsColumn.read(row.also)]);
    if (bar) return { ...by, code: bar };
    const day = days(id, row.date);
    if (day.absence) return { ...by, code: day.absence };
    if (!day.spans.some(([from, to]) => from <= row.arrives && row.leaves <= to))
      return { ...by, code: "outside-hours" };
    const most = bars(row.zone_id).mostMinutes(id);
    const taken = day.placed.reduce((sum, p) => sum + p.before_minutes + p.minutes + p.after_minutes, 0);
    return most !== null && taken > most ? { ...by, code: "hours-full", taken, most } : null;
  };
}

function memoBy<K, V>(keyOf: (key: K) => string, make: (key: K) => V): (key: K) => V {
  const known = new Map<string, V>();
  return (key) => {
    const name = keyOf(key);
    let value = known.get(name);
    if (value === undefined) known.set(name, (value = make(key)));
    return value;
  };
}

/** Makes a change of set-up, and writes down which promises it has made such that they cannot be kept: they wait for a person. */
export function touching<R>(context: OperationContext, touches: Touches, change: () => R): R {
  const before = misfits(context, touches);
  const done = change();
  for (const visitId of misfits(context, touches).keys())
    if (!before.has(visitId))
      insertRow(
        context.sql,
        "unkept_promises",
        { visit_id: visitId, since: context.now, kept: 0 },
        "ON CONFLICT DO UPDATE SET since = excluded.since, kept = 0",
      );
  return done;
}

/** A promise that cannot be kept as things are set up, as a person reads it. */
export interface Unkept {
  visitId: number;
  date: LocalDate;
  window: string;
  customer: string;
  title: string;
  technician: string;
  why: string;
  /** Whether somebody else might keep it: what stands against it is of whoever was to come. */
  isPersonal: boolean;
}

/** Promises that wait for a person since set-up was changed, soonest first; those that fit again, or were settled, do not. */
export function unkeptPromises(context: ViewContext, most: number): { n: number; first: Unkept[] } {
  const { sql, today, business } = context;
  const waiting = sql<{ visit_id: number }>(
    `SELECT u.visit_id FROM unkept_promises u JOIN visits v ON v.id = u.visit_id
      WHERE u.kept = 0 AND v.state = 'promised' AND v.date >= ? ORDER BY v.date, v.window_from`,
  ).all(today);
  if (waiting.length === 0) return { n: 0, first: [] };
  const still = misfits(context, "all");
  const names = namesOf(context);
  const open = waiting.filter(({ visit_id }) => still.has(visit_id));
  return {
    n: open.length,
    first: open.slice(0, most).map(({ visit_id: visitId }) => {
      const visit = readVisit(context, visitId);
      const reason = still.get(visitId)!;
      return {
        visitId,
        date: visit.date,
        window: windowIn(visit.window_from, visit.window_to, business.time_zone),
        title: visit.title,
        why: reasonWords(reason, names),
        isPersonal: "technician" in reason,
        ...sql<{ customer: string; technician: string }>(
          `SELECT c.name AS customer,
              (SELECT group_concat(t.name, ', ') FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = @visitId) AS technician
            FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = @jobId`,
        ).get({ visitId, jobId: visit.job_id })!,
      };
    }),
  };
}

/** Who can keep a promise in its window, as things are set up; null where nobody can. */
export function whoElse(context: ViewContext, visitId: number): string[] | null {
  const visit = readVisit(context, visitId);
  const window = { date: visit.date, from: visit.window_from, to: visit.window_to };
  const [answer] = answersWithin(context, placingOf(visit), [window], {
    office: true,
    without: [visitId],
    isBeyond: true,
    // What was agreed may lie at other times than are offered now.
    strict: false,
  });
  return answer?.offered && answer.technicians.length >= visit.crew
    ? answer.technicians.slice(0, visit.crew).map(({ id }) => id)
    : null;
}
