import type { Hogar } from "@/kernel/hogar";
import { rezoneSites } from "@/modules/customers/operations/rezone";
import { readBusiness } from "@/store/business";
import { mustPerform, perform, viewContext, type ViewContext } from "@/kernel/operation";
import { closeTurn, inviteCustomer } from "@/modules/campaigns/operations/invite";
import { dueCampaigns, todaysTurn } from "@/modules/campaigns/inviting";
import { askForReview } from "@/modules/reviews/operations/reviews";
import { jobsToReview } from "@/modules/reviews/reviews";
import { lapsedDeposits, lapsedHolds } from "@/modules/due/lapsed";
import { lapseDeposit, lapseHold } from "@/modules/due/operations/lapse";
import { forgetFiles } from "@/modules/messages/operations/forget-files";
import { noteDelivery } from "@/modules/messages/operations/record-delivery";
import { remindOfVisits } from "@/modules/messages/operations/write-reminders";
import { customersToRemind, invoicesToRemind } from "@/modules/messages/reminders";
import { customersToBill } from "@/modules/money/billing";
import { noticesDue, runsToEnd, stillToTell, toCollect, toFollow } from "@/modules/collection/collecting";
import { collectDue, endRun, followCharge, noticeOfCharge, watchPromise } from "@/modules/collection/operations/runs";
import { promisesToEnd } from "@/modules/collection/promises";
import { expiringCards } from "@/modules/money/cards";
import { tellExpiry } from "@/modules/money/operations/cards";
import { lateInvoices } from "@/modules/money/late-fees";
import { askLateFee } from "@/modules/money/operations/late-fees";
import { remindOfInvoice } from "@/modules/money/operations/remind-of-invoice";
import { billByItself } from "@/modules/money/operations/billing";
import { goOnWithImport } from "@/modules/imports/operations/go-on-with-import";
import { forgetPictures } from "@/modules/pictures/operations/forget-pictures";
import { followUpQuote } from "@/modules/quotes/operations/quotes";
import { quotesToFollowUp } from "@/modules/quotes/quotes";
import { growRepeat } from "@/modules/repeats/operations/repeats";
import { repeatsToGrow, repeatsWithoutRoom } from "@/modules/repeats/repeats";
import { tellTeam } from "@/modules/visits/operations/tell-team";
import { meetWish } from "@/modules/requests/operations/wishes";
import { openWishes } from "@/modules/requests/wishes";
import { lookAtSecondSteps, takeDownPayouts, worker } from "./effects";
import { type PieceByPiece, workThrough } from "./failed-work";
import { drainOutbox } from "./outbox";
import { prune } from "./pruning";

/** Something the worker does again and again. */
export interface ScheduledJob {
  name: string;
  /** How often, by the business's clock; 0 is at every turn. */
  everyMs: number;
  /**
   * Works until `until` (of performance.now()) at the longest. Answers null when it is done for now; otherwise it is
   * called again at the next turn with what it answered as `from`.
   */
  run: (hogar: Hogar, until: number, from: number) => number | null | Promise<number | null>;
}

const minuteMs = 60_000;
const contextOf = (hogar: Hogar): ViewContext => viewContext(hogar, worker);
/** All rows of a query about one subject: what a piece of work depends on. */
const rows = (query: string) => (hogar: Hogar, id: number) => hogar.store.sql(query).all({ id });
const words = (query: string) => (hogar: Hogar, id: number) =>
  hogar.store.sql<{ words: string }>(query).get({ id })?.words ?? `number ${id}`;

const hold: PieceByPiece = {
  job: "hold",
  stateOf: rows("SELECT * FROM visits WHERE id = @id OR first_visit_id = @id"),
  wordsOf: words("SELECT 'A hold for ' || title || ' on ' || date AS words FROM visits WHERE id = @id"),
  work: (hogar, visitId) => perform(hogar, lapseHold, { visitId }, worker),
};
const deposit: PieceByPiece = {
  job: "deposit",
  stateOf: rows("SELECT * FROM jobs WHERE id = @id"),
  wordsOf: words(
    `SELECT 'The booking of ' || c.name || ', whose deposit has not come' AS words
      FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = @id`,
  ),
  work: (hogar, jobId) => perform(hogar, lapseDeposit, { jobId }, worker),
};
/** In so many transactions a repeat is laid out many times over: whatever takes longer would never end. */
const mostPieces = 500;
const repeat: PieceByPiece = {
  job: "repeat",
  stateOf: rows(
    `SELECT r.customer_id, r.items, r.rule, r.start_date, r.on_closed, r.from_minute, r.to_minute,
        r.technician_id, r.state, s.*, t.lng, t.lat, t.zone_id
      FROM repeats r JOIN services s ON s.id = r.service_id JOIN sites t ON t.id = r.site_id WHERE r.id = @id`,
  ),
  wordsOf: words(
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
const wish: PieceByPiece = {
  job: "wish",
  stateOf: rows("SELECT * FROM requests WHERE id = @id"),
  wordsOf: words("SELECT name || ', who waits for a window' AS words FROM requests WHERE id = @id"),
  // A wish that was withdrawn this moment is none any more: no matter.
  work(hogar, id) {
    const result = perform(hogar, meetWish, { id }, worker);
    return result.ok || result.problem.code !== "not-found" ? result : { ok: true, value: null };
  },
};
const bill: PieceByPiece = {
  job: "bill",
  stateOf: rows("SELECT * FROM customers WHERE id = @id"),
  wordsOf: words("SELECT 'The bill of ' || name AS words FROM customers WHERE id = @id"),
  work: (hogar, customerId) => perform(hogar, billByItself, { customerId }, worker),
};
const lateFee: PieceByPiece = {
  job: "late fee",
  stateOf: rows("SELECT i.late_fee_on, c.* FROM invoices i JOIN customers c ON c.id = i.customer_id WHERE i.id = @id"),
  wordsOf: words("SELECT 'The late fee of invoice ' || label AS words FROM invoices WHERE id = @id"),
  work: (hogar, invoiceId) => perform(hogar, askLateFee, { invoiceId }, worker),
};
const followUp: PieceByPiece = {
  job: "quote follow-up",
  stateOf: rows("SELECT * FROM quotes WHERE id = @id"),
  wordsOf: words("SELECT 'Asking ' || name || ' again about a quote' AS words FROM quotes WHERE id = @id"),
  work: (hogar, quoteId) => perform(hogar, followUpQuote, { quoteId }, worker),
};
const cardExpiry: PieceByPiece = {
  job: "card expiry",
  stateOf: rows("SELECT expires, removed_at, expiry_told FROM cards WHERE id = @id"),
  wordsOf: words(
    "SELECT 'The notice that a card of ' || c.name || ' expires' AS words FROM cards k JOIN customers c ON c.id = k.customer_id WHERE k.id = @id",
  ),
  work: (hogar, cardId) => perform(hogar, tellExpiry, { cardId }, worker),
};
const visitReminders: PieceByPiece = {
  job: "visit reminders",
  stateOf: rows(
    `SELECT v.window_from, v.state, j.mail, j.phone, c.*
      FROM customers c JOIN jobs j ON j.customer_id = c.id JOIN visits v ON v.job_id = j.id WHERE c.id = @id AND v.state = 'promised'`,
  ),
  wordsOf: words("SELECT 'The reminders of ' || name AS words FROM customers WHERE id = @id"),
  work: (hogar, customerId) => perform(hogar, remindOfVisits, { customerId }, worker),
};
const invoiceReminder: PieceByPiece = {
  job: "invoice reminder",
  stateOf: rows("SELECT i.due_date, c.* FROM invoices i JOIN customers c ON c.id = i.customer_id WHERE i.id = @id"),
  wordsOf: words("SELECT 'The reminder of invoice ' || label AS words FROM invoices WHERE id = @id"),
  work: (hogar, invoiceId) => perform(hogar, remindOfInvoice, { invoiceId }, worker),
};

/** All of the outbox, to the end; the running worker has its lanes go on by themselves instead. */
export const outbox: ScheduledJob = {
  name: "outbox",
  everyMs: 0,
  async run(hogar) {
    await drainOutbox(hogar);
    return null;
  },
};

/** Rows of an import in one transaction, at most. */
const importRowsAtOnce = 200;

/** Imports under way, in pieces: the record says whose import it was that changed something. */
function goOnWithImports(hogar: Hogar, until: number): number | null {
  for (const { id, made_by } of hogar.store
    .sql<{ id: number; made_by: string }>(
      "SELECT id, made_by FROM imports WHERE state IN ('checking', 'taking', 'undoing') ORDER BY id",
    )
    .all()) {
    const actor = { kind: "system", name: `import ${id} of ${made_by}` } as const;
    for (let more = true; more;) {
      if (performance.now() > until) return id;
      more = mustPerform(hogar, goOnWithImport, { importId: id, most: importRowsAtOnce }, actor).more;
    }
  }
  return null;
}

const aboutInvoice =
  "SELECT i.collect_never, i.collect_on, i.collect_known, b.open_minor FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id WHERE i.id = @id";
const pieceOf = (job: string, said: string, work: PieceByPiece["work"]): PieceByPiece => ({
  job,
  stateOf: rows(aboutInvoice),
  wordsOf: words(`SELECT '${said} invoice ' || label AS words FROM invoices WHERE id = @id`),
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
  const context = contextOf(hogar);
  for (const promiseId of promisesToEnd(context)) mustPerform(hogar, watchPromise, { promiseId }, worker);
  const left =
    workThrough(hogar, chargeNotice, noticesAhead(hogar, context), until) ??
    workThrough(hogar, collection, toCollect(context), until);
  if (left === null) for (const date of runsToEnd(context)) mustPerform(hogar, endRun, { date }, worker);
  return left;
}

const reviewAsk: PieceByPiece = {
  job: "review",
  stateOf: rows("SELECT j.state, c.* FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = @id"),
  wordsOf: words(
    "SELECT 'Asking ' || c.name || ' how it was' AS words FROM jobs j JOIN customers c ON c.id = j.customer_id WHERE j.id = @id",
  ),
  work: (hogar, jobId) => perform(hogar, askForReview, { jobId }, worker),
};
/** Invitations of one campaign at one turn. */
const invitedAtOnce = 25;
const campaignTurn: PieceByPiece = {
  job: "campaign",
  stateOf: rows("SELECT * FROM campaigns WHERE id = @id"),
  wordsOf: words("SELECT 'The campaign ' || name AS words FROM campaigns WHERE id = @id"),
  // Who is invited is worked out outside of any transaction; each invitation is one, and is looked at anew in it.
  work(hogar, campaignId) {
    const turn = todaysTurn(contextOf(hogar), campaignId);
    const invite = "invite" in turn ? turn.invite : [];
    for (const { customer_id: customerId, site_id: siteId } of invite.slice(0, invitedAtOnce)) {
      const invited = perform(hogar, inviteCustomer, { campaignId, customerId, siteId }, worker);
      if (!invited.ok) return invited;
    }
    // The others come at the next turn, after whatever waits in the outbox.
    if (invite.length > invitedAtOnce) return { ok: true, value: null };
    return perform(hogar, closeTurn, { campaignId, end: "end" in turn ? turn.end : null }, worker);
  },
};

/** In the demo: what the stand-in for texts says of those it has taken, as a service would by its notices. */
function standinNews(hogar: Hogar): null {
  for (const notice of hogar.standins?.text.notices() ?? [])
    mustPerform(hogar, noteDelivery, { channel: "text", ...notice }, worker);
  return null;
}

/** After zones have changed, some customers more at each turn. */
function rezone(hogar: Hogar): null {
  if (readBusiness(hogar.store)?.zoned_to !== null) mustPerform(hogar, rezoneSites, {}, worker);
  return null;
}

/** In this order at each turn. The outbox comes first, so that nothing that follows can keep a message or a charge back. */
export const jobs: readonly ScheduledJob[] = [
  outbox,
  // Whoever has just been declined does not wait for the next card.
  {
    name: "after charges",
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, follow, toFollow(contextOf(hogar)), until),
  },
  { name: "news of the stand-ins", everyMs: 0, run: standinNews },
  { name: "imports", everyMs: 0, run: goOnWithImports },
  { name: "customers of zones", everyMs: 0, run: rezone },
  { name: "lapsed holds", everyMs: 0, run: (hogar, until) => workThrough(hogar, hold, lapsedHolds(hogar), until) },
  {
    name: "lapsed deposits",
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, deposit, lapsedDeposits(hogar, contextOf(hogar)), until),
  },
  {
    name: "reminders",
    everyMs: 0,
    run(hogar, until) {
      const context = contextOf(hogar);
      return (
        workThrough(hogar, visitReminders, customersToRemind(context), until) ??
        workThrough(hogar, invoiceReminder, invoicesToRemind(context), until)
      );
    },
  },
  {
    name: "repeats",
    everyMs: 5_000,
    run: (hogar, until) => workThrough(hogar, repeat, repeatsToGrow(hogar, contextOf(hogar).today), until),
  },
  {
    name: "repeats without room",
    everyMs: 60 * minuteMs,
    run: (hogar, until, from) =>
      workThrough(
        hogar,
        repeat,
        repeatsWithoutRoom(hogar, contextOf(hogar).today).filter((id) => id > from),
        until,
      ),
  },
  {
    name: "bills",
    everyMs: 10 * minuteMs,
    run: (hogar, until) => workThrough(hogar, bill, customersToBill(contextOf(hogar)), until),
  },
  {
    name: "late fees",
    everyMs: 10 * minuteMs,
    run: (hogar, until) => workThrough(hogar, lateFee, lateInvoices(contextOf(hogar)), until),
  },
  {
    name: "quote follow-ups",
    everyMs: 10 * minuteMs,
    run: (hogar, until) => workThrough(hogar, followUp, quotesToFollowUp(contextOf(hogar)), until),
  },
  {
    name: "reviews",
    everyMs: 10 * minuteMs,
    run: (hogar, until) => workThrough(hogar, reviewAsk, jobsToReview(contextOf(hogar)), until),
  },
  {
    name: "campaigns",
    everyMs: 0,
    run: (hogar, until) => workThrough(hogar, campaignTurn, dueCampaigns(contextOf(hogar)), until),
  },
  {
    name: "cards that expire",
    everyMs: 60 * minuteMs,
    run: (hogar, until) => workThrough(hogar, cardExpiry, expiringCards(contextOf(hogar)), until),
  },
  { name: "collection", everyMs: minuteMs / 2, run: collect },
  {
    name: "second steps",
    everyMs: 10 * minuteMs,
    run: async (hogar) => {
      await lookAtSecondSteps(hogar);
      return null;
    },
  },
  {
    name: "payouts",
    everyMs: 60 * minuteMs,
    run: async (hogar) => {
      await takeDownPayouts(hogar);
      return null;
    },
  },
  {
    name: "our own people",
    everyMs: minuteMs,
    run: (hogar) => {
      mustPerform(hogar, tellTeam, {}, worker);
      return null;
    },
  },
  // A window that opens is told of within minutes.
  {
    name: "wishes",
    everyMs: 5 * minuteMs,
    run: (hogar, until, from) =>
      workThrough(
        hogar,
        wish,
        openWishes(hogar).filter((id) => id > from),
        until,
      ),
  },
  {
    name: "files nobody needs",
    everyMs: 60 * minuteMs,
    run: (hogar) => {
      mustPerform(hogar, forgetPictures, {}, worker);
      mustPerform(hogar, forgetFiles, {}, worker);
      return null;
    },
  },
  { name: "what is kept no longer", everyMs: 60 * minuteMs, run: prune },
];

/** What is looked after at every turn. */
export const everyTurn = jobs.filter((job) => job.everyMs === 0);
