import { durationWords } from "../time/words";
import { dateWords } from "../time/words";
import type { Reason, TechnicianReason } from "./offers";

/** Names that a sentence needs: technicians and skills by id. */
export interface Names {
  technician: (id: string) => string;
  skill: (id: string) => string;
}

/** A refusal as a person reads it: "Petra Lindqvist would be 12 min late". */
export function reasonWords(reason: Reason, names: Names): string {
  if ("technician" in reason) return `${names.technician(reason.technician)} ${technicianWords(reason, names)}`;
  switch (reason.code) {
    case "too-soon": return `${durationWords(reason.minutes)} too soon for the notice we need`;
    case "too-far-ahead": return `${reason.days} ${reason.days === 1 ? "day" : "days"} further ahead than we take bookings`;
    case "closed": return "we are closed that day";
    case "outside-zones": return "the address is outside our zones";
    case "zone-not-served": return "this zone is not served that day";
    case "outside-zone-hours": return "this zone is not served at that time";
    case "crew-incomplete": return `the job needs ${reason.needed} people and ${reason.able.length || "nobody"} of them ${reason.able.length === 1 ? "is" : "are"} free`;
    case "crew-never-together": return `${reason.able.map(names.technician).join(" and ")} are free, but never at the same time`;
    case "nobody": return "nobody is set up to do this";
  }
}

function technicianWords(reason: TechnicianReason, names: Names): string {
  switch (reason.code) {
    case "no-skill": return `does not have the skill “${names.skill(reason.skill)}”${reason.level ? ` at level ${reason.level}` : ""}`;
    case "skill-expired": return `had “${names.skill(reason.skill)}” only until ${dateWords(reason.until)}`;
    case "other-zone": return "does not go to this zone";
    case "off": return "is off that day";
    case "outside-hours": return "does not work that day";
    case "day-not-feasible": return "already cannot keep that day’s promises";
    case "out-of-reach": return reason.shortBy === null ? "has no room that day" : `would be ${durationWords(reason.shortBy)} short`;
  }
}
