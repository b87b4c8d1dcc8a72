import { prepareDay } from "@/core/routes/insertion";
import { type Stop, work } from "@/core/routes/timing";
import { datesFrom, weekdayOf } from "@/core/time/dates";
import { epochMinute, localOf } from "@/core/time/local";
import { joinSpans, type Span } from "@/core/time/spans";
import { clock, parseClock } from "@/core/time/words";
import { calendarRefusal } from "@/core/windows/calendar";
import { type Limit, takenOf } from "@/core/windows/limits";
import { answerWindows } from "@/core/windows/offers";
import { windowsOn } from "@/core/windows/patterns";
import { type Capacity, type TechnicianDay } from "@/core/windows/question";
import { type Static, Type } from "@sinclair/typebox";
import { BadInput, readJson } from "./read-json";
import {
  checkPlace,
  checkSpans,
  checkUnique,
  Count,
  epochOf,
  Id,
  Matrix,
  Moment,
  object,
  Skill,
  toSkill,
  travelBy,
} from "./shapes";

const Clock = Type.String({ format: "clock" });
const Day = Type.String({ format: "date" });
const OrNull = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T) => Type.Union([schema, Type.Null()]);
const weekdays = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"] as const;

const Week = Type.Unsafe<Partial<Record<(typeof weekdays)[number], [string, string][]>>>(
  Type.Partial(
    Type.Object(Object.fromEntries(weekdays.map((day) => [day, Type.Array(Type.Tuple([Clock, Clock]))])), {
      additionalProperties: false,
    }),
  ),
);

/** docs/formats.md describes it for its readers. */
export const WindowsInput = object({
  timeZone: Type.String({ format: "time-zone" }),
  now: Moment,
  from: Day,
  to: Day,
  windows: Type.Array(Type.Tuple([Clock, Clock])),
  closed: Type.Optional(Type.Array(Day)),
  rules: object({
    notice: Type.Optional(Count),
    furthestDays: Type.Optional(Count),
    mode: Type.Optional(
      Type.Union(["route", "count", "open", "ask"].map((mode) => Type.Literal(mode as Capacity["mode"]))),
    ),
    perWindow: Type.Optional(OrNull(Count)),
    perDay: Type.Optional(OrNull(Count)),
    perWeek: Type.Optional(OrNull(Count)),
  }),
  request: object({
    place: Count,
    minutes: Type.Integer({ minimum: 1 }),
    before: Type.Optional(Count),
    after: Type.Optional(Count),
    skills: Type.Optional(Type.Array(Skill)),
    crew: Type.Optional(Type.Integer({ minimum: 1 })),
    technician: Type.Optional(OrNull(Id)),
    only: Type.Optional(Type.Boolean()),
  }),
  technicians: Type.Array(
    object({
      id: Id,
      skills: Type.Optional(Type.Array(Skill)),
      start: Count,
      end: Count,
      week: Week,
      off: Type.Optional(Type.Array(Day)),
    }),
  ),
  stops: Type.Optional(
    Type.Array(
      object({
        technician: Id,
        place: Count,
        earliest: Moment,
        latest: Moment,
        minutes: Count,
        before: Type.Optional(Count),
        after: Type.Optional(Count),
        kind: Type.Optional(
          Type.Union([Type.Literal("visit"), Type.Literal("hold"), Type.Literal("forecast"), Type.Literal("errand")]),
        ),
      }),
    ),
  ),
  travel: Matrix,
});
export type WindowsInput = Static<typeof WindowsInput>;

/** `hogar windows [FILE]`: every window of every day of the range, offered or with its reasons. */
export const windows = ([file]: string[]): void =>
  void process.stdout.write(`${JSON.stringify(answerTo(readJson(file, WindowsInput)))}\n`);

/** The same for input that has the right shape. Throws BadInput for what the shape alone cannot tell. */
export function answerTo(input: WindowsInput) {
  check(input);
  const { timeZone: zone, request, rules, stops: given = [] } = input;
  const travel = travelBy(input.travel);
  const at = (moment: string) => epochOf(moment, zone);
  const dates = datesFrom(input.from, input.to);
  const stops = given.map((s) => ({
    ...s,
    before: s.before ?? 0,
    after: s.after ?? 0,
    date: s.earliest.slice(0, 10),
    earliest: at(s.earliest),
    latest: at(s.latest),
  }));
  const taken = takenOf(stops.filter((s) => s.kind !== "errand").map((s) => ({ date: s.date, from: s.earliest })));
  const limit = (per: Limit["per"], most: number | null | undefined): Limit[] =>
    most === null || most === undefined ? [] : [{ of: "business", per, most, taken }];
  const mode = rules.mode ?? "route";
  if (mode === "count" && typeof rules.perWindow !== "number")
    throw new BadInput("rules.perWindow", "capacity by count needs a number per window");

  const answers = answerWindows({
    now: at(input.now),
    today: input.now.slice(0, 10),
    rules: {
      notice: rules.notice ?? 0,
      furthestDays: rules.furthestDays ?? 36_500,
      capacity: mode === "count" ? { mode, most: rules.perWindow!, taken } : { mode },
      limits: [
        ...(mode === "count" ? [] : limit("window", rules.perWindow)),
        ...limit("day", rules.perDay),
        ...limit("week", rules.perWeek),
      ],
    },
    visit: {
      place: request.place,
      minutes: request.minutes,
      before: request.before ?? 0,
      after: request.after ?? 0,
      skills: (request.skills ?? []).map(toSkill),
      crew: request.crew ?? 1,
    },
    wanted: request.technician ? { technician: request.technician, only: request.only ?? false } : null,
    windows: windowsOn(
      input.windows.map(([from, to]) => patternOf(parseClock(from)!, parseClock(to)!)),
      dates,
      zone,
    ),
    refusal: calendarRefusal({
      timeZone: zone,
      opening: {
        hours: [],
        special: (input.closed ?? []).map((day) => ({
          name: "closed",
          first: day,
          last: day,
          yearly: false,
          spans: [],
        })),
      },
      zone: { weekdays: 127, from: 0, to: 2880 },
      serviceHours: [],
    }),
    travel,
    technicians: input.technicians.map((t) => ({
      id: t.id,
      skills: (t.skills ?? []).map(toSkill),
      day: (date): TechnicianDay => {
        if (t.off?.includes(date)) return { works: false, code: "off" };
        const spans = joinSpans(
          (t.week[weekdays[weekdayOf(date)]!] ?? []).map(([open, close]): Span => [
            epochMinute(date, parseClock(open)!, zone),
            epochMinute(date, parseClock(close)!, zone),
          ]),
        );
        if (spans.length === 0) return { works: false, code: "outside-hours" };
        const own: Stop[] = stops.filter((s) => s.technician === t.id && s.date === date);
        const day = prepareDay({ start: t.start, end: t.end, spans, stops: own }, travel);
        return day
          ? { works: true, day, load: own.reduce((sum, s) => sum + work(s), 0) }
          : { works: false, code: "day-not-feasible" };
      },
    })),
  });

  const time = (minute: number) => clock(localOf(minute, zone).minute);
  return {
    windows: answers.map((answer) => {
      const window = { date: answer.date, from: time(answer.from), to: time(answer.to) };
      if (!answer.offered) return { ...window, offered: false as const, reasons: answer.reasons };
      return {
        ...window,
        offered: true as const,
        technicians: answer.technicians.map((t) => ({
          id: t.id,
          extraDriving: t.extraDriving,
          arrive: t.arrive.map(time),
        })),
        ...(answer.meetAt !== null && { meetAt: time(answer.meetAt) }),
      };
    }),
  };
}

const patternOf = (from: number, to: number) =>
  from === to
    ? { kind: "exact" as const, weekdays: 127, from, to, step: 1440 }
    : { kind: "window" as const, weekdays: 127, from, to };

/** What the shape alone cannot say. */
function check(input: WindowsInput): void {
  if (input.to < input.from) throw new BadInput("to", "the range ends before it begins");
  if (input.to > `${Number(input.from.slice(0, 4)) + 2}${input.from.slice(4)}`)
    throw new BadInput("to", "the range is longer than two years");
  input.windows.forEach(([from, to], i) => {
    if (parseClock(to)! < parseClock(from)!) throw new BadInput(`windows[${i}]`, "a window ends after it begins");
  });
  const matrix = input.travel;
  travelBy(matrix);
  checkPlace("request.place", input.request.place, matrix);
  checkUnique(
    "technicians",
    input.technicians.map((t) => t.id),
  );
  input.technicians.forEach((t, i) => {
    checkPlace(`technicians[${i}].start`, t.start, matrix);
    checkPlace(`technicians[${i}].end`, t.end, matrix);
    for (const [day, spans] of Object.entries(t.week))
      checkSpans(
        `technicians[${i}].week.${day}`,
        spans.map(([open, close]) => [parseClock(open)!, parseClock(close)!]),
      );
  });
  (input.stops ?? []).forEach((stop, i) => {
    checkPlace(`stops[${i}].place`, stop.place, matrix);
    if (!input.technicians.some((t) => t.id === stop.technician))
      throw new BadInput(`stops[${i}].technician`, `there is no technician “${stop.technician}”`);
    if (stop.latest < stop.earliest)
      throw new BadInput(`stops[${i}].latest`, "the latest arrival is before the earliest");
    if (stop.latest.slice(0, 10) !== stop.earliest.slice(0, 10))
      throw new BadInput(`stops[${i}].latest`, "earliest and latest are of one day");
  });
}
