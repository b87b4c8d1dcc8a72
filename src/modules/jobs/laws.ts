import { visitStates } from "@/core/visits/states";
import type { Law } from "@/kernel/laws";

export const jobLaws: readonly Law[] = [
  {
    says: "What was promised belongs to a job, and is written down as a promise.",
    breaks: `SELECT 'visit ' || id AS what FROM visits v WHERE state IN ${visitStates.sql("expect")}
      AND (job_id IS NULL OR NOT EXISTS (SELECT 1 FROM promises p WHERE p.visit_id = v.id AND p.ended_at IS NULL
        AND p.window_from = v.window_from AND p.window_to = v.window_to))`,
  },
  {
    says: "A job has one link in force at most.",
    breaks: "SELECT 'job ' || job_id AS what FROM links WHERE revoked_at IS NULL GROUP BY job_id HAVING count(*) > 1",
  },
];
