import { groupBy } from "@/core/group";
import { type Mark, markOf } from "@/core/repeats/strip";
import { addMonths, type LocalDate } from "@/core/time/dates";
import type { VisitState } from "@/core/visits/states";
import type { ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";

/** A date of a repeat in its year strip: where it stands, what became of it, and its visit. */
export interface StripMark {
  date: LocalDate;
  mark: Mark;
  visitId: number | null;
}

/** Twelve months back and twelve ahead of some repeats, by their ids: visits, and dates that were left out. */
export function stripsOf({ sql, today }: ViewContext, ids: readonly number[]): (repeatId: number) => StripMark[] {
  const [from, to] = [addMonths(today, -12), addMonths(today, 12)];
  const asked = { ids: idsColumn.write([...ids]), from, to };
  const visits = sql<{
    id: number;
    repeat_id: number;
    repeat_date: LocalDate;
    date: LocalDate;
    state: VisitState;
    placed: number;
    asked: number;
  }>(
    `SELECT v.id, v.repeat_id, v.repeat_date, v.date, v.state,
        EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) AS placed,
        EXISTS (SELECT 1 FROM repeat_asks a WHERE a.repeat_id = v.repeat_id AND a.date = v.repeat_date
          AND a.state IN ('asked', 'for us')) AS asked
      FROM visits v
      WHERE v.repeat_id IN (SELECT value FROM json_each(@ids)) AND v.date BETWEEN @from AND @to`,
  ).all(asked);
  const skipped = sql<{ repeat_id: number; date: LocalDate }>(
    `SELECT e.repeat_id, e.date
      FROM repeat_exceptions e
      WHERE e.repeat_id IN (SELECT value FROM json_each(@ids)) AND e.date BETWEEN @from AND @to AND e.skip = 1
        AND NOT EXISTS (SELECT 1 FROM visits v WHERE v.repeat_id = e.repeat_id AND v.repeat_date = e.date)`,
  ).all(asked);
  const marks = groupBy(
    [
      ...visits.map((v) => ({
        repeatId: v.repeat_id,
        date: v.date,
        visitId: v.id,
        mark: markOf({
          state: v.state,
          elsewhere: v.date !== v.repeat_date,
          placed: v.placed === 1,
          asked: v.asked === 1,
        }),
      })),
      ...skipped.map(({ repeat_id, date }) => ({
        repeatId: repeat_id,
        date,
        visitId: null,
        mark: markOf({ state: null, elsewhere: false, placed: false, asked: false }),
      })),
    ],
    ({ repeatId }) => repeatId,
  );
  return (repeatId) =>
    (marks.get(repeatId) ?? [])
      .map(({ date, mark, visitId }) => ({ date, mark, visitId }))
      .sort((a, b) => a.date.localeCompare(b.date));
}
