/** Why a repeat needs a person. */
export type Risk = "asked" | "no room" | "skipped";

/** No room within so many days is a risk; a later date may still find some by itself. */
const soonDays = 14;

/**
 * Repeats that need a person, each with why, since when (epoch milliseconds) and about which date: a question that
 * nobody has answered, a date that finds no room, two dates in a row that did not take place. A query with `@today`.
 */
export const repeatsAtRisk = `(
  SELECT r.id, 'asked' AS why, coalesce(a.answered_at, a.made_at) AS at, a.date
    FROM repeats r JOIN repeat_asks a ON a.repeat_id = r.id WHERE r.state = 'active' AND a.state = 'for us'
  UNION ALL SELECT r.id, 'no room', unixepoch(min(v.date), '-${soonDays} days') * 1000, min(v.date)
    FROM repeats r JOIN visits v ON v.repeat_id = r.id
    WHERE r.state = 'active' AND v.state = 'forecast' AND v.date BETWEEN @today AND date(@today, '+${soonDays} days')
      AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
    GROUP BY r.id
  UNION ALL SELECT id, 'skipped', unixepoch(last) * 1000, last FROM (
    SELECT r.id, (SELECT max(date) FROM repeat_exceptions WHERE repeat_id = r.id AND skip = 1 AND date <= @today) AS last,
        (SELECT sum(skip) FROM (
          SELECT date, 1 AS skip FROM repeat_exceptions WHERE repeat_id = r.id AND skip = 1 AND date <= @today
          UNION ALL SELECT repeat_date, state <> 'done' FROM visits
            WHERE repeat_id = r.id AND date <= @today AND state IN ('done', 'no access', 'cancelled')
          ORDER BY 1 DESC LIMIT 2)) AS skips
      FROM repeats r WHERE r.state = 'active' AND EXISTS (SELECT 1 FROM repeat_exceptions WHERE repeat_id = r.id AND skip = 1)
  ) WHERE skips = 2)`;

/** What is said of it, and the one thing to do next. */
export const riskWords: Record<Risk, { waits: string; next: string }> = {
  asked: { waits: "to be phoned", next: "Phone them, then book or leave it out" },
  "no room": { waits: "for room", next: "Move the date, or make room on the board" },
  skipped: { waits: "left out twice", next: "Ask whether it shall go on" },
};
