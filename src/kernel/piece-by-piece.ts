import { dayMs, tryAgainDays } from "@/core/horizons";
import { problems, type Result } from "@/core/problems";
import type { Hogar } from "./hogar";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";

/** What a job of the worker does for one subject after the other: one repeat, one visit, one invoice. */
export interface PieceByPiece {
  /** The job's name, as it is kept with what failed. */
  job: string;
  /** What it is about, as it stands: what failed is tried again when this has changed. */
  stateOf: (hogar: Hogar, id: number) => unknown;
  /** What a person reads of it: "the repeat of Mira Okonjo". */
  wordsOf: (hogar: Hogar, id: number) => string;
  /** One transaction of its own. */
  work: (hogar: Hogar, id: number) => Result<unknown>;
}

/**
 * Works through the subjects until the time is over, each within its own try. What cannot be done is set aside with the
 * reason and told on Today; the rest goes on. Answers null when all are through, otherwise the last one that was.
 */
export function workThrough(hogar: Hogar, piece: PieceByPiece, ids: readonly number[], until: number): number | null {
  const aside = new Map(
    hogar.store
      .sql<FailedRow>("SELECT * FROM failed_work WHERE job = ?")
      .all(piece.job)
      .map((row) => [Number(row.subject), row]),
  );
  forgetEnded(hogar, piece, [...aside.values()], new Set(ids));
  let last = 0;
  for (const id of ids) {
    const failed = aside.get(id);
    if (failed && !mayWorkNow(hogar, piece, id, failed)) continue;
    if (performance.now() > until) return last;
    const problem = tryOne(hogar, piece, id);
    if (problem !== null) setAside(hogar, piece, id, problem);
    else if (failed)
      hogar.store.sql("DELETE FROM failed_work WHERE job = ? AND subject = ?").run(piece.job, String(id));
    last = id;
  }
  return null;
}

/** What failed of a job for one cause is tried again at its next turn. Answers how many that are. */
export const forgetFailed = ({ store }: Hogar, job: string, problem: string): number =>
  store.sql("DELETE FROM failed_work WHERE job = ? AND problem = ?").run(job, problem).changes;

type FailedRow = Rows["failed_work"];

/** What is not due any more and has changed since has ended with what it was about: it was done otherwise, cancelled, or is not asked for. */
function forgetEnded(hogar: Hogar, piece: PieceByPiece, rows: readonly FailedRow[], due: ReadonlySet<number>): void {
  for (const { subject, state_then } of rows)
    if (!due.has(Number(subject)) && stateOf(hogar, piece, Number(subject)) !== state_then)
      hogar.store.sql("DELETE FROM failed_work WHERE job = ? AND subject = ?").run(piece.job, subject);
}

const mayWorkNow = (hogar: Hogar, piece: PieceByPiece, id: number, failed: FailedRow): boolean =>
  failed.failed_at < hogar.now() - tryAgainDays * dayMs || failed.state_then !== stateOf(hogar, piece, id);

const stateOf = (hogar: Hogar, piece: PieceByPiece, id: number): string =>
  JSON.stringify(piece.stateOf(hogar, id) ?? null);

/** What went wrong, in a sentence; null where it worked or is only delayed. */
function tryOne(hogar: Hogar, { work, job }: PieceByPiece, id: number): string | null {
  try {
    const result = work(hogar, id);
    return result.ok || result.problem.code === "busy" ? null : result.problem.sentence;
  } catch (error) {
    console.error(job, id, error);
    return problems.unexpected;
  }
}

function setAside(hogar: Hogar, piece: PieceByPiece, id: number, problem: string): void {
  insertRow(
    hogar.store.sql,
    "failed_work",
    {
      job: piece.job,
      subject: String(id),
      words: piece.wordsOf(hogar, id),
      problem,
      state_then: stateOf(hogar, piece, id),
      failed_at: hogar.now(),
    },
    "ON CONFLICT DO UPDATE SET words = excluded.words, problem = excluded.problem, state_then = excluded.state_then, failed_at = excluded.failed_at",
  );
}
