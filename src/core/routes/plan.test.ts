import fc from "fast-check";
import { plainDay } from "../../../bench/plain-checker";
import { days, stops, travelTables } from "../../../bench/random-days";
import { planDay, type PlanTechnician, type PlanVisit, standardWeights } from "./plan";

const byDistance = (from: number, to: number) => Math.abs(from - to) * 10;
const technician = (id: string, more: Partial<PlanTechnician> = {}): PlanTechnician => ({
  id,
  skills: [{ skill: "gas" }],
  spans: [[480, 1020]],
  start: 0,
  end: 0,
  ...more,
});
const visit = (id: string, place: number, more: Partial<PlanVisit> = {}): PlanVisit => ({
  id,
  place,
  earliest: 480,
  latest: 900,
  before: 0,
  minutes: 60,
  after: 0,
  skills: [],
  crew: 1,
  technician: null,
  pinned: false,
  ...more,
});

describe("a first plan", () => {
  it("puts neighbours on one route and says when each is reached", () => {
    const { routes, cost } = planDay({
      technicians: [technician("t1"), technician("t2")],
      visits: [visit("v1", 5), visit("v2", 5), visit("v3", 4)],
      travel: byDistance,
    });
    expect(routes.map((r) => r.stops.length).sort()).toEqual([0, 3]);
    expect(cost).toEqual({ total: 100, driving: 100, late: 0, overtime: 0, moved: 0, unplaced: 0 });
  });

  it("leaves out what nobody can do, and says why", () => {
    const { unplaced, cost } = planDay({
      technicians: [technician("t1")],
      travel: byDistance,
      visits: [
        visit("v1", 1, { skills: [{ skill: "roof" }] }),
        visit("v2", 9, { latest: 500 }),
        visit("v3", 1, { crew: 2 }),
        visit("v4", 2, { technician: "t9", pinned: true }),
      ],
    });
    expect(Object.fromEntries(unplaced.map((u) => [u.visit, u.reasons[0]]))).toEqual({
      v1: { code: "no-skill", skill: "roof" },
      v2: { code: "out-of-reach", technician: "t1", shortBy: 70, late: "window" },
      v3: { code: "crew-incomplete", needed: 2, able: ["t1"] },
      v4: { code: "nobody" },
    });
    expect(cost.unplaced).toBe(4 * standardWeights.unplaced);
  });

  it("lets a pinned visit stay where it is, and moves another only where it pays", () => {
    const team = [technician("t1"), technician("t2", { start: 8, end: 8 })];
    const near = (more: Partial<PlanVisit>) =>
      planDay({ technicians: team, visits: [visit("v1", 7, more)], travel: byDistance }).routes.find(
        (r) => r.stops.length,
      )!.technician;
    expect(near({})).toBe("t2");
    expect(near({ technician: "t1", pinned: true })).toBe("t1");
    expect(near({ technician: "t1" })).toBe("t2");
    expect(
      planDay({
        technicians: team,
        visits: [visit("v1", 5, { technician: "t1" })],
        travel: byDistance,
        weights: { moved: 200 },
      }).routes[0]!.stops,
    ).toHaveLength(1);
  });

  it("brings a crew together at one time", () => {
    const { routes, unplaced } = planDay({
      technicians: [technician("t1"), technician("t2", { spans: [[600, 1020]] })],
      visits: [visit("v1", 2, { crew: 2 }), visit("v2", 2)],
      travel: byDistance,
    });
    expect(unplaced).toEqual([]);
    expect(new Set(routes.flatMap((r) => r.stops.filter((s) => s.visit === "v1").map((s) => s.arrive))).size).toBe(1);
  });

  it("keeps every window as a plain simulation sees it, loses no visit and does none twice", () => {
    const teams = fc.array(
      days.map(({ start, end, spans }) => ({ start, end, spans })),
      { minLength: 1, maxLength: 3 },
    );
    fc.assert(
      fc.property(teams, fc.array(stops, { maxLength: 8 }), travelTables, (team, wanted, travel) => {
        const technicians = team.map((t, i) => technician(String(i), t));
        const visits = wanted.map((stop, i) => visit(String(i), stop.place, stop));
        const plan = planDay({ technicians, visits, travel });
        const done = plan.routes.flatMap((r) => r.stops.map((s) => s.visit));
        expect([...done, ...plan.unplaced.map((u) => u.visit)].sort()).toEqual(visits.map((v) => v.id).sort());
        for (const [i, { stops: route, driving }] of plan.routes.entries()) {
          const own = route.map((s) => visits[Number(s.visit)]!);
          const walked = plainDay({ ...technicians[i]!, stops: own }, travel);
          expect(walked?.map((w) => w.arrive)).toEqual(route.map((s) => s.arrive));
          if (own.length === 0) expect(driving).toBe(0);
        }
        for (const { reasons } of plan.unplaced) expect(reasons.length).toBeGreaterThan(0);
      }),
      { numRuns: 300 },
    );
  });
});
