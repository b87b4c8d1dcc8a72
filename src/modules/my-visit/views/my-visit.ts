import { orderTermsWords } from "@/core/catalogue/terms";
import type { Approval, JobState } from "@/core/jobs/states";
import type { PaymentState } from "@/core/money/states";
import { lookOf } from "@/core/look/front-door";
import type { CalendarEntry } from "@/core/messages/calendar-file";
import { withheldOf } from "@/modules/customers/consents";
import { say } from "@/core/messages/languages";
import { consentWords } from "@/core/messages/consents";
import { moneyWords } from "@/core/money/amounts";
import { invoiceState } from "@/core/money/applying";
import { Refusal } from "@/core/problems";
import { repeatWords } from "@/core/repeats/rule-words";
import type { WorkPlace } from "@/core/visits/work-place";
import { windowIn } from "@/core/time/local-words";
import { type VisitState, visitStates } from "@/core/visits/states";
import { Id, input, Nothing } from "@/kernel/inputs";
import { sealedToken } from "@/kernel/links";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { termsOfJob } from "@/modules/catalogue/job-items";
import { cardCollectionWords } from "@/core/money/collection-words";
import { chargeComing } from "@/modules/collection/coming";
import { cardsOf, takesCards } from "@/modules/money/cards";
import { addressAt } from "@/modules/place/addresses";
import { placingOf } from "@/modules/placing/visits";
import { answersFor, bookableDates, pickable } from "@/modules/placing/windows";
import { photosColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import { openQuestions, ownRepeat, ownWork } from "../own-work";

/** What a customer's private link opens: one job, its visits, its money. */
export const myVisit = defineView({ name: "my-visit", access: "link", input: Nothing, read: pageOf });

/** The same as its customer sees it, for somebody of the office: to be read, without the link. */
export const customersPage = defineView({
  name: "customers-page",
  access: "office.see",
  about: { jobId: "job" },
  input: input({ jobId: Id }),
  read(context, { jobId }) {
    const job = context.sql<{ customer_id: number }>("SELECT customer_id FROM jobs WHERE id = ?").get(jobId);
    if (!job) throw new Refusal("not-found");
    return pageOf({ ...context, actor: { kind: "link", linkId: 0, jobId, customerId: job.customer_id } });
  },
});

function pageOf(context: ViewContext) {
  const { sql, actor, business, today } = context;
  if (actor.kind !== "link") throw new Refusal("link-ended");
  const { jobId, customerId } = actor;
  const job = sql<{
    state: JobState;
    approval: Approval;
    total_minor: number;
    deposit_minor: number;
    line: string;
    postcode: string;
    proof: string;
    customer: string;
    mail: string;
    phone: string;
    reminders: number;
    offers: number;
  }>(
    `SELECT j.state, j.approval, j.total_minor, j.deposit_minor, t.line, t.postcode, j.proof,
          iif(j.name <> '', j.name, c.name) AS customer,
          coalesce(j.reminders, c.reminders) AS reminders, coalesce(j.offers, c.offers) AS offers,
          iif(j.mail <> '', j.mail, c.mail) AS mail, iif(j.phone <> '', j.phone, c.phone) AS phone
        FROM jobs j JOIN sites t ON t.id = j.site_id JOIN customers c ON c.id = j.customer_id WHERE j.id = ?`,
  ).get(jobId)!;
  const visits = sql<{
    id: number;
    state: VisitState;
    title: string;
    date: string;
    window_from: number;
    window_to: number;
    repeat_id: number | null;
    confirmed_at: number | null;
    work_place: WorkPlace;
  }>(
    `SELECT id, state, title, date, window_from, window_to, repeat_id, confirmed_at, work_place
        FROM visits WHERE job_id = ? ORDER BY window_from`,
  ).all(jobId);
  // Of work of several days, the one that comes next; when all is over, the last.
  const visit = visits.find((v) => visitStates.allows("expect", v.state)) ?? visits.at(-1)!;
  const technicians = sql<{ name: string; photo: string | null }>(
    `SELECT t.name, t.photo
        FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = ? ORDER BY t.position`,
  ).all(visit.id);
  const coming = visit.repeat_id
    ? sql<{ date: string; window_from: number; window_to: number; state: VisitState }>(
        `SELECT date, window_from, window_to, state
            FROM visits WHERE repeat_id = ? AND date > ? AND state IN ${visitStates.sql("move")}
            ORDER BY date LIMIT 4`,
      ).all(visit.repeat_id, visit.date)
    : [];
  const lines = sql<{ description: string; quantity: number; amount_minor: number }>(
    "SELECT description, quantity, amount_minor FROM job_lines WHERE job_id = ? ORDER BY position",
  ).all(jobId);
  const payments = sql<{
    id: number;
    purpose: string;
    method: string;
    amount_minor: number;
    state: PaymentState;
    problem: string | null;
    step_address: string | null;
    settled_at: number | null;
  }>(
    // Of a payment over several invoices, what it has paid here.
    `SELECT p.id, purpose, method, iif(p.job_id IS NULL, a.paid, amount_minor) AS amount_minor, state, problem, step_address,
        settled_at
      FROM payments p
        LEFT JOIN (SELECT a.payment_id, sum(a.amount_minor) AS paid FROM allocations a JOIN invoices i ON i.id = a.invoice_id
          WHERE i.job_id = @jobId GROUP BY 1) a ON a.payment_id = p.id
      WHERE p.job_id = @jobId OR a.paid > 0 ORDER BY p.id`,
  ).all({ jobId });
  const refunds = sql<{ id: number; amount_minor: number; state: string; asked_at: number }>(
    `SELECT r.id, r.amount_minor, r.state, r.asked_at
        FROM refunds r JOIN payments p ON p.id = r.payment_id WHERE p.job_id = ? ORDER BY r.id`,
  ).all(jobId);
  const invoice = sql<{
    id: number;
    label: string;
    shared: number;
    due_date: string;
    total_minor: number;
    tax_minor: number;
    applied_minor: number;
    credited_minor: number;
    open_minor: number;
  }>(
    // A bill that is about other work too has a page of its own.
    `SELECT i.*, o.shared, b.applied_minor, b.credited_minor, b.open_minor
        FROM job_bills o JOIN invoices i ON i.id = o.invoice_id JOIN invoice_balances b ON b.invoice_id = i.id
        WHERE o.job_id = ? ORDER BY i.id DESC LIMIT 1`,
  ).get(jobId);
  const fee = sql<{ description: string; amount_minor: number }>(
    "SELECT description, amount_minor FROM fees WHERE job_id = ?",
  ).get(jobId);
  const { changes, missed } = ownWork(context);
  const repeat = ownRepeat(context);
  const address = addressAt(context, job);
  const cards = cardsOf(context, jobId);
  return {
    repeat: repeat && { words: repeatWords(repeat), active: repeat.state === "active" },
    // Whoever comes by a link is known: the next booking begins with what they have said before.
    again: {
      name: job.customer,
      mail: job.mail,
      phone: job.phone,
      address: address && {
        id: address.id,
        line: address.line,
        postcode: address.postcode,
        lng: address.lng,
        lat: address.lat,
      },
    },
    changes,
    /** Nobody was home: another time can be chosen, for this fee. */
    missed: missed && { feeMinor: missed.feeMinor },
    termsWords: orderTermsWords(termsOfJob(context, jobId), (minor) => moneyWords(minor, business.currency)),
    takesCards: takesCards(context),
    tips: context.business.tips === 1,
    today,
    /** The cards we keep, in the order in which they are charged. */
    cards: cards.map(({ id, label, expires }) => ({ id, label, expires })),
    /** Whether what is due is charged to them by themselves, in the words that are agreed to. */
    collects: cards.some(({ collects }) => collects === 1),
    collectsWords: cardCollectionWords(business.name),
    offersCollection: business.collects === 1,
    cardWords: consentWords(business.name)["card on file"],
    consents: (["reminders", "offers"] as const).map((kind) => ({
      kind,
      words: consentWords(business.name)[kind],
      given: job[kind] === 1,
      withheld: withheldOf(context, customerId)
        .filter((one) => one.purpose === kind)
        .map(({ channel }) => channel),
    })),
    asked: changes ? openQuestions(context, jobId) : [],
    fee: fee ?? null,
    additions: sql<{ id: number; made_at: number; words: string; photos: string }>(
      "SELECT id, made_at, words, photos FROM additions WHERE job_id = ? ORDER BY id",
    )
      .all(jobId)
      .map((a) => ({ ...a, photos: photosColumn.read(a.photos) })),
    done: doorOf(context),
    business: {
      name: business.name,
      mail: business.mail,
      invoiceText: business.invoice_text,
      mark: business.mark,
      phone: business.phone,
      currency: business.currency,
      timeZone: business.time_zone,
      isDemo: business.demo_offset_ms !== null,
    },
    job: { ...job, service: visit.title },
    where: whereOf(context, visit.work_place, job),
    visit,
    days: visits.filter((v) => v.state !== "cancelled").map((v) => v.date),
    lines,
    payments,
    refunds,
    // What is not promised has no time yet, as far as its customer knows.
    coming: coming.map(({ date, window_from, window_to, state }) => ({
      date,
      window: state === "forecast" ? null : windowIn(window_from, window_to, business.time_zone),
    })),
    technicians,
    invoice: invoice && {
      number: invoice.label,
      isShared: invoice.shared === 1,
      /** Opens its own page; whoever reads for the office has none. */
      token: actor.linkId === 0 ? null : sealedToken(context.hogar, { kind: "invoice", id: invoice.id }),
      coming: chargeComing(context, invoice.id),
      dueDate: invoice.due_date,
      totalMinor: invoice.total_minor,
      taxMinor: invoice.tax_minor,
      openMinor: invoice.open_minor,
      state: invoiceState(
        {
          totalMinor: invoice.total_minor,
          openMinor: invoice.open_minor,
          appliedMinor: invoice.applied_minor,
          creditedMinor: invoice.credited_minor,
          dueDate: invoice.due_date,
        },
        today,
      ),
    },
  };
}

/** Where the work is done, as the customer reads it. */
const whereOf = (
  { business }: ViewContext,
  workPlace: WorkPlace,
  job: { line: string; postcode: string; phone: string },
): string => {
  const site = `${job.line}, ${job.postcode}`;
  if (workPlace === "site") return site;
  const where = say({ place: workPlace, as: "where", site, ours: business.address, phone: job.phone }, "en");
  return where[0]!.toUpperCase() + where.slice(1);
};

/** What the owner says to those who have booked, and in which colours. */
function doorOf({ hogar }: ViewContext) {
  const { doneWords, showsContact, ...door } = readFrontDoor(hogar.store);
  return { words: doneWords, showsContact, look: lookOf(door) };
}

/** Windows to which a customer may move the visit of their link, soonest first. */
export const myOffers = defineView({
  name: "my-offers",
  access: "link",
  input: Nothing,
  read(context) {
    const { changes, missed, ...own } = ownWork(context);
    if (!changes?.mayMove && !missed) return [];
    const days = missed?.days ?? own.days;
    const visit = placingOf(days[0]!, days.length);
    const answers = answersFor(context, visit, bookableDates(context), {
      without: days.map((d) => d.id),
    });
    return answers.flatMap((a) => (a.offered && a.from !== days[0]!.window_from ? [pickable(context, visit, a)] : []));
  },
});

/** The visits of a link for somebody's calendar. */
const calendarWords: Record<WorkPlace, string> = {
  site: "We arrive within this time.",
  ours: "Come to us within this time.",
  afar: "We call you within this time.",
};

export const myCalendar = defineView({
  name: "my-calendar",
  access: "link",
  input: Nothing,
  read(context) {
    const { sql, actor, business, minute } = context;
    if (actor.kind !== "link") throw new Refusal("link-ended");
    const visits = sql<{
      id: number;
      state: string;
      window_from: number;
      window_to: number;
      service: string;
      work_place: WorkPlace;
      line: string;
      postcode: string;
      phone: string;
      moves: number;
    }>(
      `SELECT v.id, v.state, v.window_from, v.window_to, v.title AS service, v.work_place, t.line, t.postcode, j.phone,
          (SELECT count(*) FROM promises WHERE visit_id = v.id) AS moves
        FROM visits v JOIN jobs j ON j.id = v.job_id JOIN sites t ON t.id = j.site_id WHERE v.job_id = ?
        ORDER BY v.window_from`,
    ).all(actor.jobId);
    return visits.map((v): CalendarEntry => ({
      uid: `visit-${v.id}@${business.mail.split("@")[1] ?? "hogar"}`,
      title: `${v.service}, ${business.name}`,
      from: v.window_from,
      to: v.window_to,
      place: whereOf(context, v.work_place, v),
      words: `${calendarWords[v.work_place]} To change something, use the link in our mail or call ${business.phone}.`,
      sequence: v.moves - 1,
      cancelled: v.state === "cancelled",
      now: minute,
    }));
  },
});
