import { questionProblems } from "../catalogue/question-check";
import type { Question } from "../catalogue/questions";
import { type Permission, permissionsOf, type Role } from "../people/permissions";
import { addDays, type LocalDate } from "../time/dates";
import type { Opening } from "../time/opening";
import { type Span, subtractSpans } from "../time/spans";
import { clock, dateWords, durationWords, listWords, weekdayNames } from "../time/words";
import { isNamed } from "../windows/bars";
import { whoCouldDo } from "../windows/eligible";
import type { PatternPart } from "../windows/patterns";
import { type HeldSkill, skillGap, type SkillNeed } from "../windows/skills";

/** The whole set-up, as far as its parts can contradict one another. Minutes of the day; weekdays from Monday. */
export interface CheckedSetup {
  today: LocalDate;
  horizonDays: number;
  services: CheckedService[];
  technicians: CheckedTechnician[];
  opening: Opening["hours"];
  zones: {
    id: number;
    name: string;
    weekdays: number;
    serveFrom: number;
    serveTo: number;
    noticeMinutes: number;
    technicians: number[];
  }[];
  windows: PatternPart[];
  people: {
    id: number;
    name: string;
    role: Role;
    technicianId: number | null;
    active: boolean;
    given: Permission[];
    taken: Permission[];
  }[];
}

interface CheckedTechnician {
  id: number;
  name: string;
  skills: HeldSkill[];
  hours: Hours;
  /** Empty: everywhere, everything. */
  zones: number[];
  services: number[];
  /** Whether customers may be offered this person. */
  offered: boolean;
}

type Hours = { weekday: number; opens: number; closes: number }[];

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
  hours: Hours;
}

export interface Contradiction {
  code:
    | "nobody-can"
    | "skill-expires"
    | "zone-without-technician"
    | "notice-beyond-horizon"
    | "deposit-above-price"
    | "work-too-long"
    | "window-never-worked"
    | "window-outside-hours"
    | "outside-opening-hours"
    | "named-without-skill"
    | "question-never-shown"
    | "no-way-in"
    | "nothing";
  /** Where it is mended. */
  part: "services" | "technicians" | "zones" | "windows" | "people";
  id: number | null;
  sentence: string;
}

/** Everything in the set-up that cannot work as it stands, and what is missing of it. */
export function contradictions(setup: CheckedSetup): Contradiction[] {
  return [
    ...missing(setup),
    ...ofServices(setup),
    ...ofTechnicians(setup),
    ...ofZones(setup),
    ...ofWindows(setup),
    ...ofPeople(setup),
  ];
}

function missing({ services, technicians, zones, windows }: CheckedSetup): Contradiction[] {
  const none = (part: Contradiction["part"], sentence: string): Contradiction => ({
    code: "nothing",
    part,
    id: null,
    sentence,
  });
  return [
    services.some((s) => s.active) ? [] : none("services", "There is no service that can be booked."),
    technicians.length ? [] : none("technicians", "There is nobody on the team."),
    zones.length ? [] : none("zones", "There is no zone: every address is outside."),
    windows.length ? [] : none("windows", "There is no window that could be promised."),
  ].flat();
}

const able = ({ technicians, today }: CheckedSetup, service: CheckedService, on = today) =>
  whoCouldDo(technicians, service, on);

function ofServices(setup: CheckedSetup): Contradiction[] {
  return setup.services
    .filter((s) => s.active)
    .flatMap((service) => {
      const found: Contradiction[] = [];
      const say = (code: Contradiction["code"], sentence: string) =>
        found.push({ code, part: "services", id: service.id, sentence });
      const who = able(setup, service);
      if (setup.technicians.length > 0) {
        if (who.length < service.crew)
          say(
            "nobody-can",
            service.crew === 1
              ? `Nobody can do “${service.name}”: no technician has all its skills.`
              : `“${service.name}” needs ${service.crew} people, and ${who.length || "nobody"} can do it.`,
          );
        else if (!who.some((t) => t.hours.some((h) => h.closes - h.opens >= service.length)))
          say(
            "work-too-long",
            `“${service.name}” takes ${durationWords(service.length)}, longer than any stretch of work of those who can do it.`,
          );
      }
      if (service.deposit.kind === "fixed" && service.deposit.value > service.priceMinor)
        say("deposit-above-price", `The deposit of “${service.name}” is larger than its price.`);
      if (service.noticeMinutes >= setup.horizonDays * 1440)
        say(
          "notice-beyond-horizon",
          `“${service.name}” asks for ${durationWords(service.noticeMinutes)} of notice, but bookings are taken only ${setup.horizonDays} days ahead.`,
        );
      for (const technician of setup.technicians.filter(
        (t) => service.technicians.includes(t.id) || t.services.includes(service.id),
      ))
        if (skillGap(technician.skills, service.skills, setup.today))
          say(
            "named-without-skill",
            `${technician.name} is named for “${service.name}”, but does not have its skills.`,
          );
      for (const at of Object.keys(questionProblems(service.questions))) {
        const index = Number(at.split("/")[1]);
        if (at.endsWith("/shownIf"))
          say(
            "question-never-shown",
            `The question “${service.questions[index]!.words}” of “${service.name}” can never be shown.`,
          );
      }
      const windows = service.windows ?? setup.windows;
      if (
        service.hours.length &&
        windows.length &&
        !windows.some((w) =>
          service.hours.some(
            (h) => (w.weekdays & (1 << h.weekday)) !== 0 && h.opens <= w.from && firstEnd(w) <= h.closes,
          ),
        )
      )
        say("window-outside-hours", `No window lies within the hours of “${service.name}”.`);
      return found;
    });
}

/** Where the first window of a part ends. */
const firstEnd = (part: PatternPart): number =>
  part.kind === "stepping" ? part.from + part.length : part.kind === "window" ? part.to : part.from;

function ofTechnicians(setup: CheckedSetup): Contradiction[] {
  const last = addDays(setup.today, setup.horizonDays);
  return setup.technicians.flatMap((technician) => [
    ...closedWhileWorking(setup, technician),
    ...technician.skills.flatMap((held): Contradiction[] => {
      if (!held.until || held.until >= last) return [];
      const needed = setup.services.some((s) => s.active && s.skills.some((n) => n.skill === held.skill));
      if (!needed) return [];
      const gone = held.until < setup.today;
      return [
        {
          code: "skill-expires",
          part: "technicians",
          id: technician.id,
          sentence: `${technician.name}’s skill “${held.skill}” ${gone ? "ended" : "ends"} on ${dateWords(held.until)}${gone ? "" : ", while bookings are taken beyond it"}.`,
        },
      ];
    }),
  ]);
}

/** Hours at work in which the business is closed: no window is offered then. */
function closedWhileWorking({ opening }: CheckedSetup, { id, name, hours }: CheckedTechnician): Contradiction[] {
  if (opening.length === 0) return [];
  const days = weekdayNames.filter((_, day) => {
    const open = opening.filter((o) => o.weekday === day).map((o): Span => [o.opens, o.closes]);
    return subtractSpans(
      hours.filter((h) => h.weekday === day).map((h): Span => [h.opens, h.closes]),
      open,
    ).some(([from, to]) => to - from >= 60);
  });
  return days.length
    ? [
        {
          code: "outside-opening-hours",
          part: "technicians",
          id,
          sentence: `${name} works on ${listWords(days.map((d) => `${d}s`))} for an hour or more while the business is closed.`,
        },
      ]
    : [];
}

function ofZones({ zones, technicians, horizonDays, windows }: CheckedSetup): Contradiction[] {
  return zones.flatMap((zone) => {
    const found: Contradiction[] = [];
    const say = (code: Contradiction["code"], sentence: string) =>
      found.push({ code, part: "zones", id: zone.id, sentence });
    const team = technicians.filter((t) => t.offered && isNamed(zone.technicians, t.id) && isNamed(t.zones, zone.id));
    const bare =
      technicians.length === 0
        ? []
        : weekdayNames.filter(
            (_, day) =>
              zone.weekdays & (1 << day) &&
              windows.some((w) => w.weekdays & (1 << day)) &&
              !team.some((t) => t.hours.some((h) => h.weekday === day)),
          );
    if (bare.length)
      say(
        "zone-without-technician",
        `${zone.name} is served on ${listWords(bare.map((d) => `${d}s`))}, but nobody works there then.`,
      );
    if (zone.noticeMinutes >= horizonDays * 1440)
      say(
        "notice-beyond-horizon",
        `${zone.name} asks for ${durationWords(zone.noticeMinutes)} of notice, but bookings are taken only ${horizonDays} days ahead.`,
      );
    if (
      windows.length &&
      !windows.some(
        (w) => (w.weekdays & zone.weekdays) !== 0 && w.from >= zone.serveFrom && firstEnd(w) <= zone.serveTo,
      )
    )
      say("window-outside-hours", `No window lies within the hours and days of ${zone.name}.`);
    return found;
  });
}

function ofWindows({ windows, technicians, opening }: CheckedSetup): Contradiction[] {
  const shut =
    opening.length === 0
      ? []
      : windows.flatMap((part): Contradiction[] => {
          const days = weekdayNames.filter(
            (_, day) =>
              part.weekdays & (1 << day) &&
              !opening.some((o) => o.weekday === day && o.opens <= part.from && firstEnd(part) <= o.closes),
          );
          return days.length
            ? [
                {
                  code: "outside-opening-hours",
                  part: "windows",
                  id: null,
                  sentence: `The window from ${clock(part.from)} lies outside the opening hours on ${listWords(days.map((d) => `${d}s`))}.`,
                },
              ]
            : [];
        });
  if (technicians.length === 0) return shut;
  return [
    ...shut,
    ...windows.flatMap((part): Contradiction[] => {
      const idle = weekdayNames.filter(
        (_, day) =>
          part.weekdays & (1 << day) &&
          !technicians.some((t) => t.hours.some((h) => h.weekday === day && h.opens < part.to && h.closes > part.from)),
      );
      return idle.length
        ? [
            {
              code: "window-never-worked",
              part: "windows",
              id: null,
              sentence: `Nobody works in the window from ${clock(part.from)} on ${listWords(idle.map((d) => `${d}s`))}.`,
            },
          ]
        : [];
    }),
  ];
}

/** Whoever signs in and finds nothing there. */
const ofPeople = ({ people }: CheckedSetup): Contradiction[] =>
  people
    .filter((p) => p.active)
    .flatMap((person): Contradiction[] => {
      const permissions = permissionsOf(person.role, person.given, person.taken);
      const say = (sentence: string): Contradiction[] => [
        { code: "no-way-in", part: "people", id: person.id, sentence },
      ];
      if (!permissions.includes("office.see") && !permissions.includes("field.work"))
        return say(`${person.name} may sign in, but may see neither the office nor the field.`);
      if (person.technicianId !== null) return [];
      if (!permissions.includes("office.see"))
        return say(
          `${person.name} signs in as a technician, but no technician belongs to the sign-in: there is nothing to see.`,
        );
      return permissions.includes("visits.all")
        ? []
        : say(`${person.name} sees only their own visits, but no technician belongs to the sign-in: there are none.`);
    });
