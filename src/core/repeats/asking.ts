import { addDays, type LocalDate } from "../time/dates";

/** How somebody is asked before a date of an ask-first repeat. */
export interface Asking {
  date: LocalDate;
  /** So many days before it they are asked, and after so many days without an answer once more. */
  askDays: number;
  againDays: number;
  /** Whether they can be asked by a link at all: the business may want to phone, or know no email and no mobile. */
  byLink: boolean;
  /** How often they have been asked, and when last. */
  times: number;
  askedOn: LocalDate | null;
}

/** What happens now: nothing yet, they are asked by a link, or a person of ours is next. */
export type AskStep = { step: "wait"; until: LocalDate } | { step: "ask" } | { step: "for us" };

/** Asked so often by a link and not answered, a customer is left to a person. */
const mostAsks = 2;

export function askStep({ date, askDays, againDays, byLink, times, askedOn }: Asking, today: LocalDate): AskStep {
  const due = times === 0 || askedOn === null ? addDays(date, -askDays) : addDays(askedOn, againDays);
  if (today < due) return { step: "wait", until: due };
  return byLink && times < mostAsks ? { step: "ask" } : { step: "for us" };
}

/** The days for which windows are offered around a date: from ten days before it to three weeks after, none of them past, and ten at least. */
export function offeredAround(date: LocalDate, today: LocalDate): { from: LocalDate; to: LocalDate } {
  const from = later(addDays(date, -10), addDays(today, 1));
  return { from, to: later(addDays(date, 21), addDays(from, 10)) };
}

const later = (a: LocalDate, b: LocalDate): LocalDate => (a > b ? a : b);
