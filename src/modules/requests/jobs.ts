import { perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import { minuteMs, rowsAbout, type ScheduledJob, wordsAbout, worker } from "@/kernel/scheduled";
import { meetWish } from "./operations/wishes";
import { openWishes } from "./wishes";

const wish: PieceByPiece = {
  job: "wish",
  stateOf: rowsAbout("SELECT * FROM requests WHERE id = @id"),
  wordsOf: wordsAbout("SELECT name || ', who waits for a window' AS words FROM requests WHERE id = @id"),
  // A wish that was withdrawn this moment is none any more: no matter.
  work(hogar, id) {
    const result = perform(hogar, meetWish, { id }, worker);
    return result.ok || result.problem.code !== "not-found" ? result : { ok: true, value: null };
  },
};

export const requestJobs: readonly ScheduledJob[] = [
  // A window that opens is told of within minutes.
  {
    name: "wishes",
    order: 210,
    everyMs: 5 * minuteMs,
    run: (hogar, until, from) =>
      workThrough(
        hogar,
        wish,
        openWishes(hogar).filter((id) => id > from),
        until,
      ),
  },
];
