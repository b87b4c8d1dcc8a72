import type { Approval, JobState } from "../jobs/states";
import type { Minor } from "../money/amounts";
import { paymentStates, type PaymentState } from "../money/states";
import type { VisitState } from "./states";

/** What a customer's own page of one job goes by. */
export interface OwnStanding {
  job: { state: JobState; approval: Approval; proof: string };
  visit: VisitState;
  /** Of cards and other ways, as they were asked for. */
  payments: readonly { state: PaymentState; purpose: string }[];
  depositMinor: Minor;
  /** Of its own invoice; what stands on an invoice with other work is paid there. */
  openMinor: Minor;
  takesCards: boolean;
}

/** What the page says and offers of money; one state of a payment is one page. */
export interface OwnPage {
  title: string;
  /** Under the window: what it is kept by, or how the visit stands. Null where there is no window any more. */
  kept: string | null;
  /** A charge is being asked about: nothing of money is offered meanwhile. */
  asking: boolean;
  /** Which payment waits for its bank's second step, by its place; -1 where none does or nothing is to be gained by it. */
  step: number;
  /** The last card was declined, and what is due still is. */
  declined: boolean;
  /** What a card pays now. */
  pays: "deposit" | "invoice" | null;
  dueMinor: Minor;
  /** The code of an address is asked for. */
  asksForCode: boolean;
  /** Somebody is looked forward to: what the owner says to those who have booked is said. */
  isBooked: boolean;
  /** It is over, and the deposit it asked for has never come. */
  isUnpaid: boolean;
}

const titles: Record<VisitState, string> = {
  held: "Your visit",
  promised: "You are booked",
  "on the way": "We are on the way",
  "on site": "We are with you",
  done: "All done",
  "no access": "Nobody was in",
  cancelled: "Cancelled",
  forecast: "Coming again",
};

/** What a customer's own page says for each standing of job, visit and payments. */
export function ownPage({ job, visit, payments, depositMinor, openMinor, takesCards }: OwnStanding): OwnPage {
  const isOver = job.state === "cancelled";
  const depositDue = job.state === "awaiting deposit";
  const dueMinor = depositDue ? depositMinor : openMinor;
  const asking = payments.some(({ state }) => state === "asked");
  // Nobody is sent to a bank for what is not due any more.
  const step = dueMinor > 0 ? payments.findIndex(({ state }) => state === "second step") : -1;
  const asksForCode = job.proof === "asked" && job.state === "agreed";
  const isUnpaid =
    isOver &&
    depositMinor > 0 &&
    !payments.some(({ purpose, state }) => purpose === "deposit" && paymentStates.allows("has come", state));
  return {
    title: asking ? "One moment, we ask your bank" : titleOf(),
    kept: isOver || visit === "cancelled" ? null : keptBy(),
    asking,
    step: asking ? -1 : step,
    declined: !asking && step < 0 && dueMinor > 0 && payments.at(-1)?.state === "declined",
    pays: asking || step >= 0 || dueMinor <= 0 || !takesCards ? null : depositDue ? "deposit" : "invoice",
    dueMinor,
    asksForCode,
    isBooked: !isOver && visit !== "cancelled" && !depositDue && !asksForCode,
    isUnpaid,
  };

  function titleOf(): string {
    if (isOver) return titles.cancelled;
    if (asksForCode) return "One step is left: the code";
    if (step >= 0) return "Your bank asks you";
    if (depositDue) return "One step is left: the deposit";
    if (visit !== "promised" || job.approval === "given") return titles[visit];
    return job.approval === "waiting" ? "We have your booking" : "Does this time suit you?";
  }
  function keptBy(): string {
    if (asksForCode) return "kept until you have entered the code";
    if (depositDue) return "kept until the deposit is paid";
    if (visit !== "promised" || job.approval === "given") return visit;
    return job.approval === "waiting"
      ? "kept for you; one of us confirms it soon"
      : "proposed by us; say yes, or choose another";
  }
}
