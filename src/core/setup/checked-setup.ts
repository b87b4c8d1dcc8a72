import type { Question } from "@/core/catalogue/questions";
import { type Permission, type Role } from "@/core/people/permissions";
import { type LocalDate } from "@/core/time/dates";
import type { Opening } from "@/core/time/opening";
import type { PatternPart } from "@/core/windows/patterns";
import { type HeldSkill, type SkillNeed } from "@/core/windows/skills";

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

export interface CheckedTechnician {
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
  skills: SkillNeed[];
  /** Empty: everybody. */
  technicians: number[];
  questions: Question[];
}

export interface Contradiction {
  code:
    | "skill-expires"
    | "zone-without-technician"
    | "deposit-above-price"
    | "window-never-worked"
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
