import { roundHalfAway } from "@/core/money/amounts";
import { type Approval, type JobState, jobStates } from "@/core/jobs/states";
import { Refusal } from "@/core/problems";
import { visitStates } from "@/core/visits/states";
import type { OperationContext } from "@/kernel/operation";
import { insertRow, type NewRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import type { TickedItem } from "@/core/catalogue/checklist";
import { promise } from "./promises";

type Of<Table extends "job_items" | "job_lines"> = Omit<NewRow<Table>, "job_id" | "position">;

export interface NewWork {
  job: NewRow<"jobs"> & { state: "awaiting deposit" | "agreed" };
  items: readonly Of<"job_items">[];
  lines: readonly Of<"job_lines">[];
  /** The first of its visits: a hold or a forecast. */
  visitId: number;
  checklist: readonly TickedItem[];
  /** In how many months the first visit comes again, where no repeat says so. */
  againMonths: number | null;
}

/** Work that was agreed: its visits are promised in the windows in which they stand. Answers the job's id. */
export function addJob(context: OperationContext, { job, items, lines, visitId, ...visits }: NewWork): number {
  const { sql } = context;
  const id = insertRow(sql, "jobs", job);
  for (const [position, item] of items.entries()) insertRow(sql, "job_items", { ...item, job_id: id, position });
  for (const [position, line] of lines.entries()) insertRow(sql, "job_lines", { ...line, job_id: id, position });
  const days = sql<Pick<Rows["visits"], "id" | "state" | "window_from" | "window_to">>(
    "SELECT id, state, window_from, window_to FROM visits WHERE id = @visitId OR first_visit_id = @visitId",
  ).all({ visitId });
  if (!days.every(({ state }) => visitStates.follows("promised", state))) throw new Refusal("visit-not-open");
  sql(
    `UPDATE visits SET state = 'promised', job_id = @id, held_until = NULL, checklist = @checklist,
        again_months = iif(id = @visitId AND repeat_id IS NULL, @months, NULL)
      WHERE id = @visitId OR first_visit_id = @visitId`,
  ).run({ id, checklist: JSON.stringify(visits.checklist), visitId, months: visits.againMonths });
  for (const day of days) promise(context, day.id, { from: day.window_from, to: day.window_to });
  return id;
}

/** A job stands so from now on, as the table of states allows it. */
export function setJobState({ sql }: OperationContext, id: number, to: JobState): void {
  const { state } = sql<{ state: JobState }>("SELECT state FROM jobs WHERE id = ?").get(id)!;
  if (state === to) return;
  if (!jobStates.follows(to, state)) throw new Refusal("visit-not-open");
  sql("UPDATE jobs SET state = ? WHERE id = ?").run(to, id);
}

/** Its deposit has come: it is agreed, and whoever paid it has shown that they mean it. */
export function agreePaid(context: OperationContext, id: number): void {
  setJobState(context, id, "agreed");
  context.sql("UPDATE jobs SET proof = 'paid' WHERE id = ? AND proof = 'none'").run(id);
}

/** Where it stands with us. */
export const setApproval = ({ sql }: OperationContext, id: number, to: Approval): void =>
  void sql("UPDATE jobs SET approval = ? WHERE id = ?").run(to, id);

/** A person has said that it stands, now. */
export const approve = ({ sql, now }: OperationContext, id: number): void =>
  void sql("UPDATE jobs SET approval = 'given', given_at = ? WHERE id = ?").run(now, id);

/** What waits for its deposit keeps its room no longer than until now. */
export const lapseNow = ({ sql, now }: OperationContext, id: number): void =>
  void sql("UPDATE jobs SET lapses_at = ? WHERE id = ? AND state = 'awaiting deposit'").run(now, id);

/** A code was sent, of which a hash is kept: whoever types it has shown who they are. */
export const awaitCode = ({ sql }: OperationContext, id: number, hash: string, lapsesAt: number): void =>
  void sql("UPDATE jobs SET code_hash = ?, code_tries = 0, lapses_at = ? WHERE id = ?").run(hash, lapsesAt, id);

export const countWrongCode = ({ sql }: OperationContext, id: number): void =>
  void sql("UPDATE jobs SET code_tries = code_tries + 1 WHERE id = ?").run(id);

/** Whoever booked has shown who they are. */
export const prove = ({ sql }: OperationContext, id: number): void =>
  void sql("UPDATE jobs SET proof = 'given', code_hash = NULL, lapses_at = NULL WHERE id = ?").run(id);

/** A position more, with the tax of the first one; `amountMinor` contains it. */
export function addJobLine(context: OperationContext, jobId: number, description: string, amountMinor: number): void {
  const { sql, business } = context;
  const { taxBp, position } = sql<{ taxBp: number; position: number }>(
    `SELECT max(position) + 1 AS position, (SELECT tax_bp FROM job_lines WHERE job_id = @jobId ORDER BY position LIMIT 1) AS taxBp
      FROM job_lines WHERE job_id = @jobId`,
  ).get({ jobId })!;
  const taxMinor = taxWithin(amountMinor, taxBp);
  insertRow(sql, "job_lines", {
    job_id: jobId,
    position,
    description,
    quantity: 1,
    unit_minor: business.prices_include_tax === 1 ? amountMinor : amountMinor - taxMinor,
    tax_bp: taxBp,
    amount_minor: amountMinor,
    tax_minor: taxMinor,
  });
  sql("UPDATE jobs SET total_minor = total_minor + ?, tax_minor = tax_minor + ? WHERE id = ?").run(
    amountMinor,
    taxMinor,
    jobId,
  );
}

/** The tax that an amount contains, minor units. */
export const taxWithin = (amountMinor: number, taxBp: number): number =>
  roundHalfAway((amountMinor * taxBp) / (10_000 + taxBp));

/** From which day on it waits to be billed; null: it is billed. */
export const setToBill = ({ sql }: OperationContext, id: number, since: string | null): void =>
  void sql("UPDATE jobs SET to_bill = @since WHERE id = @id AND to_bill IS NOT @since").run({ id, since });

/** It is paid in so many parts. */
export const payInParts = ({ sql }: OperationContext, id: number, parts: number): void =>
  void sql("UPDATE jobs SET parts = ? WHERE id = ?").run(parts, id);

/** What the customer owes for having moved it late, minor units. */
export const setMoveFee = ({ sql }: OperationContext, id: number, minor: number): void =>
  void sql("UPDATE jobs SET moved_fee_minor = ? WHERE id = ?").run(minor, id);

/** Where those came from whom we knew by another name is called so from now on. */
export const renameSource = ({ sql }: OperationContext, from: string, to: string): void =>
  void sql("UPDATE jobs SET source = ? WHERE source = ?").run(to, from);

/** What a customer agrees to with a booking, and with what repeats of it. */
export const agreeWithJob = (
  { sql }: OperationContext,
  jobId: number,
  kind: "reminders" | "offers",
  given: boolean,
): void =>
  void sql(
    `UPDATE jobs SET ${kind} = @given WHERE id = @jobId
        OR id IN (SELECT other.job_id FROM visits own JOIN visits other ON other.repeat_id = own.repeat_id WHERE own.job_id = @jobId)`,
  ).run({ given: given ? 1 : 0, jobId });

/** A customer agrees to it with no booking any more. */
export const agreeWithNone = ({ sql }: OperationContext, customerId: number, kind: "reminders" | "offers"): void =>
  void sql(`UPDATE jobs SET ${kind} = 0 WHERE customer_id = ? AND ${kind} = 1`).run(customerId);

/** Words and pictures that a customer adds afterwards. */
export const addToJob = (
  { sql, now }: OperationContext,
  jobId: number,
  { words, photos }: { words: string; photos: readonly string[] },
): number =>
  insertRow(sql, "additions", { job_id: jobId, made_at: now, words: words.trim(), photos: JSON.stringify(photos) });

/** Answers to what one of its services asks, with those that were there. */
export const keepAnswers = (
  { sql }: OperationContext,
  jobId: number,
  position: number,
  answers: readonly object[],
): void =>
  void sql("UPDATE job_items SET answers = ? WHERE job_id = ? AND position = ?").run(
    JSON.stringify(answers),
    jobId,
    position,
  );
