import type { LocalDate } from "../time/dates";

/** What a visit asks for, and what a technician holds: a skill at a level (1 where nothing is said). */
export interface SkillNeed {
  skill: string;
  level?: number;
}
export interface HeldSkill extends SkillNeed {
  /** Last day on which the certificate is valid. */
  until?: LocalDate | null;
}

export type SkillGap =
  { code: "no-skill"; skill: string; level?: number } | { code: "skill-expired"; skill: string; until: LocalDate };

/** The first skill that is missing or no longer valid on `date`, or null where all are held. */
export function skillGap(held: readonly HeldSkill[], needed: readonly SkillNeed[], date: LocalDate): SkillGap | null {
  for (const need of needed) {
    const level = need.level ?? 1;
    const fitting = held.filter((h) => h.skill === need.skill && (h.level ?? 1) >= level);
    if (fitting.length === 0) return { code: "no-skill", skill: need.skill, ...(level > 1 ? { level } : {}) };
    if (!fitting.some((h) => !h.until || date <= h.until)) {
      const until = fitting
        .map((h) => h.until!)
        .sort()
        .at(-1)!;
      return { code: "skill-expired", skill: need.skill, until };
    }
  }
  return null;
}
