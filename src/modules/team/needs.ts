import { addDays } from "@/core/time/dates";
import { dateWords } from "@/core/time/words";
import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";

/** So many days ahead it is told that a certificate ends. */
const daysAhead = 42;

const endingSkills = ({ sql, today }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; name: string; skill: string; valid_until: string }>(
    `SELECT t.id, t.name, s.name AS skill, ts.valid_until
      FROM technician_skills ts JOIN technicians t ON t.id = ts.technician_id JOIN skills s ON s.id = ts.skill_id
      WHERE t.active = 1 AND ts.valid_until < ?`,
  )
    .all(addDays(today, daysAhead))
    .map((s) => ({
      kind: "expiring",
      words: `${s.name}: the certificate “${s.skill}” ends on ${dateWords(s.valid_until)}`,
      detail: "After that day nobody is offered this work by that person",
      href: `/setup/technicians?id=${s.id}`,
    }));

export const teamNeeds: readonly Needs[] = [{ may: "office.see", read: endingSkills }];
