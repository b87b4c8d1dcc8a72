import { dateWords, durationWords, weekdayNames } from "../time/words";
import type { ReachedLimit, Reason, RuleReason, TechnicianReason } from "./reasons";

/** Names that a sentence needs: technicians and skills by id. */
export interface Names {
  technician: (id: string) => string;
  skill: (id: string) => string;
}

/** A refusal as a person reads it: "Petra Lindqvist would be 12 min short". */
export function reasonWords(reason: Reason, names: Names): string {
  if ("technician" in reason) return `${names.technician(reason.technician)} ${technicianReasonWords(reason, names)}`;
  switch (reason.code) {
    case "crew-incomplete":
      return `the job needs ${reason.needed} people and ${reason.able.length === 0 ? "nobody is" : reason.able.length === 1 ? "only one of them is" : `only ${reason.able.length} of them are`} free`;
    case "crew-never-together":
      return `${reason.able.map(names.technician).join(" and ")} are free, but never at the same time`;
    case "nobody":
      return "nobody is set up to do this";
    default:
      return ruleWords(reason);
  }
}

function ruleWords(reason: RuleReason): string {
  switch (reason.code) {
    case "too-soon":
      return `${durationWords(reason.minutes)} too soon for the notice we need`;
    case "too-far-ahead":
      return `${reason.days} ${reason.days === 1 ? "day" : "days"} further ahead than we take bookings`;
    case "closed":
      return `we are closed that day${reason.name ? `, ${reason.name}` : ""}`;
    case "outside-opening-hours":
      return `we are not open then${reason.name ? `, ${reason.name}` : ""}`;
    case "outside-zones":
      return reason.nearest
        ? `the address is outside our zones, ${reason.km} km from ${reason.nearest}`
        : "the address is outside our zones";
    case "zone-not-served":
      return `this zone is not served on ${weekdayNames[reason.weekday]}s`;
    case "outside-zone-hours":
      return "this zone is not served at that time";
    case "outside-service-hours":
      return "this service is not done at that time";
    case "no-following-day":
      return "the work goes on for several days, and none follows soon enough";
    case "asks-first":
      return "times are agreed with a person, not chosen from windows";
    case "seats-full":
      return reason.left === 0
        ? `all ${reason.of} seats are taken`
        : `only ${reason.left} of ${reason.of} seats ${reason.left === 1 ? "is" : "are"} left`;
    case "limit-reached":
      return limitWords(reason);
  }
}

/** The same of one technician, without the name. */
export function technicianReasonWords(reason: TechnicianReason, names: Names): string {
  switch (reason.code) {
    case "no-skill":
      return `does not have the skill “${names.skill(reason.skill)}”${reason.level ? ` at level ${reason.level}` : ""}`;
    case "skill-expired":
      return `had “${names.skill(reason.skill)}” only until ${dateWords(reason.until)}`;
    case "other-zone":
      return "does not go to this zone";
    case "other-services":
      return "does not do this service";
    case "not-offered":
      return "is placed by the office only";
    case "hours-full":
      return `has ${durationWords(reason.taken)} of work that day, and would go over ${durationWords(reason.most)}`;
    case "off":
      return "is off that day";
    case "outside-hours":
      return "does not work that day";
    case "day-not-feasible":
      return "already cannot keep that day’s promises";
    case "limit-reached":
      return `has ${reason.taken} of at most ${reason.most} ${reason.most === 1 ? "visit" : "visits"} ${perWords[reason.per]}`;
    case "out-of-reach":
      return reason.shortBy === null ? "has no room that day" : `would be ${durationWords(reason.shortBy)} short`;
  }
}

const perWords = { window: "in that window", day: "that day", week: "that week" } as const;
const ofWords = {
  business: "",
  zone: " in this zone",
  service: " of this service",
  technician: " of this technician",
} as const;

const limitWords = ({ of, per, most, taken, set }: ReachedLimit): string =>
  `${taken} of at most ${most} ${most === 1 ? "visit" : "visits"}${ofWords[of]} ${taken === 1 ? "is" : "are"} booked ${perWords[per]}${set === undefined ? "" : ` (${set} when everybody is there)`}`;

/** What would have to change for this reason to go away, or null where nothing can be done about it here. */
export function remedyWords(reason: RuleReason | TechnicianReason, names: Names): string | null {
  switch (reason.code) {
    case "too-soon":
      return `a notice that is ${durationWords(reason.minutes)} shorter`;
    case "too-far-ahead":
      return `a horizon that is ${reason.days} ${reason.days === 1 ? "day" : "days"} longer`;
    case "closed":
      return "opening the business on that day";
    case "outside-opening-hours":
      return "longer opening hours";
    case "outside-zones":
      return reason.nearest
        ? `adding the address to a zone, such as ${reason.nearest}`
        : "adding the address to a zone";
    case "zone-not-served":
      return `serving the zone on ${weekdayNames[reason.weekday]}s`;
    case "outside-zone-hours":
      return "longer hours of the zone";
    case "outside-service-hours":
      return "longer hours of the service";
    case "no-following-day":
      return "a working day within two weeks after it";
    case "asks-first":
      return "another capacity mode for this service";
    case "seats-full":
      return "more seats for this service, or another time";
    case "limit-reached":
      return reason.set === undefined
        ? `a limit of ${reason.taken + 1}`
        : "somebody more at work that day, or a higher limit";
    case "no-skill":
      return `giving the skill “${names.skill(reason.skill)}”${reason.level ? ` at level ${reason.level}` : ""}`;
    case "skill-expired":
      return `renewing “${names.skill(reason.skill)}”`;
    case "other-zone":
      return "adding the technician to the zone";
    case "other-services":
      return "adding the technician to the service";
    case "not-offered":
      return "letting customers be offered this technician";
    case "hours-full":
      return "more hours of work a day for this technician";
    case "off":
      return "ending the time off";
    case "outside-hours":
      return "working hours on that day";
    case "day-not-feasible":
      return "making the day feasible first";
    case "out-of-reach":
      return reachWords(reason);
  }
}

function reachWords({ shortBy, late }: TechnicianReason & { code: "out-of-reach" }): string | null {
  if (shortBy === null) return "a shorter visit, or moving another one away";
  const minutes = durationWords(shortBy);
  switch (late) {
    case "window":
      return `a window that ends ${minutes} later`;
    case "next":
      return `what follows ${minutes} later, or a visit ${minutes} shorter`;
    case "both":
      return `${minutes} more room: moving another visit away`;
  }
}
