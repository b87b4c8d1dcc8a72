import fc from "fast-check";
import { plainArrivals, plainDay } from "../../../bench/plain-checker";
import { days, travelTables } from "../../../bench/random-days";
import { prepareDay } from "../routes/insertion";
import type { Day, Travel } from "../routes/timing";
import { type WindowAnswer } from "./offer";
import { answerWindows, firstOffers } from "./offers";
import type { WindowsQuestion } from "./question";

const date = "2027-03-11";
const visits = fc.record({
  place: fc.integer({ min: 0, max: 6 }),
  minutes: fc.integer({ min: 1, max: 60 }),
  before: fc.integer({ min: 0, max: 5 }),
  after: fc.integer({ min: 0, max: 5 }),
});
const windows = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 120 })), { minLength: 1, maxLength: 3 })
  .map((list) => list.map(([from, length]) => ({ date, from, to: from + length })));
const teams = fc.array(days, { minLength: 1, maxLength: 3 });

const ask = (
  team: Day[],
  visit: { place: number; minutes: number; before: number; after: number },
  crew: number,
  asked: { date: string; from: number; to: number }[],
  travel: Travel,
): WindowAnswer[] => answerWindows(questionOf(team, visit, crew, asked, travel));

const questionOf = (
  team: Day[],
  visit: { place: number; minutes: number; before: number; after: number },
  crew: number,
  asked: { date: string; from: number; to: number }[],
  travel: Travel,
): WindowsQuestion => ({
  now: -1e6,
  today: date,
  rules: { notice: 0, furthestDays: 10, capacity: { mode: "route" }, limits: [] },
  visit: { ...visit, skills: [], crew },
  windows: asked,
  refusal: () => [],
  travel,
  technicians: team.map((day, i) => ({
    id: String(i),
    skills: [],
    day: () => {
      const prepared = prepareDay(day, travel);
      return prepared ? { works: true, day: prepared, load: 0 } : { works: false, code: "day-not-feasible" };
    },
  })),
});

/** All minutes at which a technician could begin, tried one by one at every place in the order. */
const startsOf = (
  day: Day,
  visit: { place: number; minutes: number; before: number; after: number },
  window: { from: number; to: number },
  travel: Travel,
): Set<number> =>
  new Set(
    plainDay(day, travel) === null
      ? []
      : Array.from({ length: day.stops.length + 1 }, (_, k) =>
          plainArrivals(day, k, { ...visit, earliest: window.from, latest: window.to }, travel),
        ).flat(),
  );

describe("offers, against the plain checker", () => {
  it("are made exactly where somebody can come, name exactly those who can, and only true arrivals", () => {
    fc.assert(
      fc.property(teams, visits, windows, travelTables, (team, visit, asked, travel) => {
        ask(team, visit, 1, asked, travel).forEach((answer, w) => {
          const starts = team.map((day) => startsOf(day, visit, asked[w]!, travel));
          const able = starts.flatMap((s, i) => (s.size ? [String(i)] : []));
          expect(answer.offered ? answer.technicians.map((t) => t.id).sort() : []).toEqual(able);
          if (answer.offered)
            for (const t of answer.technicians)
              for (const arrival of t.arrive) expect(starts[Number(t.id)]!.has(arrival)).toBe(true);
          else
            expect(new Set(answer.reasons.flatMap((r) => ("technician" in r ? [r.technician] : []))).size).toBe(
              team.length,
            );
        });
      }),
      { numRuns: 400 },
    );
  });

  it("of a crew of two are made exactly where two have a start in common", () => {
    fc.assert(
      fc.property(
        fc.array(days, { minLength: 2, maxLength: 3 }),
        visits,
        windows,
        travelTables,
        (team, visit, asked, travel) => {
          ask(team, visit, 2, asked, travel).forEach((answer, w) => {
            const starts = team.map((day) => startsOf(day, visit, asked[w]!, travel));
            const together = starts.some((a, i) =>
              starts.slice(i + 1).some((b) => [...a].some((minute) => b.has(minute))),
            );
            expect(answer.offered).toBe(together);
            if (answer.offered) {
              expect(answer.technicians).toHaveLength(2);
              for (const t of answer.technicians) expect(starts[Number(t.id)]!.has(answer.meetAt!)).toBe(true);
            }
          });
        },
      ),
      { numRuns: 300 },
    );
  });

  it("of two days' work by two people are made exactly where the same two have a start in common on both", () => {
    const second = "2027-03-12";
    fc.assert(
      fc.property(
        fc.array(fc.tuple(days, days), { minLength: 2, maxLength: 3 }),
        visits,
        windows,
        travelTables,
        (team, visit, asked, travel) => {
          const { from, to } = asked[0]!;
          const [answer] = answerWindows({
            now: -1e6,
            today: date,
            rules: { notice: 0, furthestDays: 10, capacity: { mode: "route" }, limits: [] },
            visit: { ...visit, skills: [], crew: 2 },
            windows: [{ date, from, to, followingDays: [{ date: second, from, to }] }],
            refusal: () => [],
            travel,
            technicians: team.map((both, i) => ({
              id: String(i),
              skills: [],
              day: (on) => {
                const prepared = prepareDay(both[on === date ? 0 : 1], travel);
                return prepared ? { works: true, day: prepared, load: 0 } : { works: false, code: "day-not-feasible" };
              },
            })),
          });
          const starts = team.map((both) => both.map((day) => startsOf(day, visit, { from, to }, travel)));
          const meet = (i: number, k: number) =>
            [0, 1].every((d) => [...starts[i]![d]!].some((minute) => starts[k]![d]!.has(minute)));
          expect(answer!.offered).toBe(team.some((_, i) => team.some((__, k) => k > i && meet(i, k))));
          if (!answer?.offered) return;
          for (const { id } of answer.technicians) {
            expect(starts[Number(id)]![0]!.has(answer.meetAt!)).toBe(true);
            expect(starts[Number(id)]![1]!.has(answer.followingDays[0]!.meetAt!)).toBe(true);
          }
        },
      ),
      { numRuns: 200 },
    );
  });

  it("are answered for every window, in order, and never depend on what is asked beside them", () => {
    fc.assert(
      fc.property(teams, visits, windows, travelTables, (team, visit, asked, travel) => {
        const together = ask(team, visit, 1, asked, travel);
        expect(together).toEqual(asked.flatMap((window) => ask(team, visit, 1, [window], travel)));
      }),
    );
  });

  it("are the same for whoever asks only for those of the first days, with only whom they would be given to", () => {
    const dates = [date, "2027-03-12", "2027-03-13"];
    const inTimeOrder = fc
      .array(fc.tuple(fc.constantFrom(...dates), fc.nat(400), fc.nat(120)), { maxLength: 8 })
      .map((all) =>
        all
          .map(([on, from, length]) => ({ date: on, from, to: from + length }))
          .sort((a, b) => (a.date < b.date ? -1 : Number(a.date > b.date))),
      );
    fc.assert(
      fc.property(
        teams,
        visits,
        inTimeOrder,
        travelTables,
        fc.constantFrom(1, 2),
        fc.integer({ min: 1, max: 3 }),
        fc.constantFrom("route", "open", "ask"),
        (team, visit, asked, travel, crew, days, mode) => {
          const question = {
            ...questionOf(team, visit, crew, asked, travel),
            wanted: { technician: "1", only: false },
          };
          question.rules = { ...question.rules, capacity: { mode } };
          const offered = answerWindows(question).filter((answer) => answer.offered);
          const first = [...new Set(offered.map((offer) => offer.date))].slice(0, days);
          expect(firstOffers(question, days)).toEqual(
            offered
              .filter((offer) => first.includes(offer.date))
              .map((offer) => ({ ...offer, technicians: offer.technicians.slice(0, crew) })),
          );
        },
      ),
      { numRuns: 300 },
    );
  });
});
