import { mustPerform, perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import type { Hogar } from "@/kernel/hogar";
import { minuteMs, rowsAbout, type ScheduledJob, seenByWorker, wordsAbout, worker } from "@/kernel/scheduled";
import { forgetFiles } from "./operations/forget-files";
import { noteDelivery } from "./operations/record-delivery";
import { remindOfVisits } from "./operations/write-reminders";
import { customersToRemind } from "./reminders";

const visitReminders: PieceByPiece = {
  job: "visit reminders",
  stateOf: rowsAbout(
    `SELECT v.window_from, v.state, j.mail, j.phone, c.*
      FROM customers c JOIN jobs j ON j.customer_id = c.id JOIN visits v ON v.job_id = j.id WHERE c.id = @id AND v.state = 'promised'`,
  ),
  wordsOf: wordsAbout("SELECT 'The reminders of ' || name AS words FROM customers WHERE id = @id"),
  work: (hogar, customerId) => perform(hogar, remindOfVisits, { customerId }, worker),
};

/** In the demo: what the stand-in for texts says of those it has taken, as a service would by its notices. */
function standinNews(hogar: Hogar): null {
  for (const notice of hogar.standins?.text.notices() ?? [])
    mustPerform(hogar, noteDelivery, { channel: "text", ...notice }, worker);
  return null;
}

export const messageJobs: readonly ScheduledJob[] = [
  { name: "news of the stand-ins", order: 20, everyMs: 0, run: standinNews },
  {
    name: "reminders of visits",
    order: 70,
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, visitReminders, customersToRemind(seenByWorker(hogar)), until),
  },
  {
    name: "files nobody needs",
    order: 220,
    everyMs: 60 * minuteMs,
    run: (hogar) => {
      mustPerform(hogar, forgetFiles, {}, worker);
      return null;
    },
  },
];
