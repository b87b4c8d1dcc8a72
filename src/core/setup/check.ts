import { questionProblems } from "../catalogue/question-check";
import type { Question } from "../catalogue/questions";
import { addDays, type LocalDate } from "../time/local";
import { dateWords, durationWords, listWords, weekdayNames } from "../time/words";
import type { PatternPart } from "../windows/patterns";
import { skillGap, type HeldSkill, type SkillNeed } from "../windows/skills";

/** The whole set-up, as far as its parts can contradict one another. Minutes of the day; weekdays from Monday. */
export interface CheckedSetup {
  today: LocalDate;
  horizonDays: number;
  services: CheckedService[];
  technicians: { id: number; name: string; skills: HeldSkill[]; hours: { weekday: number; opens: number; closes: number }[] }[];
  zones: { id: number; name: string; weekdays: number; serveFrom: number; serveTo: number; noticeMinutes: number; technicians: number[] }[];
  windows: PatternPart[];
  people: { id: number; name: string; role: string; technicianId: number | null; active: boolean }[];
}

export interface CheckedService {
  id: number;
  name: string;
  active: boolean;
  priceMinor: number;
  deposit: { kind: string; value: number };
  /** With what comes before and after. */
  length: number;
  crew: number;
  noticeMinutes: number;
  skills: SkillNeed[];
  /** Empty: everybody. */
  technicians: number[];
  questions: Question[];
  windows: PatternPart[] | null;
  hours: { weekday: number; opens: number; closes: number }[];
}

export interface Contradiction {
  code: "nobody-can" | "skill-expires" | "zone-without-technician" | "notice-beyond-horizon" | "deposit-above-price" | "work-too-long" | "window-never-worked" | "window-outside-hours" | "question-never-shown" | "no-way-in" | "nothing";
  /** Where it is mended. */
  part: "services" | "technicians" | "zones" | "windows" | "people";
  id: number | null;
  sentence: string;
}

/** Everything in the set-up that cannot work as it stands, and what is missing of it. */
export function contradictions(setup: CheckedSetup): Contradiction[] {
  return [...missing(setup), ...ofServices(setup), ...ofTechnicians(setup), ...ofZones(setup), ...ofWindows(setup), ...ofPeople(setup)];
}

function missing({ services, technicians, zones, windows }: CheckedSetup): Contradiction[] {
  const none = (part: Contradiction["part"], sentence: string): Contradiction => ({ code: "nothing", part, id: null, sentence });
  return [
    services.some((s) => s.active) ? [] : none("services", "There is no service that can be booked."),
    technicians.length ? [] : none("technicians", "There is nobody on the team."),
    zones.length ? [] : none("zones", "There is no zone: every address is outside."),
    windows.length ? [] : none("windows", "There is no window that could be promised."),
  ].flat();
}

const able = ({ technicians, today }: CheckedSetup, service: CheckedService, on = today) =>
  technicians.filter((t) => (service.technicians.length === 0 || service.technicians.includes(t.id)) && skillGap(t.skills, service.skills, on) === null);

function ofServices(setup: CheckedSetup): Contradiction[] {
  return setup.services.filter((s) => s.active).flatMap((service) => {
    const found: Contradiction[] = [];
    const say = (code: Contradiction["code"], sentence: string) => found.push({ code, part: "services", id: service.id, sentence });
    const who = able(setup, service);
    if (setup.technicians.length > 0) {
      if (who.length < service.crew) say("nobody-can", service.crew === 1 ? `Nobody can do “${service.name}”: no technician has all its skills.` : `“${service.name}” needs ${service.crew} people, and ${who.length || "nobody"} can do it.`);
      else if (!who.some((t) => t.hours.some((h) => h.closes - h.opens >= service.length))) say("work-too-long", `“${service.name}” takes ${durationWords(service.length)}, longer than any stretch of work of those who can do it.`);
    }
    if (service.deposit.kind === "fixed" && service.deposit.value > service.priceMinor) say("deposit-above-price", `The deposit of “${service.name}” is larger than its price.`);
    if (service.noticeMinutes >= setup.horizonDays * 1440) say("notice-beyond-horizon", `“${service.name}” asks for ${durationWords(service.noticeMinutes)} of notice, but bookings are taken only ${setup.horizonDays} days ahead.`);
    for (const at of Object.keys(questionProblems(service.questions))) {
      const index = Number(at.split("/")[1]);
      if (at.endsWith("/shownIf")) say("question-never-shown", `The question “${service.questions[index]!.words}” of “${service.name}” can never be shown.`);
    }
    const windows = service.windows ?? setup.windows;
    if (service.hours.length && windows.length && !windows.some((w) => service.hours.some((h) => (w.weekdays & (1 << h.weekday)) !== 0 && h.opens <= w.from && firstEnd(w) <= h.closes)))
      say("window-outside-hours", `No window lies within the hours of “${service.name}”.`);
    return found;
  });
}

/** Where the first window of a part ends. */
const firstEnd = (part: PatternPart): number => (part.kind === "stepping" ? part.from + part.length : part.kind === "window" ? part.to : part.from);

function ofTechnicians(setup: CheckedSetup): Contradiction[] {
  const last = addDays(setup.today, setup.horizonDays);
  return setup.technicians.flatMap((technician) =>
    technician.skills.flatMap((held): Contradiction[] => {
      if (!held.until || held.until >= last) return [];
      const needed = setup.services.some((s) => s.active && s.skills.some((n) => n.skill === held.skill));
      if (!needed) return [];
      const gone = held.until < setup.today;
      return [{ code: "skill-expires", part: "technicians", id: technician.id, sentence: `${technician.name}’s skill “${held.skill}” ${gone ? "ended" : "ends"} on ${dateWords(held.until)}${gone ? "" : ", while bookings are taken beyond it"}.` }];
    }),
  );
}

function ofZones({ zones, technicians, horizonDays, windows }: CheckedSetup): Contradiction[] {
  return zones.flatMap((zone) => {
    const found: Contradiction[] = [];
    const say = (code: Contradiction["code"], sentence: string) => found.push({ code, part: "zones", id: zone.id, sentence });
    const team = technicians.filter((t) => zone.technicians.length === 0 || zone.technicians.includes(t.id));
    const bare = technicians.length === 0 ? [] : weekdayNames.filter((_, day) => zone.weekdays & (1 << day) && windows.some((w) => w.weekdays & (1 << day)) && !team.some((t) => t.hours.some((h) => h.weekday === day)));
    if (bare.length) say("zone-without-technician", `${zone.name} is served on ${listWords(bare.map((d) => `${d}s`))}, but nobody works there then.`);
    if (zone.noticeMinutes >= horizonDays * 1440) say("notice-beyond-horizon", `${zone.name} asks for ${durationWords(zone.noticeMinutes)} of notice, but bookings are taken only ${horizonDays} days ahead.`);
    if (windows.length && !windows.some((w) => (w.weekdays & zone.weekdays) !== 0 && w.from >= zone.serveFrom && firstEnd(w) <= zone.serveTo)) say("window-outside-hours", `No window lies within the hours and days of ${zone.name}.`);
    return found;
  });
}

function ofWindows({ windows, technicians }: CheckedSetup): Contradiction[] {
  if (technicians.length === 0) return [];
  return windows.flatMap((part): Contradiction[] => {
    const idle = weekdayNames.filter((_, day) => part.weekdays & (1 << day) && !technicians.some((t) => t.hours.some((h) => h.weekday === day && h.opens < part.to && h.closes > part.from)));
    return idle.length ? [{ code: "window-never-worked", part: "windows", id: null, sentence: `Nobody works in the window from ${Math.floor(part.from / 60)}:${String(part.from % 60).padStart(2, "0")} on ${listWords(idle.map((d) => `${d}s`))}.` }] : [];
  });
}

const ofPeople = ({ people }: CheckedSetup): Contradiction[] =>
  people.flatMap((person): Contradiction[] =>
    person.active && person.role === "technician" && person.technicianId === null
      ? [{ code: "no-way-in", part: "people", id: person.id, sentence: `${person.name} signs in as a technician, but no technician belongs to the sign-in: there is nothing to see.` }]
      : [],
  );
