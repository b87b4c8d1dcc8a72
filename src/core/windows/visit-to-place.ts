import type { Point } from "@/core/place/points";
import type { WorkPlace } from "@/core/visits/work-place";
import type { SkillNeed } from "@/core/windows/skills";

/** What has to be known of a visit to find room for it. */
export interface VisitToPlace {
  /** Where the work is done; `point` is there, and of no account from afar. */
  workPlace: WorkPlace;
  point: Point;
  zoneId: number | null;
  /** Everything that is done there, the main one first. */
  serviceIds: readonly number[];
  /** The same in words. */
  title: string;
  minutes: number;
  before: number;
  after: number;
  crew: number;
  /** How many seats of a time that customers share; 0: it has a time of its own. */
  seats: number;
  /** Consecutive working days with the same crew. */
  days: number;
  /** Everything it asks for, by the service and by the answers. */
  skills: readonly SkillNeed[];
  /** The customer's wish for a technician. */
  wanted?: { technicianId: number; only: boolean } | null;
}
