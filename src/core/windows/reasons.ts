import type { NearMiss } from "../routes/insertion";
import type { LocalDate } from "../time/dates";
import type { SkillGap } from "./skills";

/** Why a window is refused: data, for people and programs. Times in minutes; words.ts says them in sentences. */
export type Reason = RuleReason | CrewReason | ({ technician: string } & TechnicianReason);

/** What forbids a window before any technician is looked at. */
export type RuleReason =
  | { code: "too-soon"; minutes: number }
  | { code: "too-far-ahead"; days: number }
  /** `name` of the special day, where it is one. */
  | { code: "closed"; date: LocalDate; name?: string }
  | { code: "outside-opening-hours"; name?: string }
  /** The nearest zone and how far away it is, where that is known. */
  | { code: "outside-zones"; nearest?: string; km?: number }
  | { code: "zone-not-served"; weekday: number }
  | { code: "outside-zone-hours" }
  | { code: "outside-service-hours" }
  /** Work of several days that finds no working day to go on. */
  | { code: "no-following-day" }
  | { code: "asks-first" }
  /** Fewer seats are left than are asked for. */
  | { code: "seats-full"; left: number; of: number }
  | ({ code: "limit-reached" } & ReachedLimit);

export interface ReachedLimit {
  of: "business" | "zone" | "service" | "technician";
  per: "window" | "day" | "week";
  most: number;
  taken: number;
  /** Present where the limit was made smaller by those who are off. */
  set?: number;
}

export type CrewReason =
  | { code: "crew-incomplete"; needed: number; able: string[] }
  | { code: "crew-never-together"; needed: number; able: string[] }
  | { code: "nobody" };

/** What stops one technician. */
export type TechnicianReason =
  | SkillGap
  | { code: "other-zone" }
  | { code: "other-services" }
  /** The office may place this person, customers are not offered them. */
  | { code: "not-offered" }
  /** Minutes of work, on that day. */
  | { code: "hours-full"; taken: number; most: number }
  | { code: "off" | "outside-hours" | "day-not-feasible" }
  | ({ code: "limit-reached" } & ReachedLimit)
  /** Between the present stops `position - 1` and `position`; `shortBy` is null where no amount of hurry would do. */
  | { code: "out-of-reach"; shortBy: number | null; late: NearMiss["late"]; position: number; date: LocalDate };

/** The one reason of several that says most: what forbids the window, then who came nearest, then what is settled for longer. */
export const mostTelling = (reasons: readonly Reason[]): Reason | null =>
  reasons.reduce<Reason | null>((best, next) => (!best || weightOf(next) < weightOf(best) ? next : best), null);

/** Small weighs most. */
function weightOf(reason: Reason): number {
  switch (reason.code) {
    case "out-of-reach":
      return reason.shortBy === null ? 1e6 : 1000 + reason.shortBy;
    case "crew-incomplete":
    case "crew-never-together":
      return 100;
    case "limit-reached":
    case "hours-full":
      return "technician" in reason ? 1e5 : 0;
    case "day-not-feasible":
      return 2e6;
    case "off":
    case "outside-hours":
      return 3e6;
    case "skill-expired":
      return 4e6;
    case "other-zone":
    case "other-services":
    case "not-offered":
    case "no-skill":
    case "nobody":
      return 5e6;
    default:
      return 0;
  }
}
