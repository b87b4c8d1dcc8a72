import { addDays, type LocalDate } from "@/core/time/dates";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { type BeforeChange, beforeChangeColumn, type StoredTerms } from "@/store/columns";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";

export type RepeatRow = Rows["repeats"];

/** Until no day that will come. */
export const farthest = "9999-12-31";

/** The terms of a repeat in the order in which they count, each up to its `until_date`; the last ones are in force. */
export const allTerms = ({ sql }: ViewContext, repeat: RepeatRow): StoredTerms[] => {
  const { start_date, rule, from_minute, to_minute, technician_id, on_closed } = repeat;
  return [
    ...sql<StoredTerms>(
      `SELECT until_date, start_date, rule, from_minute, to_minute, technician_id, on_closed
        FROM repeat_terms WHERE repeat_id = ? ORDER BY until_date`,
    ).all(repeat.id),
    { until_date: farthest, start_date, rule, from_minute, to_minute, technician_id, on_closed },
  ];
};

/** Those that count before a date, the last of them up to the day before it. */
export function termsUpTo(terms: readonly StoredTerms[], date: LocalDate): StoredTerms[] {
  const dayBefore = addDays(date, -1);
  const at = terms.findIndex((one) => one.until_date >= dayBefore);
  return terms
    .slice(0, at + 1)
    .map((one, i) => (i === at ? { ...one, until_date: dayBefore } : one))
    .filter((one) => one.start_date < date);
}

/** Keeps what a change that is a part of a batch is taken back to: how it stood before the first change of that. */
export const keepBefore = ({ sql }: OperationContext, repeatId: number, before: BeforeChange, batchId: number): void =>
  void sql("UPDATE repeats SET before_change = ?, batch_id = ? WHERE id = ? AND batch_id IS NOT ?").run(
    beforeChangeColumn.write(before),
    batchId,
    repeatId,
    batchId,
  );

/** Other terms in place of all of them; `before`: what can be taken back then, alone or with others of a batch. */
export function replaceTerms(
  { sql }: OperationContext,
  repeatId: number,
  terms: readonly StoredTerms[],
  before: BeforeChange | null,
  batchId: number | null = null,
): void {
  const { start_date, rule, from_minute, to_minute, technician_id, on_closed } = terms.at(-1)!;
  sql(
    `UPDATE repeats SET start_date = ?, rule = ?, from_minute = ?, to_minute = ?, technician_id = ?, on_closed = ?,
        before_change = ?, batch_id = ?
      WHERE id = ?`,
  ).run(
    start_date,
    rule,
    from_minute,
    to_minute,
    technician_id,
    on_closed,
    before && beforeChangeColumn.write(before),
    batchId,
    repeatId,
  );
  sql("DELETE FROM repeat_terms WHERE repeat_id = ?").run(repeatId);
  for (const one of terms.slice(0, -1)) insertRow(sql, "repeat_terms", { repeat_id: repeatId, ...one });
}
