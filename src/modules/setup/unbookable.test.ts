import type { Question } from "@/core/catalogue/questions";
import { mustPerform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { justOne } from "@/core/catalogue/items";
import { priceItems, readItem, toPlace } from "@/modules/catalogue/catalogue";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { bookableDates, answersFor } from "@/modules/placing/windows";
import { office, one, serviceInput, smallWorld, visitor } from "@demo/small-world";
import fc from "fast-check";
import { canBeBooked } from "./views/can-be-booked";

type World = ReturnType<typeof smallWorld>;

const found = (world: World, serviceId = world.services.sweep) => {
  const result = look(world.hogar, canBeBooked, { serviceId }, office);
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value;
};
/** A set-up that no form would save, too. */
const changed = ({ hogar: { store } }: World, statement: string, ...values: unknown[]) =>
  store.audit.under({ at: 1, actor: "test", operation: "test" }, () => void store.sql(statement).run(...values));

/** What is said of the sweep when one thing of the set-up is otherwise. */
function saidWhen(...changes: string[]): string[] {
  const world = smallWorld();
  for (const statement of changes) changed(world, statement);
  return found(world).map(({ sentence }) => sentence);
}
const sweep = "“Chimney sweep” cannot be booked in Harbourside: ";

it("finds nothing where it fits together", () => {
  expect(saidWhen()).toEqual([]);
});

it.each([
  [
    "windows on closed days only",
    "UPDATE pattern_parts SET weekdays = 64",
    "nobody who can do it works on the days of its windows",
  ],
  [
    "days without the zone",
    "UPDATE zones SET weekdays = 64",
    "its windows are on days on which this zone is not served",
  ],
  [
    "hours of the zone",
    "UPDATE zones SET serve_to = 500",
    "its windows lie outside the hours in which this zone is served",
  ],
  [
    "notice beyond the horizon",
    "UPDATE services SET notice_minutes = 57600",
    "40 days of notice are asked for, and bookings are taken only 30 days ahead",
  ],
  ["a limit of nothing", "INSERT INTO limits VALUES ('business', 0, 'day', 0)", "the limit of visits is 0"],
  ["a count without a number", "UPDATE services SET capacity = 'count'", "the limit of visits is 0"],
  [
    "work longer than a day",
    "UPDATE services SET minutes = 600",
    "it takes 10 h, and nobody who can do it works that long on end from a window on",
  ],
  ["a skill that nobody has", "UPDATE service_skills SET level = 3", "no technician has all the skills it asks for"],
  [
    "people who are placed by the office",
    "UPDATE technicians SET offered = 0",
    "whoever can do it is placed by the office only",
  ],
  ["no windows", "DELETE FROM pattern_parts", "no window begins within the 30 days for which bookings are taken"],
  [
    "closed for years",
    "INSERT INTO special_days VALUES (9, 'Rebuilding', '2027-01-01', '2029-01-01', 0, '[]')",
    "on every day with a window we are closed, such as 9 March 2027, Rebuilding",
  ],
])("names the one setting: %s", (_, change, words) => {
  expect(saidWhen(change)).toEqual([`${sweep}${words}.`]);
});

it("finds answers that ask for more people or more time than there is, and says so of those alone", () => {
  const world = smallWorld();
  const questions: Question[] = [
    { id: "high", words: "Is it high?", required: true, kind: "yes-no", yes: { crew: 3 } },
    { id: "flues", words: "How many?", required: true, kind: "count", min: 1, max: 30, each: { minutes: 20 } },
  ];
  const { id } = mustPerform(
    world.hogar,
    saveService,
    { ...serviceInput, id: null, code: "RF", name: "Roof work", priceMinor: 9000, minutes: 60, questions },
    office,
  );
  expect(found(world, id).map(({ sentence }) => sentence)).toEqual([
    expect.stringContaining("“Roof work” with the longest answers (11 h) cannot be booked in Harbourside"),
  ]);
  changed(world, "UPDATE services SET questions = json_remove(questions, '$[1]') WHERE id = ?", id);
  expect(found(world, id)).toMatchObject([
    {
      sentence:
        "“Roof work” with the answers that ask for most people (3) cannot be booked in Harbourside: the job needs 3 people and only 2 of them are free.",
    },
  ]);
});

it("leads to where it is mended", () => {
  const world = smallWorld();
  changed(world, "UPDATE zones SET weekdays = 64");
  const { id } = one<{ id: number }>(world.hogar, "SELECT id FROM zones");
  expect(found(world)).toMatchObject([{ part: "zones", id }]);
});

const minute = (most = 1440) => fc.integer({ min: 0, max: most / 15 }).map((n) => n * 15);
const span = fc
  .tuple(minute(1425), minute())
  .map(([a, b]) => (a < b ? [a, b] : [b, a + 15]))
  .map(([from, to]) => [from!, Math.min(to!, 1440)] as const);
const week = fc.integer({ min: 1, max: 127 });
const setUp = fc.record({
  horizon: fc.integer({ min: 1, max: 20 }),
  notice: fc.constantFrom(0, 60, 1440, 14_400, 40_000),
  minutes: fc.constantFrom(15, 60, 180, 400, 900),
  crew: fc.integer({ min: 1, max: 3 }),
  capacity: fc.constantFrom("route", "count", "open"),
  level: fc.constantFrom(1, 1, 2),
  zone: fc.tuple(week, span),
  opening: fc.option(fc.tuple(week, span)),
  hours: fc.option(fc.tuple(week, span)),
  shift: span,
  away: fc.boolean(),
  limit: fc.option(fc.tuple(fc.constantFrom("window", "day", "week"), fc.integer({ min: 0, max: 2 }))),
  closed: fc.boolean(),
  part: fc.tuple(fc.constantFrom("window", "stepping", "exact", "continuous"), week, span),
});
type SetUp = typeof setUp extends fc.Arbitrary<infer S> ? S : never;

/** Makes a business what is drawn; nothing is booked with it. */
function become(world: World, s: SetUp): void {
  const run = (statement: string, ...values: unknown[]) => changed(world, statement, ...values);
  const weekdays = (mask: number) => [0, 1, 2, 3, 4, 5, 6].filter((day) => mask & (1 << day));
  run("UPDATE business SET horizon_days = ?, notice_minutes = 0", s.horizon);
  run(
    "UPDATE services SET notice_minutes = ?, minutes = ?, crew = ?, capacity = ?",
    s.notice,
    s.minutes,
    s.crew,
    s.capacity,
  );
  run("UPDATE service_skills SET level = ?", s.level);
  run("UPDATE zones SET weekdays = ?, serve_from = ?, serve_to = ?", s.zone[0], ...s.zone[1]);
  for (const table of [
    "opening_hours",
    "service_hours",
    "working_spans",
    "time_off",
    "limits",
    "special_days",
    "pattern_parts",
  ])
    run(`DELETE FROM ${table}`);
  for (const day of s.opening ? weekdays(s.opening[0]) : [])
    run("INSERT INTO opening_hours VALUES (?, ?, ?)", day, ...s.opening![1]);
  for (const day of s.hours ? weekdays(s.hours[0]) : [])
    run("INSERT INTO service_hours SELECT id, ?, ?, ? FROM services", day, ...s.hours![1]);
  for (const day of [0, 1, 2, 3, 4])
    run("INSERT INTO working_spans SELECT id, ?, ?, ? FROM technicians", day, ...s.shift);
  if (s.away)
    run(
      "INSERT INTO time_off (technician_id, first_date, last_date, reason) SELECT min(id), '2027-01-01', '2028-01-01', 'Leave' FROM technicians",
    );
  if (s.limit) run("INSERT INTO limits VALUES ('business', 0, ?, ?)", ...s.limit);
  if (s.closed) run("INSERT INTO special_days VALUES (1, 'Rebuilding', '2027-03-08', '2027-03-18', 0, '[]')");
  const [kind, mask, [from, to]] = s.part;
  const cuts = kind === "stepping" || kind === "exact";
  run(
    "INSERT INTO pattern_parts SELECT id, 0, ?, ?, ?, ?, ?, ? FROM patterns",
    kind,
    mask,
    Math.min(from, 1439),
    to,
    kind === "stepping" ? 60 : null,
    cuts ? 30 : null,
  );
}

it("names something exactly where the engine has nothing to offer, whatever the set-up", () => {
  const world = smallWorld();
  fc.assert(
    fc.property(setUp, (drawn) => {
      become(world, drawn);
      const context = viewContext(world.hogar, visitor);
      const items = [readItem(context, justOne(world.services.sweep))];
      const { id } = one<{ id: number }>(world.hogar, "SELECT id FROM zones");
      const visit = toPlace(context, items, context.business, id, priceItems(context, items, null));
      const isOffered = answersFor(context, visit, bookableDates(context)).some(({ offered }) => offered);
      expect(found(world).length).toBe(isOffered ? 0 : 1);
    }),
    { numRuns: 1000 },
  );
});
