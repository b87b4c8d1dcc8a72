/** Why a repeat needs a person. */
export type Risk = "asked" | "no room" | "skipped" | "card";

/** No room within so many days is a risk; a later date may still find some by itself. */
const soonDays = 14;

/** Repeats for which a card is kept that cannot be charged any more, and no other one. */
export const expiredCards = `SELECT r.id, max(c.expires) AS expires
  FROM cards c JOIN repeats r ON r.customer_id = c.customer_id
  WHERE r.state = 'active' AND c.removed_at IS NULL
    AND EXISTS (SELECT 1 FROM visits v WHERE v.job_id = c.job_id AND v.repeat_id = r.id)
  GROUP BY r.id HAVING count(c.expires) = count(*) AND max(c.expires) < substr(@today, 1, 7)`;

/**
 * Repeats that need a person, each with why, since when (epoch milliseconds) and about which date: a question that
 * nobody has answered, a date that finds no room, two dates in a row that did not take place, a card that has expired. A query with `@today`.
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
  ) WHERE skips = 2
  UNION ALL SELECT id, 'card', unixepoch(expires || '-01', '+1 month') * 1000, date(expires || '-01', '+1 month')
    FROM (${expiredCards}))`;

/** What is said of it, and the one thing to do next. */
export const riskWords: Record<Risk, { waits: string; next: string }> = {
  asked: { waits: "to be phoned", next: "Phone them, then book or leave it out" },
  "no room": { waits: "for room", next: "Move the date, or make room on the board" },
  skipped: { waits: "left out twice", next: "Ask whether it shall go on" },
  card: { waits: "for another card", next: "Ask for a card that is valid" },
};
