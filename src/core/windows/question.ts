import { type PreparedDay } from "@/core/routes/insertion";
import type { Travel } from "@/core/routes/timing";
import { type LocalDate } from "@/core/time/dates";
import { type Limit, type Taken } from "./limits";
import type { PromiseWindow } from "./promise-window";
import type { RuleReason } from "./reasons";
import { type HeldSkill, type SkillNeed } from "./skills";

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
  /** Where a time has several seats: how many are asked for, and the times that are there already. */
  seats?: { asked: number; of: number; at: (window: PromiseWindow) => SharedTime | null };
  /** The customer's wish for a technician: nobody else (`only`), or rather this one. */
  wanted?: { technician: string; only: boolean } | null;
}

/** A time that several customers share, with one technician or crew: who comes later joins those who are there. */
export interface SharedTime {
  id: string;
  /** Seats that are taken. */
  taken: number;
  /** Who does it, and when it begins; nobody where it waits for a person. */
  technicians: readonly string[];
  begins: number;
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
  /** Null: from afar, wherever a technician is by then. */
  place: number | null;
  minutes: number;
  before: number;
  after: number;
  skills: readonly SkillNeed[];
  crew: number;
}

/** A window as it is asked for: work of several days brings the windows of the following days; null where these are missing. */
export interface AskedWindow extends PromiseWindow {
  followingDays?: readonly PromiseWindow[] | null;
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

export const daysOf = (window: AskedWindow): PromiseWindow[] => [window, ...(window.followingDays ?? [])];

export const lengthOf = ({ before, minutes, after }: AskedVisit): number => before + minutes + after;
