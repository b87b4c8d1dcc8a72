import { groupBy } from "@/core/group";
import type { ViewContext } from "./operation";

/** What several parts of set-up read alike. */
export type LimitScope = "business" | "zone" | "service" | "technician";

/** Most visits per window, day and week, by what they limit; null where there is no limit. */
export function limitsBy(
  { sql }: ViewContext,
  scope: LimitScope,
): (id: number) => { window: number | null; day: number | null; week: number | null } {
  const limits = groupBy(
    sql<{ subject_id: number; per: "window" | "day" | "week"; most: number }>(
      "SELECT subject_id, per, most FROM limits WHERE scope = ?",
    ).all(scope),
    (l) => l.subject_id,
  );
  return (id) => {
    const most = (per: string) => limits.get(id)?.find((l) => l.per === per)?.most ?? null;
    return { window: most("window"), day: most("day"), week: most("week") };
  };
}

/** The ids that something is limited to, in a table of two columns. */
export function namedBy(
  { sql }: ViewContext,
  of: string,
  what: string,
  table = `${of}_${what}s`,
): (id: number) => number[] {
  const rows = groupBy(
    sql<{ id: number; named: number }>(`SELECT ${of}_id AS id, ${what}_id AS named FROM ${table}`).all(),
    (row) => row.id,
  );
  return (id) => (rows.get(id) ?? []).map((row) => row.named);
}

/** How many visits are promised, by a column of theirs: what a change will not touch. */
export function promisedBy({ sql }: ViewContext, column: "zone_id" | "service_id"): (id: number) => number {
  const counts = new Map(
    sql<{ id: number; n: number }>(
      `SELECT ${column} AS id, count(*) AS n FROM visits WHERE state = 'promised' GROUP BY 1`,
    )
      .all()
      .map((r) => [r.id, r.n]),
  );
  return (id) => counts.get(id) ?? 0;
}

export type Hours = { weekday: number; opens: number; closes: number }[];

/** Weekly hours, by whose they are. */
export function hoursBy(
  { sql }: ViewContext,
  table: "working_spans" | "service_hours",
  of: "technician" | "service",
): (id: number) => Hours {
  const rows = groupBy(
    sql<{ id: number; weekday: number; opens: number; closes: number }>(
      `SELECT ${of}_id AS id, weekday, opens, closes FROM ${table} ORDER BY weekday, opens`,
    ).all(),
    (h) => h.id,
  );
  return (id) => (rows.get(id) ?? []).map(({ weekday, opens, closes }) => ({ weekday, opens, closes }));
}
