import { groupBy } from "@/core/group";
import { shortName } from "@/core/people/names";
import { may, seesOnly } from "@/core/people/permissions";
import { minuteOn } from "@/core/time/local";
import { minutesIn } from "@/core/time/spans";
import { lateBy } from "@/core/visits/lateness";
import { visitStates } from "@/core/visits/states";
import { windowsOn } from "@/core/windows/patterns";
import { type Names, reasonWords } from "@/core/windows/words";
import { DateText, input } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { readPattern } from "@/modules/catalogue/window-patterns";
import { inOffice, windowOf } from "@/modules/placing/in-office";
import { unreachable } from "@/modules/messages/reach";
import { idsColumn } from "@/store/columns";
import { asCards, type BoardRow, type BoardStop, type BoardVisit, visitColumns, visitTables } from "../board";
import { loadPlanning } from "../planning";
import { togetherWith } from "../shared-times";
import { placingOf, type VisitRow } from "../visits";
import { answersWithin, namesOf } from "../windows";

/** One day, technician by technician, with what is unplaced. */
export const board = defineView({
  name: "board",
  access: "office.see",
  input: input({ date: DateText }),
  read(context, { date }) {
    const { sql, business, minute, today } = context;
    const zone = business.time_zone;
    const planning = loadPlanning(context, [date]);
    const ofDay = (epoch: number) => minuteOn(date, epoch, zone);
    const unreached = new Set(date < today ? [] : unreachable(context, date, date).map(({ visitId }) => visitId));
    const toVisit = (v: BoardRow & { bookings: number }): BoardVisit => ({
      id: v.id,
      state: v.state,
      code: v.code,
      service: v.service,
      hue: v.hue,
      customer: v.customer,
      site: v.site,
      minutes: v.minutes,
      crew: v.crew,
      bookings: v.bookings,
      repeatId: v.coming_repeat_id,
      confirmed: v.state === "promised" ? v.confirmed : null,
      unreached: unreached.has(v.id),
      windowFrom: ofDay(v.window_from),
      windowTo: ofDay(v.window_to),
    });
    const placed = sql<
      BoardRow & { technician_id: number; drive_from: number; driving: number; arrives: number; leaves: number }
    >(
      `SELECT ${visitColumns}, p.technician_id, p.drive_from, p.driving, p.arrives, p.leaves
        FROM placements p JOIN ${visitTables.replace("visits v", "visits v ON v.id = p.visit_id")}
        WHERE p.date = ? ORDER BY p.arrives`,
    ).all(date);
    const placedBy = groupBy(asCards(placed), (p) => p.technician_id);
    const looks = new Map(
      sql<{ id: number; hue: number; photo: string | null }>("SELECT id, hue, photo FROM technicians")
        .all()
        .map((t) => [t.id, t]),
    );
    const skills = groupBy(
      sql<{ id: number; name: string }>(
        `SELECT ts.technician_id AS id, s.name
          FROM technician_skills ts JOIN skills s ON s.id = ts.skill_id ORDER BY s.name`,
      ).all(),
      (skill) => skill.id,
    );
    const only = seesOnly(context.actor);
    const technicians = planning.technicians
      .filter((t) => only === null || t.id === only)
      .map((technician) => {
        const { absence, reason, hours, errands } = planning.dayOf(technician.id, date);
        const stops = (placedBy.get(technician.id) ?? []).map((p): BoardStop => ({
          ...toVisit(p),
          driveFrom: ofDay(p.drive_from),
          driving: p.driving,
          arrives: ofDay(p.arrives),
          leaves: ofDay(p.leaves),
        }));
        return {
          id: technician.id,
          name: technician.name,
          hue: looks.get(technician.id)!.hue,
          photo: looks.get(technician.id)!.photo,
          skills: (skills.get(technician.id) ?? []).map((skill) => skill.name),
          spans: hours.map(([open, close]) => [ofDay(open), close - open + ofDay(open)] as const),
          errands: errands.map((e) => ({
            id: e.id,
            title: e.title,
            place: e.place,
            from: ofDay(e.begins),
            to: ofDay(e.ends),
          })),
          absence: absence === "off" ? (reason ?? "Off") : absence ? "Not working" : null,
          workable: minutesIn(hours),
          promised: stops.reduce((sum, s) => sum + s.leaves - s.arrives + s.driving, 0),
          stops,
          late: lateVisits(technician.id),
        };
      });
    const unplaced = asCards(
      sql<BoardRow>(
        `SELECT ${visitColumns}
        FROM ${visitTables} WHERE v.date = ? AND v.state IN ${visitStates.sql("move")}
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
        ORDER BY v.state DESC, v.window_from`,
      ).all(date),
    );
    return {
      date,
      technicians,
      tray: only === null ? tray(unplaced) : [],
      windows: windowsOn(readPattern(context), [date], zone).map((w) => [ofDay(w.from), ofDay(w.to)] as const),
      now: date === today ? ofDay(minute) : null,
      timeZone: zone,
      canChange: may(context.actor, "board.change"),
    };

    function tray(rows: readonly (BoardRow & { bookings: number })[]) {
      const visits = new Map(
        sql<VisitRow>("SELECT * FROM visits WHERE id IN (SELECT value FROM json_each(?))")
          .all(idsColumn.write(rows.map((row) => row.id)))
          .map((visit) => [visit.id, visit]),
      );
      const names = namesOf(context);
      return rows.map((row) => ({ ...toVisit(row), best: bestPlacement(context, visits.get(row.id)!, names) }));
    }

    /** Visits of today whose window will be missed if everything goes on from here as planned. */
    function lateVisits(technicianId: number): number[] {
      if (date !== today) return [];
      return (placedBy.get(technicianId) ?? [])
        .filter((p) => lateBy({ state: p.state, windowTo: p.window_to, arrives: p.arrives }, minute) > 0)
        .map((p) => p.id);
    }
  },
});

/** Who takes an unplaced visit best in its own window, or why nobody can: one line for the tray. */
function bestPlacement(
  context: ViewContext,
  visit: VisitRow,
  names: Names,
): { technicianIds: number[]; words: string; fits: boolean } {
  const [answer] = answersWithin(context, placingOf(visit), [windowOf(visit)], {
    ...inOffice(visit),
    without: togetherWith(context, visit).map((v) => v.id),
  });
  if (!answer?.offered)
    return {
      technicianIds: [],
      fits: false,
      words: (answer?.reasons ?? []).slice(-2).map((reason) => reasonWords(reason, names))[0] ?? "Nobody can take it.",
    };
  const crew = answer.technicians.slice(0, visit.crew);
  return {
    technicianIds: crew.map((t) => Number(t.id)),
    fits: true,
    words: `${crew.map((t) => shortName(names.technician(t.id))).join(" and ")}, ${answer.extraDriving} min extra driving`,
  };
}
