import { perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import { rowsAbout, type ScheduledJob, seenByWorker, wordsAbout, worker } from "@/kernel/scheduled";
import { lapsedDeposits, lapsedHolds } from "./lapsed";
import { lapseDeposit, lapseHold } from "./operations/lapse";

const hold: PieceByPiece = {
  job: "hold",
  stateOf: rowsAbout("SELECT * FROM visits WHERE id = @id OR first_visit_id = @id"),
  wordsOf: wordsAbout("SELECT 'A hold for ' || title || ' on ' || date AS words FROM visits WHERE id = @id"),
  work: (hogar, visitId) => perform(hogar, lapseHold, { visitId }, worker),
};
const deposit: PieceByPiece = {
  job: "deposit",
  stateOf: rowsAbout("SELECT * FROM jobs WHERE id = @id"),
  wordsOf: wordsAbout(
    `SELECT 'The booking of ' || c.name || ', whose deposit has not come' AS words
      FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = @id`,
  ),
  work: (hogar, jobId) => perform(hogar, lapseDeposit, { jobId }, worker),
};

export const dueJobs: readonly ScheduledJob[] = [
  {
    name: "lapsed holds",
    order: 50,
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, hold, lapsedHolds(hogar), until),
  },
  {
    name: "lapsed deposits",
    order: 60,
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, deposit, lapsedDeposits(hogar, seenByWorker(hogar)), until),
  },
];
