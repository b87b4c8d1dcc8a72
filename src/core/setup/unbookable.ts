import { groupBy } from "../group";
import { dateWords, durationWords, listWords } from "../time/words";
import type { WindowExplained } from "../windows/offers";
import { mostTelling, type Reason } from "../windows/reasons";
import { type Names, reasonWords } from "../windows/words";

/** What stands against a service in a zone for as long as bookings are taken, though nothing were booked yet. */
export type StandsAgainst = Reason | { code: "no-window" };

/**
 * The one setting that stands against windows of which none is offered: of the window with the least against it, and of
 * several such the one that is met most. Technicians count as one, whatever each of them lacks.
 */
export function whatStands(windows: readonly WindowExplained[], crew: number): StandsAgainst {
  const each = windows.map(({ rules, technicians, answer }) => {
    const fitting = technicians.filter(({ fits }) => fits).length;
    const isShort = answer.offered || fitting >= crew ? 0 : 1;
    const people = technicians.flatMap(({ id, reason }) => (reason ? [{ technician: id, ...reason }] : []));
    const refused = answer.offered ? [] : answer.reasons.filter((r) => !("technician" in r));
    return { count: rules.length + isShort, reason: rules[0] ?? refused[0] ?? mostTelling(people) ?? nobody };
  });
  const least = Math.min(...each.map(({ count }) => count));
  const nearest = each.filter(({ count }) => count === least).map(({ reason }) => reason);
  const met = (reason: Reason) => nearest.filter(({ code }) => code === reason.code).length;
  return (
    nearest.reduce<Reason | null>((most, next) => (most && met(most) >= met(next) ? most : next), null) ?? noWindow
  );
}

const nobody: Reason = { code: "nobody" };
const noWindow = { code: "no-window" } as const;

/** How much is asked for: what every customer asks, or what some answers make of it. */
export type Size = "always" | "longest" | "most people" | "most skills";

/** One finding, as it is said and where it is mended. */
export interface Unbookable {
  /** Null: in every zone, or it is done where nobody goes to the customer. */
  zone: { id: number; name: string } | null;
  size: Size;
  against: StandsAgainst;
}

interface Asked {
  name: string;
  /** Of the work with what comes before and after, minutes. */
  length: Record<Size, number>;
  crew: Record<Size, number>;
  noticeMinutes: number;
  horizonDays: number;
  today: string;
}

const with_: Record<Size, (asked: Asked) => string> = {
  always: () => "",
  longest: ({ length }) => ` with the longest answers (${durationWords(length.longest)})`,
  "most people": ({ crew }) => ` with the answers that ask for most people (${crew["most people"]})`,
  "most skills": () => " with the answers that ask for most skills",
};

/**
 * Findings in sentences: what cannot be booked, where, and the one setting that stands against it. Zones in which the same
 * does are named together; it is mended at the first of them.
 */
export function unbookableWords(
  found: readonly Unbookable[],
  asked: Asked,
  names: Names,
): { one: Unbookable; sentence: string }[] {
  const same = groupBy(found, ({ size, against }) => `${size}: ${againstWords(against, size, asked, names)}`);
  return [...same.values()].map((all) => {
    const [{ size, against }] = all as [Unbookable];
    const where = all.flatMap(({ zone }) => (zone ? [zone.name] : []));
    return {
      one: all[0]!,
      sentence: `“${asked.name}”${with_[size](asked)} cannot be booked${where.length ? ` in ${listWords(where)}` : ""}: ${againstWords(against, size, asked, names)}.`,
    };
  });
}

function againstWords(against: StandsAgainst, size: Size, asked: Asked, names: Names): string {
  switch (against.code) {
    case "no-window":
      return `no window begins within the ${asked.horizonDays} days for which bookings are taken`;
    case "too-soon":
      return `${durationWords(asked.noticeMinutes)} of notice are asked for, and bookings are taken only ${asked.horizonDays} days ahead`;
    case "closed":
      return `on every day with a window we are closed${against.name ? `, such as ${dateWords(against.date)}, ${against.name}` : ""}`;
    case "outside-opening-hours":
      return "its windows lie outside our opening hours";
    case "zone-not-served":
      return "its windows are on days on which this zone is not served";
    case "outside-zone-hours":
      return "its windows lie outside the hours in which this zone is served";
    case "outside-service-hours":
      return "its windows lie outside the hours of this service";
    case "limit-reached":
      return against.most === 0 ? `the limit ${ofWords[against.of]} is 0` : reasonWords(against, names);
    case "no-skill":
    case "skill-expired":
      return "no technician has all the skills it asks for";
    case "other-zone":
      return "nobody who can do it goes to this zone";
    case "other-services":
      return "whoever has its skills is set up for other services";
    case "not-offered":
      return "whoever can do it is placed by the office only";
    case "off":
      return "whoever can do it is off on all those days";
    case "outside-hours":
      return "nobody who can do it works on the days of its windows";
    case "hours-full":
      return `it takes ${durationWords(asked.length[size])}, longer than anybody who can do it is to work in a day`;
    case "out-of-reach":
    case "day-not-feasible":
      return `it takes ${durationWords(asked.length[size])}, and nobody who can do it works that long on end from a window on`;
    default:
      return reasonWords(against, names);
  }
}

const ofWords = {
  business: "of visits",
  zone: "of the zone",
  service: "of the service",
  technician: "of each technician who can do it",
} as const;

/** Where a setting is changed: the part of set-up, and what in it. */
export function mendedAt(
  { against, zone }: Unbookable,
  serviceId: number,
): { part: "services" | "zones" | "windows" | "technicians" | "hours"; id: number | null } {
  switch (against.code) {
    case "no-window":
      return { part: "windows", id: null };
    case "closed":
    case "outside-opening-hours":
      return { part: "hours", id: null };
    case "zone-not-served":
    case "outside-zone-hours":
      return zone ? { part: "zones", id: zone.id } : { part: "services", id: serviceId };
    case "limit-reached":
      if (against.of === "zone" && zone) return { part: "zones", id: zone.id };
      return against.of === "business" ? { part: "windows", id: null } : { part: "services", id: serviceId };
    case "other-zone":
    case "other-services":
    case "not-offered":
    case "off":
    case "outside-hours":
    case "hours-full":
      return "technician" in against
        ? { part: "technicians", id: Number(against.technician) }
        : { part: "technicians", id: null };
    default:
      return { part: "services", id: serviceId };
  }
}
