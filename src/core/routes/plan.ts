import type { Span } from "../time/spans";
import { type HeldSkill, skillGap, type SkillNeed } from "../windows/skills";
import { commonStarts } from "./crew";
import {
  bestInto,
  insertionsInto,
  nearestMiss,
  type NearMiss,
  prepareDay,
  type PreparedDay,
  roomsFor,
} from "./insertion";
import { type Stop, timeDay, type Travel, work } from "./timing";

/** A day to be planned: who is there, and what is to be done. Times are integers of one unit. */
export interface PlanQuestion {
  technicians: readonly PlanTechnician[];
  visits: readonly PlanVisit[];
  travel: Travel;
  weights?: Partial<PlanWeights>;
}

export interface PlanTechnician {
  id: string;
  skills: readonly HeldSkill[];
  spans: readonly Span[];
  start: number;
  end: number;
}

export interface PlanVisit extends Stop {
  id: string;
  skills: readonly SkillNeed[];
  crew: number;
  /** Who has it today, or null. */
  technician: string | null;
  /** Nobody else may have it. */
  pinned: boolean;
}

/** What a unit of each is worth: a minute of driving, a visit left out, a visit that changes hands. */
export interface PlanWeights {
  driving: number;
  unplaced: number;
  moved: number;
}
export const standardWeights: PlanWeights = { driving: 1, unplaced: 1_000_000, moved: 30 };

type UnplacedReason =
  | { code: "no-skill"; skill: string; level?: number }
  | { code: "skill-expired"; skill: string }
  | { code: "nobody" }
  | { code: "crew-incomplete"; needed: number; able: string[] }
  | { code: "day-not-feasible"; technician: string }
  | { code: "out-of-reach"; technician: string; shortBy: number | null; late: NearMiss["late"] };

export interface Plan {
  routes: { technician: string; stops: { visit: string; arrive: number; leave: number }[]; driving: number }[];
  unplaced: { visit: string; reasons: UnplacedReason[] }[];
  cost: { total: number; driving: number; late: number; overtime: number; moved: number; unplaced: number };
  /** Visits put into a route. */
  iterations: number;
}

type PlacedVisit = Stop & { visit: PlanVisit };

interface Route {
  technician: PlanTechnician;
  day: PreparedDay<PlacedVisit>;
}

/**
 * A first plan by regret insertion: again and again, the visit goes in that would lose most by having
 * to take its second-best route (Potvin and Rousseau, A parallel route building algorithm for the
 * vehicle routing and scheduling problem with time windows, 1993). Crews of several go first, since
 * they are hardest to bring together. Nothing is ever late or overtime.
 */
export function planDay({ technicians, visits, travel, weights: given = {} }: PlanQuestion): Plan {
  const weights = { ...standardWeights, ...given };
  const routes = technicians.flatMap((technician): Route[] => {
    const day = prepareDay<PlacedVisit>(
      { start: technician.start, end: technician.end, spans: technician.spans, stops: [] },
      travel,
    );
    return day ? [{ technician, day }] : [];
  });
  const left = new Set<PlanVisit>();
  for (const visit of visits) {
    if (visit.crew === 1) left.add(visit);
    else if (!placeCrew(visit)) left.add(visit);
  }
  placeByRegret([...left].filter((visit) => visit.crew === 1));
  return answer();

  function may({ technician }: Route, visit: PlanVisit): boolean {
    return (
      skillGap(technician.skills, visit.skills, "") === null &&
      (!visit.pinned || visit.technician === null || visit.technician === technician.id)
    );
  }

  function placeCrew(visit: PlanVisit): boolean {
    const members = routes
      .filter((route) => may(route, visit))
      .map((route) => {
        const insertions = insertionsInto(
          roomsFor(route.day, visit.place, work(visit), travel),
          route.day,
          { from: visit.earliest, to: visit.latest },
          work(visit),
        );
        return { id: route.technician.id, day: route.day, insertions, route };
      });
    const [best] = commonStarts(members, work(visit), visit.crew)
      .map(({ at, members: together }) => {
        const crew = [...together]
          .map(([id, { position, extraDriving }]) => ({ id, position, extraDriving }))
          .sort((a, b) => a.extraDriving - b.extraDriving || (a.id < b.id ? -1 : 1))
          .slice(0, visit.crew);
        return { at, crew, driving: crew.reduce((sum, c) => sum + c.extraDriving, 0) };
      })
      .sort((a, b) => a.driving - b.driving);
    for (const { id, position } of best?.crew ?? [])
      insert(
        routes.find((r) => r.technician.id === id)!,
        { ...visit, earliest: best!.at, latest: best!.at, visit },
        position,
      );
    return best !== undefined;
  }

  function placeByRegret(open: PlanVisit[]): void {
    // What it would cost to put each visit into each route: after every step only one route is asked again.
    const costs = new Map(open.map((visit) => [visit, routes.map((route) => insertionCost(route, visit))]));
    for (;;) {
      let next: { visit: PlanVisit; route: number; regret: number; cost: number } | null = null;
      for (const [visit, row] of costs) {
        let [best, second, route] = [Infinity, Infinity, -1];
        row.forEach((cost, r) => {
          if (cost < best) [second, best, route] = [best, cost, r];
          else if (cost < second) second = cost;
        });
        if (route < 0) continue;
        const regret = Math.min(second, weights.unplaced) - best;
        if (!next || regret > next.regret || (regret === next.regret && best < next.cost))
          next = { visit, route, regret, cost: best };
      }
      if (!next) return;
      const route = routes[next.route]!;
      const { visit } = next;
      const at = bestInto(
        roomsFor(route.day, visit.place, work(visit), travel),
        route.day,
        { from: visit.earliest, to: visit.latest },
        work(visit),
      )!;
      insert(route, { ...visit, visit }, at.position);
      costs.delete(visit);
      for (const [other, row] of costs) row[next.route] = insertionCost(route, other);
    }
  }

  function insertionCost(route: Route, visit: PlanVisit): number {
    if (!may(route, visit)) return Infinity;
    const best = bestInto(
      roomsFor(route.day, visit.place, work(visit), travel),
      route.day,
      { from: visit.earliest, to: visit.latest },
      work(visit),
    );
    if (!best) return Infinity;
    // A route that is not driven yet begins to cost the way it takes anyway.
    const extra = best.extraDriving + (route.day.stops.length ? 0 : travel(route.day.start, route.day.end));
    const moved = visit.technician !== null && visit.technician !== route.technician.id;
    return extra * weights.driving + (moved ? weights.moved : 0);
  }

  function insert(route: Route, stop: PlacedVisit, position: number): void {
    const { start, end, spans, stops } = route.day;
    route.day = prepareDay(
      { start, end, spans, stops: [...stops.slice(0, position), stop, ...stops.slice(position)] },
      travel,
    )!;
    left.delete(stop.visit);
  }

  function answer(): Plan {
    const timed = routes.map(({ technician, day }) => {
      const timing = timeDay(day, travel);
      if (!timing.ok) throw new Error("A planned day must be feasible");
      return {
        technician: technician.id,
        stops: day.stops.map(({ visit }, i) => ({
          visit: visit.id,
          arrive: timing.stops[i]!.arrive,
          leave: timing.stops[i]!.leave,
        })),
        driving: day.stops.length ? timing.driving : 0,
      };
    });
    const driving = timed.reduce((sum, route) => sum + route.driving, 0) * weights.driving;
    const moved =
      routes.flatMap(({ technician, day }) =>
        day.stops.filter(({ visit }) => visit.technician !== null && visit.technician !== technician.id),
      ).length * weights.moved;
    const unplaced = left.size * weights.unplaced;
    return {
      routes: timed,
      unplaced: [...left].map((visit) => ({ visit: visit.id, reasons: reasonsAgainst(visit) })),
      cost: { total: driving + moved + unplaced, driving, late: 0, overtime: 0, moved, unplaced },
      iterations: visits.length - left.size,
    };
  }

  /** A skill that nobody has is said once; otherwise each technician says what is short. */
  function reasonsAgainst(visit: PlanVisit): UnplacedReason[] {
    const gaps = technicians.map((t) => skillGap(t.skills, visit.skills, ""));
    const missing = gaps.find((gap) => gap !== null);
    if (missing && gaps.every((gap) => gap !== null)) return [missing];
    const able = routes.filter((route) => may(route, visit));
    if (able.length < visit.crew)
      return visit.crew > 1
        ? [{ code: "crew-incomplete", needed: visit.crew, able: able.map((r) => r.technician.id) }]
        : [{ code: "nobody" }];
    const reach = able.flatMap(({ technician, day }): UnplacedReason[] => {
      const rooms = roomsFor(day, visit.place, work(visit), travel);
      if (bestInto(rooms, day, { from: visit.earliest, to: visit.latest }, work(visit))) return [];
      const { shortBy, late } = nearestMiss(rooms, day, { from: visit.earliest, to: visit.latest }, work(visit));
      return [
        { code: "out-of-reach", technician: technician.id, shortBy: Number.isFinite(shortBy) ? shortBy : null, late },
      ];
    });
    return visit.crew > 1
      ? [
          ...reach,
          {
            code: "crew-incomplete",
            needed: visit.crew,
            able: able
              .map((r) => r.technician.id)
              .filter((id) => !reach.some((r) => "technician" in r && r.technician === id)),
          },
        ]
      : reach;
  }
}
