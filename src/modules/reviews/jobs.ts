import { perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import { minuteMs, rowsAbout, type ScheduledJob, seenByWorker, wordsAbout, worker } from "@/kernel/scheduled";
import { askForReview } from "./operations/reviews";
import { jobsToReview } from "./reviews";

const reviewAsk: PieceByPiece = {
  job: "review",
  stateOf: rowsAbout("SELECT j.state, c.* FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = @id"),
  wordsOf: wordsAbout(
    "SELECT 'Asking ' || c.name || ' how it was' AS words FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = @id",
  ),
  work: (hogar, jobId) => perform(hogar, askForReview, { jobId }, worker),
};

export const reviewJobs: readonly ScheduledJob[] = [
  {
    name: "reviews",
    order: 140,
    everyMs: 10 * minuteMs,
    run: (hogar, until) => workThrough(hogar, reviewAsk, jobsToReview(seenByWorker(hogar)), until),
  },
];
