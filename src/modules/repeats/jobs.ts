import { perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import { minuteMs, rowsAbout, type ScheduledJob, seenByWorker, wordsAbout, worker } from "@/kernel/scheduled";
import { growRepeat } from "./operations/repeats";
import { repeatsToGrow, repeatsWithoutRoom } from "./repeats";

/** In so many transactions a repeat is laid out many times over: whatever takes longer would never end. */
const mostPieces = 500;
const repeat: PieceByPiece = {
  job: "repeat",
  stateOf: rowsAbout(
    `SELECT r.customer_id, r.items, r.rule, r.start_date, r.on_closed, r.from_minute, r.to_minute,
        r.technician_id, r.state, s.*, t.lng, t.lat, t.zone_id
      FROM repeats r JOIN services s ON s.id = r.service_id JOIN sites t ON t.id = r.site_id WHERE r.id = @id`,
  ),
  wordsOf: wordsAbout(
    `SELECT 'The repeat of ' || c.name || ', ' || s.name AS words
      FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN services s ON s.id = r.service_id
      WHERE r.id = @id`,
  ),
  work(hogar, repeatId) {
    for (let piece = 0; piece < mostPieces; piece++) {
      const result = perform(hogar, growRepeat, { repeatId }, worker);
      if (!result.ok || !result.value.more) return result;
    }
    throw new Error(`The repeat ${repeatId} finds no end`);
  },
};

export const repeatJobs: readonly ScheduledJob[] = [
  {
    name: "repeats",
    order: 90,
    everyMs: 5_000,
    run: (hogar, until) => workThrough(hogar, repeat, repeatsToGrow(hogar, seenByWorker(hogar).today), until),
  },
  {
    name: "repeats without room",
    order: 100,
    everyMs: 60 * minuteMs,
    run: (hogar, until, from) =>
      workThrough(
        hogar,
        repeat,
        repeatsWithoutRoom(hogar, seenByWorker(hogar).today).filter((id) => id > from),
        until,
      ),
  },
];
