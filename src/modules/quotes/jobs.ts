import { perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import { minuteMs, rowsAbout, type ScheduledJob, seenByWorker, wordsAbout, worker } from "@/kernel/scheduled";
import { followUpQuote } from "./operations/quotes";
import { quotesToFollowUp } from "./quotes";

const followUp: PieceByPiece = {
  job: "quote follow-up",
  stateOf: rowsAbout("SELECT * FROM quotes WHERE id = @id"),
  wordsOf: wordsAbout("SELECT 'Asking ' || name || ' again about a quote' AS words FROM quotes WHERE id = @id"),
  work: (hogar, quoteId) => perform(hogar, followUpQuote, { quoteId }, worker),
};

export const quoteJobs: readonly ScheduledJob[] = [
  {
    name: "quote follow-ups",
    order: 130,
    everyMs: 10 * minuteMs,
    run: (hogar, until) => workThrough(hogar, followUp, quotesToFollowUp(seenByWorker(hogar)), until),
  },
];
