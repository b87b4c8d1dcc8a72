import type { Law } from "@/kernel/laws";

export const repeatLaws: readonly Law[] = [
  {
    says: "Forecasts carry no papers.",
    breaks:
      "SELECT 'visit ' || id AS what FROM visits WHERE state = 'forecast' AND (job_id IS NOT NULL OR repeat_id IS NULL)",
  },
  {
    says: "One date of a repeat is one visit.",
    breaks: `SELECT 'repeat ' || repeat_id || ', ' || repeat_date AS what
      FROM visits WHERE repeat_id IS NOT NULL AND state <> 'cancelled' AND repeat_date IS NOT NULL
      GROUP BY repeat_id, repeat_date HAVING count(*) > 1`,
  },
];
