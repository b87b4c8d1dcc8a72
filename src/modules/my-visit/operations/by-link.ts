import { answerProblem } from "@/core/catalogue/questions";
import { moneyWords } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { repeatWords } from "@/core/repeats/rule-words";
import { dateWords } from "@/core/time/words";
import type { Offer } from "@/core/windows/offer";
import { input, Nothing, OneOf, windowChosen } from "@/kernel/inputs";
import { defineOperation, type OperationContext, type ViewContext } from "@/kernel/operation";
import { giveApproval } from "@/modules/booking/approval";
import { Answers } from "@/modules/catalogue/inputs";
import { keptAnswers } from "@/modules/catalogue/job-items";
import { recordConsent } from "@/modules/customers/consents";
import { tellCustomer } from "@/modules/messages/messaging";
import { tellAll, tellOffice } from "@/modules/messages/telling-us";
import { payBackTheRest } from "@/modules/money/charging";
import { chargeFee } from "@/modules/money/fees";
import { isKeptPhoto, lostPhoto, claimPhotos } from "@/modules/pictures/photos";
import { moveTo } from "@/modules/placing/moving";
import { placingOf, type VisitRow } from "@/modules/placing/visits";
import { answersFor, bookableDates, nearestOffers } from "@/modules/placing/windows";
import { stopRepeat, takeUpRepeat } from "@/modules/repeats/repeats";
import { Photos } from "@/modules/requests/inputs";
import { cancelJob } from "@/modules/visits/cancelling";
import { keptAnswersColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { openQuestions, ownRepeat, ownWork } from "../own-work";
import { setConfirmed } from "@/modules/jobs/visits";
import { addJobLine, addToJob, agreeWithJob, keepAnswers, setApproval, setMoveFee } from "@/modules/jobs/work";

const MoveByLink = input(windowChosen);
/** `feeMinor`: what was shown to be asked for coming again. */
const AgainByLink = input({ ...windowChosen, feeMinor: Type.Integer({ minimum: 0 }) });
/** The fee that was shown, minor units. */
const CancelByLink = input({ feeMinor: Type.Integer({ minimum: 0 }) });
const AddByLink = input({ words: Type.String({ maxLength: 500 }), photos: Photos });
/** Whether a repeat goes on. */
const RepeatByLink = input({ goesOn: Type.Boolean() });
/** What a customer agrees to, or does not any more. */
const ConsentByLink = input({ kind: OneOf(["reminders", "offers"]), given: Type.Boolean() });
/** Answers to what a service of the booking still asks; `position`: which of its services. */
const AnswerByLink = input({ position: Type.Integer({ minimum: 0, maximum: 12 }), answers: Answers });

export const confirmByLink = defineOperation({
  name: "confirm-by-link",
  access: "link",
  input: Nothing,
  run(context) {
    const { job, days } = ownWork(context);
    if (days.length === 0 || job.approval === "waiting") throw new Refusal("visit-not-open");
    // Saying yes to the time we proposed makes it stand.
    if (job.approval === "proposed") giveApproval(context, job.id);
    for (const { id, confirmed_at } of days) if (confirmed_at === null) setConfirmed(context, id, context.now);
  },
});

export const moveByLink = defineOperation({
  name: "move-by-link",
  access: "link",
  input: MoveByLink,
  run(context, { date, from, to }) {
    const { job, days, changes } = ownWork(context);
    if (!changes || job.state !== "agreed") throw new Refusal("visit-not-open");
    if (!changes.mayMove) throw tooLate(context);
    // Another time than the one we proposed is looked at by a person again.
    if (job.approval === "proposed") setApproval(context, job.id, "waiting");
    const offer = offerIn(context, days, { date, from, to });
    setMoveFee(context, job.id, changes.moveTakesMinor);
    moveTo(
      context,
      days,
      offer,
      offer.technicians.slice(0, days[0]!.crew).map((t) => Number(t.id)),
      { answer: true, silent: job.approval === "proposed" },
    );
    if (job.approval === "proposed")
      tellCustomer(context, {
        jobId: job.id,
        occasion: "received",
        about: `job ${job.id} at ${context.now}`,
        answer: true,
      });
    tellOffice(context, job.id, { key: `job ${job.id} moved at ${context.now}`, what: "Moved by the customer" });
  },
});

/** The window as it is offered for these days; refused with those near it where it is not any more. */
function offerIn(
  context: OperationContext,
  days: readonly VisitRow[],
  { date, from, to }: (typeof MoveByLink)["static"],
): Offer {
  const without = days.map((d) => d.id);
  const visit = placingOf(days[0]!, days.length);
  const offer = answersFor(context, visit, [date], { without }).find((a) => a.from === from && a.to === to);
  if (offer?.offered) return offer;
  throw new Refusal("window-gone", {
    details: {
      offers: nearestOffers(answersFor(context, visit, bookableDates(context), { without }), from).map((a) => ({
        date: a.date,
        from: a.from,
        to: a.to,
      })),
    },
  });
}

/** Nobody was home: the customer chooses another window, for the fee that was shown. */
export const goAgainByLink = defineOperation({
  name: "go-again-by-link",
  access: "link",
  input: AgainByLink,
  run(context, { feeMinor, ...window }) {
    const { job, missed } = ownWork(context);
    if (!missed) throw new Refusal("visit-not-open");
    if (missed.feeMinor !== feeMinor)
      throw new Refusal("fee-changed", {
        sentence: `Coming again costs ${moneyWords(missed.feeMinor, context.business.currency)}. Look at it again before you choose.`,
        details: { feeMinor: missed.feeMinor },
      });
    const { days } = missed;
    const offer = offerIn(context, days, window);
    if (feeMinor > 0) addJobLine(context, job.id, `Nobody was home on ${dateWords(days[0]!.date)}`, feeMinor);
    moveTo(
      context,
      days,
      offer,
      offer.technicians.slice(0, days[0]!.crew).map((t) => Number(t.id)),
      { answer: true },
    );
    tellOffice(context, job.id, {
      key: `job ${job.id} again at ${context.now}`,
      what: "Another time after nobody was home",
    });
  },
});

/** Cancels, with the fee that was shown: another one is refused, so that nobody pays what they did not read. */
export const cancelByLink = defineOperation({
  name: "cancel-by-link",
  access: "link",
  input: CancelByLink,
  run(context, { feeMinor }) {
    const { job, changes } = ownWork(context);
    if (!changes) throw new Refusal("visit-not-open");
    if (!changes.mayCancel) throw tooLate(context);
    const fee = changes.feeMinor;
    if (fee !== feeMinor)
      throw new Refusal("fee-changed", {
        sentence: `Cancelling now costs ${moneyWords(fee, context.business.currency)}. Look at it again before you cancel.`,
        details: { feeMinor: fee },
      });
    cancelJob(context, job.id, false);
    if (fee > 0) chargeFee(context, job.id, "Cancelled late", fee);
    payBackTheRest(context, job.id, "Cancelled by the customer");
    tellCustomer(context, { jobId: job.id, occasion: "cancelled", about: `job ${job.id}`, answer: true });
    tellOffice(context, job.id, { key: `job ${job.id} cancelled`, what: "Cancelled by the customer" });
    return { feeMinor: fee };
  },
});

/** A customer ends the repeat of their visit, or takes it up again; what is promised stays. The office is told. */
export const repeatByLink = defineOperation({
  name: "repeat-by-link",
  access: "link",
  input: RepeatByLink,
  run(context, { goesOn }) {
    const repeat = ownRepeat(context);
    if (!repeat) throw new Refusal("not-found");
    if ((repeat.state === "active") === goesOn) return;
    if (goesOn) takeUpRepeat(context, repeat.id);
    else stopRepeat(context, repeat.id);
    const { name, line } = context
      .sql<{ name: string; line: string }>(
        `SELECT c.name, s.line
          FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN sites s ON s.id = r.site_id
          WHERE r.id = ?`,
      )
      .get(repeat.id)!;
    const what = `${name} ${goesOn ? "has taken a repeat up again" : "has ended a repeat"}: ${repeatWords(repeat)}`;
    tellAll(context, {
      key: `repeat ${repeat.id} at ${context.now}`,
      what,
      who: line,
    });
  },
});

/** A customer agrees to what we may write, or takes it back: with this booking, and with what repeats of it. */
export const consentByLink = defineOperation({
  name: "consent-by-link",
  access: "link",
  input: ConsentByLink,
  run(context, { kind, given }) {
    const { sql, actor } = context;
    if (actor.kind !== "link") throw new Refusal("link-ended");
    agreeWithJob(context, actor.jobId, kind, given);
    // Another booking of theirs may still say yes.
    const still = sql(`SELECT 1 FROM jobs WHERE customer_id = ? AND ${kind} = 1`).get(actor.customerId) !== undefined;
    recordConsent(context, actor.customerId, kind, still, true);
  },
});

const tooLate = ({ business }: ViewContext): Refusal =>
  new Refusal("too-late-to-change", { sentence: `It is too late to change this here. Call us on ${business.phone}.` });

/** Words and pictures that a customer adds afterwards: a gate code, what it looks like. */
export const addByLink = defineOperation({
  name: "add-by-link",
  access: "link",
  input: AddByLink,
  run(context, { words, photos }) {
    const { job, days } = ownWork(context);
    const { sql, now } = context;
    if (days.length === 0) throw new Refusal("visit-not-open");
    if (!words.trim() && photos.length === 0)
      throw new Refusal("invalid-input", { fields: { "/words": "Write something, or add a photo." } });
    if (!photos.every((token) => isKeptPhoto(context, token)))
      throw new Refusal("invalid-input", { fields: { "/photos": lostPhoto } });
    claimPhotos(context, photos);
    if (sql<{ n: number }>("SELECT count(*) AS n FROM additions WHERE job_id = ?").get(job.id)!.n >= 20)
      throw new Refusal("invalid-input", {
        fields: { "/words": `That is a lot already. Call us on ${context.business.phone}.` },
      });
    addToJob(context, job.id, { words, photos });
    tellOffice(context, job.id, {
      key: `addition to job ${job.id} at ${now}`,
      what: "The customer adds something",
      said: words.trim(),
    });
  },
});

/** A customer answers afterwards what was left open while booking. */
export const answerByLink = defineOperation({
  name: "answer-by-link",
  access: "link",
  input: AnswerByLink,
  run(context, { position, answers }) {
    const { job, days } = ownWork(context);
    const { sql } = context;
    if (days.length === 0) throw new Refusal("visit-not-open");
    const open = openQuestions(context, job.id).find((item) => item.position === position)?.questions ?? [];
    const wrong = Object.entries(answers).flatMap(([id, answer]) => {
      const question = open.find((q) => q.id === id);
      const lost =
        question?.kind === "photo" && Array.isArray(answer) && !answer.every((token) => isKeptPhoto(context, token));
      const problem = !question ? "This is not asked any more." : lost ? lostPhoto : answerProblem(question, answer);
      return problem ? [[`/answers/${id}`, problem]] : [];
    });
    if (wrong.length)
      throw new Refusal("invalid-input", { fields: Object.fromEntries(wrong) as Record<string, string> });
    claimPhotos(context, Object.values(answers).flat().map(String));
    const kept = keptAnswersColumn.read(
      sql<{ answers: string }>("SELECT answers FROM job_items WHERE job_id = ? AND position = ?").get(job.id, position)
        ?.answers ?? "[]",
    );
    keepAnswers(context, job.id, position, [...kept, ...keptAnswers(open, answers)]);
  },
});
