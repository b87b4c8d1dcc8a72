import { insertions, nearestMiss, type Insertion, type PreparedDay } from "../routes/insertion";
import { fit, work, type Stop, type Travel } from "../routes/timing";
import { daysBetween, type LocalDate } from "../time/local";
import { skillGap, type HeldSkill, type SkillGap, type SkillNeed } from "./skills";

/**
 * Which windows can be promised to a customer, and why not. A window is offered when it respects
 * the booking rules and as many technicians as the crew needs can fit the visit between what they
 * have promised already. Every refusal carries its reasons as data.
 */
export interface WindowsQuestion {
  /** Epoch minute. */
  now: number;
  today: LocalDate;
  rules: { notice: number; furthestDays: number };
  visit: AskedVisit;
  /** In time order. */
  windows: readonly PromiseWindow[];
  /** What forbids a window before any technician is asked: a closed day, a zone that is not served then. */
  refusal: (window: PromiseWindow) => Reason | null;
  technicians: readonly CandidateTechnician[];
  travel: Travel;
}

export interface AskedVisit {
  place: number;
  minutes: number;
  before: number;
  after: number;
  skills: readonly SkillNeed[];
  crew: number;
}

/** A span in which arrival is promised, in epoch minutes; `to` is the last moment of arrival. */
export interface PromiseWindow {
  date: LocalDate;
  from: number;
  to: number;
}

export interface CandidateTechnician {
  id: string;
  skills: readonly HeldSkill[];
  /** False where the technician does not go to this zone or does not do this service. */
  goesThere: boolean;
  day: (date: LocalDate) => TechnicianDay;
}

export type TechnicianDay =
  | { works: true; day: PreparedDay; load: number }
  | { works: false; code: "off" | "outside-hours" | "day-not-feasible" };

export type Reason =
  | { code: "too-soon"; minutes: number }
  | { code: "too-far-ahead"; days: number }
  | { code: "closed" }
  | { code: "outside-zones" }
  | { code: "zone-not-served" }
  | { code: "outside-zone-hours" }
  | { code: "crew-incomplete"; needed: number; able: string[] }
  | { code: "crew-never-together"; needed: number; able: string[] }
  | { code: "nobody" }
  | ({ technician: string } & TechnicianReason);

export type TechnicianReason =
  | SkillGap
  | { code: "other-zone" }
  | { code: "off" | "outside-hours" | "day-not-feasible" }
  /** Between the present stops `position - 1` and `position`; `shortBy` is null where no amount of hurry would do. */
  | { code: "out-of-reach"; shortBy: number | null; position: number };

export interface OfferedTechnician {
  id: string;
  extraDriving: number;
  position: number;
  /** Earliest and latest feasible arrival. */
  arrive: [number, number];
}

export type WindowAnswer = PromiseWindow &
  ({ offered: true; technicians: OfferedTechnician[]; extraDriving: number; meetAt: number | null } | { offered: false; reasons: Reason[] });

/** One answer for each window, in the order asked. Technicians of an offer come best first: least extra driving, then least loaded, then by id. */
export function answerWindows(question: WindowsQuestion): WindowAnswer[] {
  const able = ablePerDay(question);
  return question.windows.map((window) => {
    const rule = ruleAgainst(question, window);
    if (rule) return { ...window, offered: false, reasons: [rule] };
    return answerOne(question, window, able(window.date));
  });
}

interface AblePerDay {
  days: { id: string; day: PreparedDay; load: number }[];
  reasons: Reason[];
}

/** Who could come on a date at all: asked once for all windows of the date. */
function ablePerDay({ technicians, visit }: WindowsQuestion): (date: LocalDate) => AblePerDay {
  const known = new Map<LocalDate, AblePerDay>();
  return (date) => {
    let able = known.get(date);
    if (!able) {
      known.set(date, (able = { days: [], reasons: [] }));
      for (const technician of technicians) {
        const gap = skillGap(technician.skills, visit.skills, date);
        const day = gap || !technician.goesThere ? null : technician.day(date);
        if (day?.works) able.days.push({ id: technician.id, day: day.day, load: day.load });
        else able.reasons.push({ technician: technician.id, ...(gap ?? (day ? { code: day.code } : { code: "other-zone" as const })) });
      }
    }
    return able;
  };
}

function ruleAgainst({ now, today, rules, refusal }: WindowsQuestion, window: PromiseWindow): Reason | null {
  if (window.from < now + rules.notice) return { code: "too-soon", minutes: now + rules.notice - window.from };
  const ahead = daysBetween(today, window.date);
  if (ahead > rules.furthestDays) return { code: "too-far-ahead", days: ahead - rules.furthestDays };
  return refusal(window);
}

function answerOne(question: WindowsQuestion, window: PromiseWindow, able: AblePerDay): WindowAnswer {
  const { visit, travel } = question;
  const stop: Stop = { place: visit.place, earliest: window.from, latest: window.to, before: visit.before, minutes: visit.minutes, after: visit.after };
  const reasons: Reason[] = [...able.reasons];
  const fitting: Fitting[] = [];
  for (const candidate of able.days) {
    const found = insertions(candidate.day, stop, travel);
    if (found.length) fitting.push({ ...candidate, insertions: found });
    else {
      const { position, shortBy } = nearestMiss(candidate.day, stop, travel);
      reasons.push({ technician: candidate.id, code: "out-of-reach", shortBy: Number.isFinite(shortBy) ? shortBy : null, position });
    }
  }
  if (fitting.length < visit.crew) {
    if (visit.crew > 1) reasons.push({ code: "crew-incomplete", needed: visit.crew, able: fitting.map((f) => f.id) });
    if (reasons.length === 0) reasons.push({ code: "nobody" });
    return { ...window, offered: false, reasons };
  }
  if (visit.crew > 1) {
    const crew = commonStart(fitting, stop, visit.crew);
    if (!crew) return { ...window, offered: false, reasons: [...reasons, { code: "crew-never-together", needed: visit.crew, able: fitting.map((f) => f.id) }] };
    return offer(window, crew.technicians, crew.at, visit.crew);
  }
  return offer(window, ranked(fitting.map((f) => ({ ...f, insertion: leastDriving(f.insertions) }))).map(offered), null, 1);
}

interface Fitting {
  id: string;
  day: PreparedDay;
  load: number;
  insertions: Insertion[];
}

const offer = (window: PromiseWindow, technicians: OfferedTechnician[], meetAt: number | null, crew: number): WindowAnswer => ({
  ...window, offered: true, technicians, meetAt, extraDriving: technicians.slice(0, crew).reduce((sum, t) => sum + t.extraDriving, 0),
});

/** The start at which enough technicians can begin together, with the least extra driving in all (the earliest on a tie). */
function commonStart(fitting: readonly Fitting[], stop: Stop, crew: number) {
  const starts = new Set<number>();
  for (const { day, insertions: found } of fitting)
    for (const { arrive, arriveLatest } of found) {
      starts.add(arrive);
      for (const [open] of day.spans) if (open > arrive && open <= arriveLatest) starts.add(open);
    }
  let best: { at: number; technicians: OfferedTechnician[]; driving: number } | null = null;
  for (const at of [...starts].sort((a, b) => a - b)) {
    const together = fitting.flatMap((f) => {
      if (fit(f.day.spans, at, work(stop)) !== at) return [];
      const possible = f.insertions.filter((i) => i.arrive <= at && at <= i.arriveLatest);
      return possible.length ? [{ ...f, insertion: { ...leastDriving(possible), arrive: at, arriveLatest: at } }] : [];
    });
    if (together.length < crew) continue;
    const technicians = ranked(together).slice(0, crew).map(offered);
    const driving = technicians.reduce((sum, t) => sum + t.extraDriving, 0);
    if (!best || driving < best.driving) best = { at, technicians, driving };
  }
  return best;
}

const leastDriving = (found: readonly Insertion[]): Insertion => found.reduce((a, b) => (b.extraDriving < a.extraDriving ? b : a));

const ranked = <T extends { id: string; load: number; insertion: Insertion }>(fitting: T[]): T[] =>
  fitting.sort((a, b) => a.insertion.extraDriving - b.insertion.extraDriving || a.load - b.load || (a.id < b.id ? -1 : 1));

const offered = ({ id, insertion }: { id: string; insertion: Insertion }): OfferedTechnician => ({
  id, extraDriving: insertion.extraDriving, position: insertion.position, arrive: [insertion.arrive, insertion.arriveLatest],
});
