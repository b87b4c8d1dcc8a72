import { ownChanges, type OwnChanges } from "@/core/catalogue/cut-off";
import { type Question, stillOpen } from "@/core/catalogue/questions";
import { noAccessFee } from "@/core/catalogue/terms";
import type { Minor } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { visitStates } from "@/core/visits/states";
import type { ViewContext } from "@/kernel/operation";
import { questionsOf, readService } from "@/modules/catalogue/catalogue";
import { itemsOfJob, termsOfJob } from "@/modules/catalogue/job-items";
import type { VisitRow } from "@/modules/placing/visits";

/** What customers change by their own link, until the owner's hours before the window. */
export interface OwnWork {
  job: { id: number; state: string; approval: "given" | "waiting" | "proposed"; moved_fee_minor: number };
  /** The days that are still to come, in order. */
  days: VisitRow[];
  changes: OwnChanges | null;
  /** Nobody was home at these, and nothing is promised since: another time can be chosen, for this fee. */
  missed: { days: VisitRow[]; feeMinor: Minor } | null;
}

/** The work of a link, with what its customer may change now; no changes where nothing lies ahead. */
export function ownWork(context: ViewContext): OwnWork {
  const { sql, actor, business, minute } = context;
  if (actor.kind !== "link") throw new Refusal("link-ended");
  const job = sql<OwnWork["job"]>("SELECT id, state, approval, moved_fee_minor FROM jobs WHERE id = ?").get(
    actor.jobId,
  )!;
  const days = sql<VisitRow>("SELECT * FROM visits WHERE job_id = ? AND state = 'promised' ORDER BY window_from").all(
    actor.jobId,
  );
  const begun =
    sql("SELECT 1 FROM visits WHERE job_id = ? AND state NOT IN ('promised', 'cancelled')").get(actor.jobId) !==
    undefined;
  const first = days[0];
  const changes =
    first && !begun && job.state !== "cancelled" && job.state !== "done"
      ? ownChanges(
          { moveHours: business.move_hours, cancelHours: business.cancel_hours, lateMoves: business.late_moves },
          termsOfJob(context, job.id),
          {
            agreed: job.state === "agreed" && job.approval === "given",
            proposed: job.state === "agreed" && job.approval === "proposed",
            takenMinor: job.moved_fee_minor,
          },
          first.window_from,
          minute,
        )
      : null;
  const missed =
    days.length === 0 && job.state === "agreed"
      ? sql<VisitRow>(
          `SELECT * FROM visits WHERE job_id = ? AND state IN ${visitStates.sql("go again")} ORDER BY window_from`,
        ).all(actor.jobId)
      : [];
  return {
    job,
    days,
    changes,
    missed: missed.length ? { days: missed, feeMinor: noAccessFee(termsOfJob(context, job.id)) } : null,
  };
}

interface OwnRepeat {
  id: number;
  rule: string;
  start_date: LocalDate;
  state: "active" | "ended";
}

/** The repeat by which the visit of a link comes back, or came back until its customer ended it; null where there is none that is theirs to change. */
export function ownRepeat({ sql, actor }: ViewContext): OwnRepeat | null {
  if (actor.kind !== "link") return null;
  const repeat = sql<OwnRepeat>(
    `SELECT r.id, r.rule, r.start_date, r.state
      FROM repeats r JOIN visits v ON v.repeat_id = r.id
      WHERE v.job_id = ? AND (r.state = 'active' OR r.ended_by_customer = 1) ORDER BY r.id DESC LIMIT 1`,
  );
  return repeat.get(actor.jobId) ?? null;
}

/** What the services of a job still ask, where it changes nothing that was agreed. */
export function openQuestions(
  context: ViewContext,
  jobId: number,
): { position: number; service: string; questions: Question[] }[] {
  return itemsOfJob(context, jobId).flatMap(({ serviceId, answers }, position) => {
    const service = readService(context, serviceId);
    const questions = stillOpen(questionsOf(service), answers);
    return questions.length ? [{ position, service: service.name, questions }] : [];
  });
}
