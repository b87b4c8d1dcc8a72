import type { LocalDate } from "../time/dates";
import { isNamed, type Limited, type OwnLimits } from "./bars";
import { type HeldSkill, skillGap, type SkillNeed } from "./skills";

/**
 * Who could do a service on a date: who is offered to customers, where neither limits the other to somebody or something
 * else, and who holds its skills that day. Where they go and when they work is asked window by window.
 */
export const whoCouldDo = <T extends Omit<OwnLimits, "zones"> & { skills: readonly HeldSkill[] }>(
  technicians: readonly T[],
  service: Limited & { skills: readonly SkillNeed[] },
  date: LocalDate,
): T[] =>
  technicians.filter(
    (technician) =>
      technician.offered &&
      isNamed(service.technicians, technician.id) &&
      isNamed(technician.services, service.id) &&
      skillGap(technician.skills, service.skills, date) === null,
  );
