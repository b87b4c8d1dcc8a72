import { Refusal } from "@/core/problems";
import { clock } from "@/core/time/words";
import { sqliteCode } from "@/store/database";
import { insertRow, type NewRow } from "@/store/insert";
import type { Limits } from "./inputs";
import type { OperationContext } from "./operation";

/** Inserts a row or changes the one of this id. A name that is taken is told as such. */
export function saveRow<
  T extends "zones" | "technicians" | "services" | "extras" | "special_days" | "coupons" | "job_patterns",
>({ sql }: OperationContext, table: T, id: number | null, values: Record<string, string | number | null>): number {
  try {
    // Forms say which columns; the table's own checks say what they hold.
    if (id === null) return insertRow(sql, table, values as unknown as NewRow<T>);
    const set = Object.keys(values).map((column) => `${column} = @${column}`);
    if (sql(`UPDATE ${table} SET ${set.join(", ")} WHERE id = @id`).run({ ...values, id }).changes === 0)
      throw new Refusal("not-found");
    return id;
  } catch (error) {
    if (sqliteCode(error) === "SQLITE_CONSTRAINT_UNIQUE") {
      const column = /\.(\w+)$/.exec((error as Error).message)?.[1] ?? "name";
      throw new Refusal("name-taken", { fields: { [`/${column}`]: "There is one of this already. Choose another." } });
    }
    throw error;
  }
}

export function saveLimits(
  { sql }: OperationContext,
  scope: "business" | "zone" | "service" | "technician",
  subjectId: number,
  limits: Limits,
): void {
  sql("DELETE FROM limits WHERE scope = ? AND subject_id = ?").run(scope, subjectId);
  for (const per of ["window", "day", "week"] as const)
    if (limits[per] !== null) insertRow(sql, "limits", { scope, subject_id: subjectId, per, most: limits[per] });
}

/** What is new has the limits of what it was copied from. */
export const copyLimits = (
  { sql }: OperationContext,
  scope: "business" | "zone" | "service" | "technician",
  fromId: number,
  toId: number,
): void =>
  void sql(
    `INSERT INTO limits (scope, subject_id, per, most)
      SELECT scope, @toId, per, most FROM limits WHERE scope = @scope AND subject_id = @fromId`,
  ).run({ scope, fromId, toId });

/** The ids that something is limited to, in a table of two columns; none are no limit. */
export function saveNamed(
  { sql }: OperationContext,
  table: "zone_technicians" | "service_technicians" | "technician_zones" | "technician_services",
  id: number,
  named: readonly number[],
): void {
  const [of, what] = table.slice(0, -1).split("_");
  sql(`DELETE FROM ${table} WHERE ${of}_id = ?`).run(id);
  for (const other of named) sql(`INSERT INTO ${table} (${of}_id, ${what}_id) VALUES (?, ?)`).run(id, other);
}

export function refuseOverlaps(hours: readonly { weekday: number; opens: number; closes: number }[]): void {
  const fields: Record<string, string> = {};
  for (const [i, span] of hours.entries()) {
    if (span.closes <= span.opens) fields[`/hours/${i}`] = "A span ends after it begins.";
    if (span.closes > span.opens + 1440) fields[`/hours/${i}`] = "A span is a day long at the most.";
    const other = hours.find((o, k) => k < i && overlapInWeek(o, span));
    if (other)
      fields[`/hours/${i}`] =
        `This overlaps ${clock(other.opens)} to ${clock(other.closes)} ${other.weekday === span.weekday ? "of the same day" : "of another day"}.`;
  }
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
}

type Hours = { weekday: number; opens: number; closes: number };

/** Whether two spans of a week overlap; what ends after midnight goes on into the next day, and Sunday's into Monday. */
function overlapInWeek(a: Hours, b: Hours): boolean {
  const begin = ({ weekday, opens }: Hours) => weekday * 1440 + opens;
  const [first, second] = [begin(a), begin(b)];
  const [long, short] = [a.closes - a.opens, b.closes - b.opens];
  return [-week, 0, week].some((shift) => first < second + shift + short && second + shift < first + long);
}
const week = 7 * 1440;
