import { groupBy } from "@/core/group";
import { shortName } from "@/core/people/names";
import { may, seesOnly } from "@/core/people/permissions";
import { addDays, datesFrom } from "@/core/time/dates";
import { localOf } from "@/core/time/local";
import { isOpen } from "@/core/time/opening";
import { minutesIn } from "@/core/time/spans";
import { lateBy } from "@/core/visits/lateness";
import { visitStates } from "@/core/visits/states";
import { windowsOn } from "@/core/windows/patterns";
import { type Names, reasonWords } from "@/core/windows/words";
import { DateText, Id, input, Nothing } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { readPattern } from "@/modules/catalogue/patterns";
import { idsColumn } from "@/store/columns";
import { type BoardRow, type BoardStop, type BoardVisit, visitColumns, visitTables } from "../board";
import { readOpening } from "../opening-hours";
import { loadPlanning } from "../planning";
import { daysOfWork, placingOf, readVisit, type VisitRow } from "../visits";
import { answersWithin, type AskOptions, explainWithin, namesOf } from "../windows";

const PlacementOptions = input({ visitId: Id, date: DateText });

/** One day, technician by technician, with what is unplaced. */
export const board = defineView({
  name: "board",
  access: "office.see",
  input: input({ date: DateText }),
  read(context, { date }) {
    const { sql, business, minute, today } = context;
    const zone = business.time_zone;
    const planning = loadPlanning(context, [date]);
    const ofDay = (epoch: number) => localOf(epoch, zone).minute;
    const toVisit = (v: BoardRow): BoardVisit => ({
      id: v.id,
      state: v.state,
      code: v.code,
      service: v.service,
      hue: v.hue,
      customer: v.customer,
      site: v.site,
      minutes: v.minutes,
      crew: v.crew,
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
    const placedBy = groupBy(placed, (p) => p.technician_id);
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
    const unplaced = sql<BoardRow>(
      `SELECT ${visitColumns}
        FROM ${visitTables} WHERE v.date = ? AND v.state IN ${visitStates.sql("move")}
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
        ORDER BY v.state DESC, v.window_from`,
    ).all(date);
    return {
      date,
      technicians,
      tray: only === null ? tray(unplaced) : [],
      windows: windowsOn(readPattern(context), [date], zone).map((w) => [ofDay(w.from), ofDay(w.to)] as const),
      now: date === today ? ofDay(minute) : null,
      timeZone: zone,
      canChange: may(context.actor, "board.change"),
    };

    function tray(rows: readonly BoardRow[]) {
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
    without: [visit.id],
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

const windowOf = (visit: VisitRow) => ({ date: visit.date, from: visit.window_from, to: visit.window_to });

/** A person in the office is not bound by the booking rules; forecasts do not push one another aside. */
const inOffice = (visit: VisitRow): AskOptions => ({
  strict: false,
  ...(visit.state === "forecast" && { forecasts: "full" }),
});

/** For moving a visit on a date: each window and each technician, with what it would cost or why it cannot be. */
export const placementOptions = defineView({
  name: "placement-options",
  access: "board.change",
  input: PlacementOptions,
  read(context, { visitId, date }) {
    const { business } = context;
    const visit = readVisit(context, visitId);
    const own = date === visit.date ? [windowOf(visit)] : [];
    const pattern = windowsOn(readPattern(context, placingOf(visit).serviceIds), [date], business.time_zone).filter(
      (w) => !own.some((o) => o.from === w.from && o.to === w.to),
    );
    const windows = [...own, ...pattern].sort((a, b) => a.from - b.from);
    const days = visit.first_visit_id === null ? daysOfWork(context, visit) : [visit];
    const options = { ...inOffice(visit), without: days.map((d) => d.id) };
    // Of a crew, each is looked at alone; who can come together is asked once more.
    const alone = explainWithin(context, { ...placingOf(visit, days.length), crew: 1 }, windows, options);
    const together = visit.crew > 1 ? answersWithin(context, placingOf(visit, days.length), windows, options) : [];
    const names = namesOf(context);
    return windows.map((window, i) => {
      const crew = together[i];
      return {
        from: localOf(window.from, business.time_zone).minute,
        to: localOf(window.to, business.time_zone).minute,
        isPromised: window.from === visit.window_from && window.to === visit.window_to,
        technicians: alone[i]!.technicians.map(({ id, fits, reason }) => ({
          id: Number(id),
          name: names.technician(id),
          ...(fits
            ? {
                fits: true as const,
                extraDriving: fits.extraDriving,
                arrives: localOf(fits.arrive[0], business.time_zone).minute,
              }
            : { fits: false as const, why: reasonWords({ technician: id, ...reason! }, names) }),
        })),
        crew: crew?.offered ? crew.technicians.map((t) => Number(t.id)) : null,
      };
    });
  },
});

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
        "SELECT date, sum(leaves - arrives + driving) AS minutes FROM placements WHERE date BETWEEN ? AND ? GROUP BY date",
      )
        .all(today, dates.at(-1)!)
        .map((d) => [d.date, d.minutes]),
    );
    const unplaced = new Map(
      sql<{ date: string; n: number }>(
        `SELECT date, count(*) AS n
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
