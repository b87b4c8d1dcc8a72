import { mustPerform, perform } from "@/kernel/operation";
import { type PieceByPiece, workThrough } from "@/kernel/piece-by-piece";
import type { Hogar } from "@/kernel/hogar";
import { minuteMs, rowsAbout, type ScheduledJob, seenByWorker, wordsAbout, worker } from "@/kernel/scheduled";
import type { ViewContext } from "@/kernel/operation";
import { noticesDue, runsToEnd, stillToTell, toCollect, toFollow } from "./collecting";
import { collectDue, endRun, followCharge, noticeOfCharge, watchPromise } from "./operations/runs";
import { promisesToEnd } from "./promises";

const aboutInvoice =
  "SELECT i.collect_never, i.collect_on, i.collect_known, b.open_minor FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id WHERE i.id = @id";
const pieceOf = (job: string, said: string, work: PieceByPiece["work"]): PieceByPiece => ({
  job,
  stateOf: rowsAbout(aboutInvoice),
  wordsOf: wordsAbout(`SELECT '${said} invoice ' || label AS words FROM invoices WHERE id = @id`),
  work,
});
const chargeNotice = pieceOf("charge notice", "The notice of the charge of", (hogar, invoiceId) =>
  perform(hogar, noticeOfCharge, { invoiceId }, worker),
);
const collection = pieceOf("collection", "Collecting", (hogar, invoiceId) =>
  perform(hogar, collectDue, { invoiceId }, worker),
);
const follow = pieceOf("after a charge", "What follows from the charge of", (hogar, invoiceId) =>
  perform(hogar, followCharge, { invoiceId }, worker),
);

/** Whom to tell of a charge: all that is due is looked through once in a while, and worked off in between. */
const lookedFor = new WeakMap<Hogar, { stretch: number; ids: number[] }>();
function noticesAhead(hogar: Hogar, context: ViewContext): number[] {
  const stretch = Math.floor(context.now / (5 * minuteMs));
  const before = lookedFor.get(hogar);
  const ids =
    before?.stretch === stretch && before.ids.length > 0 ? stillToTell(context, before.ids) : noticesDue(context);
  lookedFor.set(hogar, { stretch, ids });
  return ids;
}

/** What is due comes in by itself: notices the day before, the run, and promises that are over. */
function collect(hogar: Hogar, until: number): number | null {
  const context = seenByWorker(hogar);
  for (const promiseId of promisesToEnd(context)) mustPerform(hogar, watchPromise, { promiseId }, worker);
  const left =
    workThrough(hogar, chargeNotice, noticesAhead(hogar, context), until) ??
    workThrough(hogar, collection, toCollect(context), until);
  if (left === null) for (const date of runsToEnd(context)) mustPerform(hogar, endRun, { date }, worker);
  return left;
}

export const collectionJobs: readonly ScheduledJob[] = [
  // Whoever has just been declined does not wait for the next card.
  {
    name: "after charges",
    order: 10,
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, follow, toFollow(seenByWorker(hogar)), until),
  },
  { name: "collection", order: 170, everyMs: minuteMs / 2, run: collect },
];
