import type { Member } from "../routes/crew";
import { bestInto, type Insertion, insertionsInto, leastDriving, nearestMiss } from "../routes/insertion";
import { daysBetween, type LocalDate } from "../time/dates";
import { bestCrew } from "./crews";
import { type Limit, reached } from "./limits";
import { type Offer, type OfferedTechnician, type Refused, type WindowAnswer } from "./offer";
import type { PromiseWindow } from "./promise-window";
import { type AskedWindow, type Capacity, daysOf, lengthOf, type WindowsQuestion } from "./question";
import type { CrewReason, Reason, RuleReason, TechnicianReason } from "./reasons";
import { type Team, teamOn, type TechnicianRefusal } from "./team";

/** One answer for each window, in the order asked. */
export function answerWindows(question: WindowsQuestion): WindowAnswer[] {
  const team = teamOn(question);
  return question.windows.map((window) => {
    const rules = brokenRules(question, window);
    return rules.length
      ? refuse(window, rules)
      : (joined(question, window) ?? decide(question, window, judge(question, window, team), team));
  });
}

/**
 * The windows that can be promised, on the first so many days that have any: whole days, in the order asked. Each carries only
 * those it would be given to, and no reason is looked for: that takes most of the time of a whole answer, and who chooses a
 * window is shown neither.
 */
export function firstOffers(question: WindowsQuestion, days: number): Offer[] {
  const team = teamOn(question);
  const offers: Offer[] = [];
  let found = 0;
  let last: LocalDate | null = null;
  for (const window of question.windows) {
    if (found >= days && window.date !== last) break;
    if (brokenRules(question, window).length) continue;
    const answer =
      joined(question, window) ?? decide(question, window, judge(question, window, team, "fits"), team, "crew");
    if (!answer.offered) continue;
    offers.push(answer);
    if (window.date !== last) found++;
    last = window.date;
  }
  return offers;
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
      answer: rules.length
        ? refuse(window, rules)
        : (joined(question, window) ?? decide(question, window, judged, team)),
      rules,
      technicians: question.technicians.flatMap(({ id }) => {
        const fit = fits.get(id) ?? null;
        const reason = judged.reasons.find((r) => r.technician === id) ?? null;
        return fit || reason ? [{ id, fits: fit, reason: fit ? null : reason }] : [];
      }),
    };
  });
}

function brokenRules(question: WindowsQuestion, window: AskedWindow): RuleReason[] {
  const { now, today, rules, refusal, seats } = question;
  const broken: RuleReason[] = [];
  const late = now + rules.notice - window.from;
  if (late > 0) broken.push({ code: "too-soon", minutes: late });
  const beyond = daysBetween(today, window.date) - rules.furthestDays;
  if (beyond > 0) broken.push({ code: "too-far-ahead", days: beyond });
  broken.push(...refusal(window));
  if (rules.capacity.mode === "ask") broken.push({ code: "asks-first" });
  if (window.followingDays === null) broken.push({ code: "no-following-day" });
  // Whoever joins a time adds no visit to a day.
  for (const limit of seats?.at(window) ? [] : rules.limits)
    for (const [i, day] of daysOf(window).entries()) {
      const over = reached(limit, day, daysOf(window).slice(0, i));
      if (over) broken.push({ code: "limit-reached", ...over });
    }
  return broken;
}

/** The answer where a time with seats is there already: it is joined, or it is full. Null where there is none. */
function joined({ seats }: WindowsQuestion, window: AskedWindow): WindowAnswer | null {
  const time = seats?.at(window);
  if (!seats || !time) return null;
  const left = Math.max(0, seats.of - time.taken);
  if (left < seats.asked) return refuse(window, [{ code: "seats-full", left, of: seats.of }]);
  const arrive: [number, number] = [time.begins, time.begins];
  const technicians = time.technicians.map((id) => ({ id, load: 0, extraDriving: 0, position: 0, arrive }));
  return { ...offer(window, technicians, technicians.length, []), seats: { left, joins: time.id } };
}

// ---------------------------------------------------------------- who fits into a window

/** Somebody who fits: on the first day, and on those that follow. Where nobody else has to come along, with the best position only. */
interface Fitting extends Member {
  load: number;
  /** Over all days, each at the position with the least. */
  extraDriving: number;
  followingDays: readonly Member[];
}

interface Judged {
  fitting: readonly Fitting[];
  reasons: TechnicianRefusal[];
}

/** Whether it is said of those who do not fit what stops them. */
type Depth = "reasons" | "fits";

/** Every technician against a window and the days that follow it: fits, or what stops them. */
function judge(
  question: WindowsQuestion,
  window: AskedWindow,
  team: (date: LocalDate) => Team,
  depth: Depth = "reasons",
): Judged {
  const first = judgeDay(question, window, team(window.date), depth, noDays);
  return (window.followingDays ?? []).reduce<Judged>((before, day, i) => {
    const next = judgeDay(question, day, team(day.date), depth, daysOf(window).slice(0, i + 1));
    const members = new Map(next.fitting.map((f) => [f.id, f]));
    const stillIn = new Set(before.fitting.map((f) => f.id));
    return {
      fitting: before.fitting.flatMap((f) => (members.has(f.id) ? [withDay(f, members.get(f.id)!)] : [])),
      reasons: [...before.reasons, ...next.reasons.filter((r) => stillIn.has(r.technician))],
    };
  }, first);
}

const withDay = (f: Fitting, day: Fitting): Fitting => ({
  ...f,
  extraDriving: f.extraDriving + day.extraDriving,
  followingDays: [...f.followingDays, day],
});

const noMore: readonly Member[] = [];
const noDays: readonly PromiseWindow[] = [];

function judgeDay(
  { visit }: WindowsQuestion,
  day: PromiseWindow,
  { able, reasons: notThere }: Team,
  depth: Depth,
  earlier: readonly PromiseWindow[],
): Judged {
  const length = lengthOf(visit);
  const fitting: Fitting[] = [];
  const reasons = depth === "reasons" ? [...notThere] : [];
  for (const { id, load, limits, mostMinutes, day: prepared, rooms } of able) {
    const over = limits.length ? firstReached(limits, day, earlier) : null;
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
    if (insertions.length) {
      const { extraDriving } = leastDriving(insertions)!;
      fitting.push({ id, load, extraDriving, day: prepared, insertions, followingDays: noMore });
    } else if (depth === "reasons") {
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

function firstReached(limits: readonly Limit[], window: PromiseWindow, earlier: readonly PromiseWindow[]) {
  for (const limit of limits) {
    const over = reached(limit, window, earlier);
    if (over) return over;
  }
  return null;
}

// ---------------------------------------------------------------- what is promised

/** Whom an offer names: everybody who fits, or only those it would be given to. */
type Whom = "everybody" | "crew";

function decide(
  question: WindowsQuestion,
  window: AskedWindow,
  judged: Judged,
  team: (date: LocalDate) => Team,
  whom: Whom = "everybody",
): WindowAnswer {
  const {
    rules: { capacity },
    visit,
  } = question;
  if (capacity.mode === "count") {
    const short = countShort(capacity, window, team(window.date), visit.crew);
    if (short.length) return refuse(window, [...short, ...judged.reasons]);
  }
  const seats = question.seats && { seats: { left: question.seats.of, joins: null } };
  const crew = crewOffer(question, window, judged.fitting, whom);
  if ("offered" in crew) return { ...crew, ...seats };
  if (capacity.mode === "count" || capacity.mode === "open")
    return {
      ...seats,
      ...bare(window),
      offered: true,
      technicians: [],
      extraDriving: 0,
      meetAt: null,
      followingDays: daysOf(window)
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
  whom: Whom,
): Offer | { reasons: CrewReason[] } {
  const { crew } = visit;
  const ranked = byRank(wanted?.technician ?? null);
  if (crew === 1 && fitting.length) {
    const named = whom === "everybody" ? [...fitting].sort(ranked) : [firstOf(fitting, ranked)];
    return offer(window, named.map(offeredAtBest), 1, []);
  }
  const ids = fitting.map((f) => f.id);
  if (fitting.length < crew) return { reasons: crew > 1 ? [{ code: "crew-incomplete", needed: crew, able: ids }] : [] };
  if (wanted?.only && !ids.includes(wanted.technician))
    return { reasons: [{ code: "crew-incomplete", needed: crew, able: ids }] };
  const candidates = fitting.map((f) => ({ id: f.id, load: f.load, days: [f, ...f.followingDays] }));
  const together = bestCrew(candidates, lengthOf(visit), crew, wanted?.technician ?? null);
  if (!together || (wanted?.only && !together.members.has(wanted.technician)))
    return { reasons: [{ code: "crew-never-together", needed: crew, able: ids }] };
  const technicians = fitting
    .flatMap((f) => (together.members.has(f.id) ? [offeredAs(f, together.members.get(f.id)!)] : []))
    .sort(ranked);
  return offer(window, technicians, crew, together.at);
}

type Ranked = Pick<OfferedTechnician, "id" | "load" | "extraDriving">;

const byRank = (first: string | null) =>
  first === null
    ? byDriving
    : (a: Ranked, b: Ranked): number => Number(b.id === first) - Number(a.id === first) || byDriving(a, b);

const firstOf = <T>(all: readonly T[], ranked: (a: T, b: T) => number): T =>
  all.reduce((first, one) => (ranked(one, first) < 0 ? one : first));

const byDriving = (a: Ranked, b: Ranked): number =>
  a.extraDriving - b.extraDriving || a.load - b.load || (a.id < b.id ? -1 : 1);

const offeredAtBest = (f: Fitting): OfferedTechnician =>
  offeredAs(
    f,
    f.followingDays.length === 0 && f.insertions.length === 1
      ? f.insertions
      : [leastDriving(f.insertions)!, ...f.followingDays.map((day) => leastDriving(day.insertions)!)],
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
  followingDays: daysOf(window)
    .slice(1)
    .map((day, i) => ({ ...bare(day), meetAt: at[i + 1] ?? null })),
});

const refuse = (window: PromiseWindow, reasons: Reason[]): Refused => ({
  ...bare(window),
  offered: false,
  reasons: reasons.length ? reasons : [{ code: "nobody" }],
});

const bare = ({ date, from, to }: PromiseWindow): PromiseWindow => ({ date, from, to });
