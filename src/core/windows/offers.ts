import type { Member } from "../routes/crew";
import {
  bestInto,
  type Insertion,
  insertionsInto,
  leastDriving,
  nearestMiss,
  type PreparedDay,
  type Rooms,
  roomsFor,
} from "../routes/insertion";
import type { Travel } from "../routes/timing";
import { daysBetween, type LocalDate } from "../time/dates";
import { bestCrew } from "./crews";
import { type Limit, reached, type Taken } from "./limits";
import type { PromiseWindow } from "./promise-window";
import type { CrewReason, Reason, RuleReason, TechnicianReason } from "./reasons";
import { type HeldSkill, skillGap, type SkillNeed } from "./skills";

/**
 * Which windows can be promised to a customer, and why not. A window is offered when it respects
 * the booking rules and, by the capacity mode, as many technicians as the crew needs can fit the
 * visit between what they have promised already. Every refusal carries its reasons as data.
 */
export interface WindowsQuestion {
  /** Epoch minute. */
  now: number;
  today: LocalDate;
  rules: BookingRules;
  visit: AskedVisit;
  windows: readonly AskedWindow[];
  /** What forbids a window by the calendar: closed days, zones, hours (rules.ts). */
  refusal: (window: PromiseWindow) => readonly RuleReason[];
  technicians: readonly CandidateTechnician[];
  travel: Travel;
  /** The customer's wish for a technician: nobody else (`only`), or rather this one. */
  wanted?: { technician: string; only: boolean } | null;
}

interface BookingRules {
  /** Minutes between now and the beginning of a window: the longest of business, zone and service. */
  notice: number;
  furthestDays: number;
  capacity: Capacity;
  limits: readonly Limit[];
}

/**
 * How many visits a window takes: as many as the technicians' routes have room for; up to a count,
 * scaled down by the share of able technicians who are not there; any number; or none without a
 * person's answer. A technician is pencilled in wherever one has room, whatever the mode.
 */
export type Capacity =
  { mode: "route" } | { mode: "count"; most: number; taken: Taken } | { mode: "open" } | { mode: "ask" };

/** The mode of several services together: the one that promises least. */
export const strictestMode = (modes: readonly Capacity["mode"][]): Capacity["mode"] =>
  (["ask", "route", "count", "open"] as const).find((mode) => modes.includes(mode)) ?? "route";

interface AskedVisit {
  place: number;
  minutes: number;
  before: number;
  after: number;
  skills: readonly SkillNeed[];
  crew: number;
}

/** A window as it is asked for: work of several days brings the windows of the following days; null where these are missing. */
export interface AskedWindow extends PromiseWindow {
  then?: readonly PromiseWindow[] | null;
}

export interface CandidateTechnician {
  id: string;
  skills: readonly HeldSkill[];
  /** What keeps the technician from any visit of this kind: another zone, other services. */
  bar?: "other-zone" | "other-services" | "not-offered" | null;
  limits?: readonly Limit[];
  /** Most minutes of work on one day; absent or null: no limit. */
  mostMinutes?: number | null;
  day: (date: LocalDate) => TechnicianDay;
}

export type TechnicianDay =
  | { works: true; day: PreparedDay; load: number }
  | { works: false; code: "off" | "outside-hours" | "day-not-feasible" };

interface OfferedTechnician {
  id: string;
  /** Minutes of work that day already. */
  load: number;
  /** Minutes, over all days of the work. */
  extraDriving: number;
  position: number;
  /** Earliest and latest feasible arrival on the first day, at the position with the least extra driving. */
  arrive: [number, number];
}

export interface Offer extends PromiseWindow {
  offered: true;
  /** Best first: least extra driving, then least loaded, then by id; a preferred technician before all. Of a crew of several, exactly the crew. */
  technicians: OfferedTechnician[];
  extraDriving: number;
  /** The common start of a crew of several. */
  meetAt: number | null;
  /** The following days of work of several days, with their common starts. */
  then: (PromiseWindow & { meetAt: number | null })[];
}

/** A neighbour window: somebody is near then anyway. Minutes of extra driving, for the whole crew and all days. */
export const isOnOurWay = ({ extraDriving, technicians }: Offer): boolean =>
  technicians.length > 0 && extraDriving <= 4;

interface Refused extends PromiseWindow {
  offered: false;
  reasons: Reason[];
}

export type WindowAnswer = Offer | Refused;

/** One answer for each window, in the order asked. */
export function answerWindows(question: WindowsQuestion): WindowAnswer[] {
  const team = teamOn(question);
  return question.windows.map((window) => {
    const rules = brokenRules(question, window);
    return rules.length ? refuse(window, rules) : decide(question, window, judge(question, window, team), team);
  });
}

/** One window, opened up: every rule against it, and every technician whatever the rules say. */
export interface WindowExplained {
  answer: WindowAnswer;
  rules: RuleReason[];
  technicians: { id: string; fits: OfferedTechnician | null; reason: TechnicianReason | null }[];
}

/** The answers with all that led to them, for a person who asks why not. */
export function explainWindows(question: WindowsQuestion): WindowExplained[] {
  const team = teamOn(question);
  return question.windows.map((window) => {
    const rules = brokenRules(question, window);
    const judged = judge(question, window, team);
    const fits = new Map(judged.fitting.map((f) => [f.id, offeredAtBest(f)]));
    return {
      answer: rules.length ? refuse(window, rules) : decide(question, window, judged, team),
      rules,
      technicians: question.technicians.flatMap(({ id }) => {
        const fit = fits.get(id) ?? null;
        const reason = judged.reasons.find((r) => r.technician === id) ?? null;
        return fit || reason ? [{ id, fits: fit, reason: fit ? null : reason }] : [];
      }),
    };
  });
}

function brokenRules({ now, today, rules, refusal }: WindowsQuestion, window: AskedWindow): RuleReason[] {
  const broken: RuleReason[] = [];
  const late = now + rules.notice - window.from;
  if (late > 0) broken.push({ code: "too-soon", minutes: late });
  const beyond = daysBetween(today, window.date) - rules.furthestDays;
  if (beyond > 0) broken.push({ code: "too-far-ahead", days: beyond });
  broken.push(...refusal(window));
  if (rules.capacity.mode === "ask") broken.push({ code: "asks-first" });
  if (window.then === null) broken.push({ code: "no-following-day" });
  for (const limit of rules.limits)
    for (const day of daysOf(window)) {
      const over = reached(limit, day);
      if (over) broken.push({ code: "limit-reached", ...over });
    }
  return broken;
}

const daysOf = (window: AskedWindow): PromiseWindow[] => [window, ...(window.then ?? [])];
const lengthOf = ({ before, minutes, after }: AskedVisit): number => before + minutes + after;

// ---------------------------------------------------------------- who could come on a date

interface Team {
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

type TechnicianRefusal = { technician: string } & TechnicianReason;

/** Who could come on a date at all, and the room they have: found once for all windows of the date. */
function teamOn({ technicians, visit, travel, wanted }: WindowsQuestion): (date: LocalDate) => Team {
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

// ---------------------------------------------------------------- who fits into a window

/** Somebody who fits: on the first day, and on those that follow. Where nobody else has to come along, with the best position only. */
interface Fitting extends Member {
  load: number;
  then: readonly Member[];
}

interface Judged {
  fitting: readonly Fitting[];
  reasons: TechnicianRefusal[];
}

/** Every technician against a window and the days that follow it: fits, or what stops them. */
function judge(question: WindowsQuestion, window: AskedWindow, team: (date: LocalDate) => Team): Judged {
  const first = judgeDay(question, window, team(window.date));
  return (window.then ?? []).reduce<Judged>((before, day) => {
    const next = judgeDay(question, day, team(day.date));
    const members = new Map(next.fitting.map((f) => [f.id, f]));
    const stillIn = new Set(before.fitting.map((f) => f.id));
    return {
      fitting: before.fitting.flatMap((f) =>
        members.has(f.id) ? [{ ...f, then: [...f.then, members.get(f.id)!] }] : [],
      ),
      reasons: [...before.reasons, ...next.reasons.filter((r) => stillIn.has(r.technician))],
    };
  }, first);
}

const noMore: readonly Member[] = [];

function judgeDay({ visit }: WindowsQuestion, day: PromiseWindow, { able, reasons: notThere }: Team): Judged {
  const length = lengthOf(visit);
  const fitting: Fitting[] = [];
  const reasons = [...notThere];
  for (const { id, load, limits, mostMinutes, day: prepared, rooms } of able) {
    const over = limits.length ? firstReached(limits, day) : null;
    if (over) {
      reasons.push({ technician: id, code: "limit-reached", ...over });
      continue;
    }
    if (load + length > mostMinutes) {
      reasons.push({ technician: id, code: "hours-full", taken: load, most: mostMinutes });
      continue;
    }
    const insertions =
      visit.crew === 1 ? one(bestInto(rooms, prepared, day, length)) : insertionsInto(rooms, prepared, day, length);
    if (insertions.length) fitting.push({ id, load, day: prepared, insertions, then: noMore });
    else {
      const { position, shortBy, late } = nearestMiss(rooms, prepared, day, length);
      reasons.push({
        technician: id,
        code: "out-of-reach",
        shortBy: Number.isFinite(shortBy) ? shortBy : null,
        late,
        position,
        date: day.date,
      });
    }
  }
  return { fitting, reasons };
}

const none: readonly Insertion[] = [];
const one = (insertion: Insertion | null): readonly Insertion[] => (insertion ? [insertion] : none);

function firstReached(limits: readonly Limit[], window: PromiseWindow) {
  for (const limit of limits) {
    const over = reached(limit, window);
    if (over) return over;
  }
  return null;
}

// ---------------------------------------------------------------- what is promised

function decide(
  question: WindowsQuestion,
  window: AskedWindow,
  judged: Judged,
  team: (date: LocalDate) => Team,
): WindowAnswer {
  const {
    rules: { capacity },
    visit,
  } = question;
  if (capacity.mode === "count") {
    const short = countShort(capacity, window, team(window.date), visit.crew);
    if (short.length) return refuse(window, [...short, ...judged.reasons]);
  }
  const crew = crewOffer(question, window, judged.fitting);
  if ("offered" in crew) return crew;
  if (capacity.mode === "count" || capacity.mode === "open")
    return {
      ...bare(window),
      offered: true,
      technicians: [],
      extraDriving: 0,
      meetAt: null,
      then: daysOf(window)
        .slice(1)
        .map((d) => ({ ...bare(d), meetAt: null })),
    };
  return refuse(window, [...judged.reasons, ...crew.reasons]);
}

/** Whether a window is full by count, or too few of those able are there that day. */
function countShort(
  { most, taken }: Capacity & { mode: "count" },
  window: PromiseWindow,
  { suited, there }: Team,
  crew: number,
): Reason[] {
  const scaled = suited.length ? Math.floor((most * there.length) / suited.length) : 0;
  const now = taken(window, "window");
  if (now >= scaled)
    return [
      {
        code: "limit-reached",
        of: "business",
        per: "window",
        most: scaled,
        taken: now,
        ...(scaled < most && { set: most }),
      },
    ];
  return there.length < crew ? [{ code: "crew-incomplete", needed: crew, able: there }] : [];
}

function crewOffer(
  { visit, wanted }: WindowsQuestion,
  window: AskedWindow,
  fitting: readonly Fitting[],
): Offer | { reasons: CrewReason[] } {
  const { crew } = visit;
  const ids = fitting.map((f) => f.id);
  if (fitting.length < crew) return { reasons: crew > 1 ? [{ code: "crew-incomplete", needed: crew, able: ids }] : [] };
  const ranked = byRank(wanted?.technician ?? null);
  if (crew === 1) {
    return offer(window, fitting.map(offeredAtBest).sort(ranked), 1, []);
  }
  if (wanted?.only && !ids.includes(wanted.technician))
    return { reasons: [{ code: "crew-incomplete", needed: crew, able: ids }] };
  const candidates = fitting.map((f) => ({ id: f.id, load: f.load, days: [f, ...f.then] }));
  const together = bestCrew(candidates, lengthOf(visit), crew, wanted?.technician ?? null);
  if (!together || (wanted?.only && !together.members.has(wanted.technician)))
    return { reasons: [{ code: "crew-never-together", needed: crew, able: ids }] };
  const technicians = fitting
    .flatMap((f) => (together.members.has(f.id) ? [offeredAs(f, together.members.get(f.id)!)] : []))
    .sort(ranked);
  return offer(window, technicians, crew, together.at);
}

const byRank = (first: string | null) =>
  first === null
    ? byDriving
    : (a: OfferedTechnician, b: OfferedTechnician): number =>
        Number(b.id === first) - Number(a.id === first) || byDriving(a, b);

const byDriving = (a: OfferedTechnician, b: OfferedTechnician): number =>
  a.extraDriving - b.extraDriving || a.load - b.load || (a.id < b.id ? -1 : 1);

const offeredAtBest = (f: Fitting): OfferedTechnician =>
  offeredAs(
    f,
    f.then.length === 0 && f.insertions.length === 1
      ? f.insertions
      : [leastDriving(f.insertions)!, ...f.then.map((day) => leastDriving(day.insertions)!)],
  );

/** One insertion for each day of the work. */
function offeredAs({ id, load }: Fitting, days: readonly Insertion[]): OfferedTechnician {
  const first = days[0]!;
  let extraDriving = 0;
  for (const day of days) extraDriving += day.extraDriving;
  return { id, load, extraDriving, position: first.position, arrive: [first.arrive, first.arriveLatest] };
}

const offer = (window: AskedWindow, technicians: OfferedTechnician[], crew: number, at: readonly number[]): Offer => ({
  ...bare(window),
  offered: true,
  technicians,
  extraDriving: technicians.slice(0, crew).reduce((sum, t) => sum + t.extraDriving, 0),
  meetAt: at[0] ?? null,
  then: daysOf(window)
    .slice(1)
    .map((day, i) => ({ ...bare(day), meetAt: at[i + 1] ?? null })),
});

const refuse = (window: PromiseWindow, reasons: Reason[]): Refused => ({
  ...bare(window),
  offered: false,
  reasons: reasons.length ? reasons : [{ code: "nobody" }],
});

const bare = ({ date, from, to }: PromiseWindow): PromiseWindow => ({ date, from, to });
