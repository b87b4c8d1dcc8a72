/**
 * Everything that can be refused, with the sentence a person reads. One catalogue, so that the same
 * trouble is told in the same words everywhere. Sentences say what is wrong and how to mend it.
 */
export const problems = {
  "invalid-input": "Some entries need another look.",
  "not-signed-in": "Please sign in to go on.",
  "not-allowed": "Your role does not allow this. Ask the owner of the business.",
  "not-found": "This no longer exists. Go back and choose again.",
  "wrong-password": "Email and password do not match. Check both and try again.",
  "too-many-tries": "Too many tries. Wait a few minutes and try again.",
  "bad-request": "The request could not be read. Reload the page and try again.",
  "link-ended": "This link is no longer valid. Call us and we will send a new one.",
  "outside-zones": "This address is not in our zones yet.",
  "service-not-offered": "This service cannot be booked at the moment. Choose another one.",
  "window-gone":
    "Somebody was faster: this window has just been taken. The nearest ones that are still free are below.",
  "hold-expired": "The window was kept for you for a while and is free again. Choose one of those below.",
  "cannot-be-kept": "This cannot be kept as the day stands.",
  "visit-not-open": "This visit is over or cancelled and cannot be changed any more.",
  "too-late-to-change": "It is too late to change this here. Call us.",
  "fee-changed": "What cancelling costs has changed. Look at it again before you cancel.",
  "price-changed": "The price has changed. Look at it again before you book.",
  "quote-over": "This quote has run out.",
  "wrong-order": "This step does not follow from where the visit stands. Reload to see its state.",
  "not-agreed-yet": "This booking waits for our answer or for its deposit. It can be begun when that has come.",
  "before-its-day": "This visit is on a day to come. It can be begun on its day.",
  "checklist-open": "Something on the list must be ticked first.",
  "not-your-visit": "This visit is not on your list.",
  "nothing-due": "There is nothing left to pay.",
  "charge-under-way": "A payment is under way. Wait until it is settled.",
  "amount-too-large": "This is more than is due. Enter at most what is open.",
  "not-a-picture": "This is not a picture we can read. Choose a PNG or JPEG.",
  "too-large": "This file is too large. Choose one of at most 15 MB.",
  "name-taken": "There is one of this name already. Choose another name.",
  "spans-overlap": "Two spans of one day overlap. Change one of them.",
  "in-use": "Visits are promised with this; it can be archived but not removed.",
  "repeat-exists": "This visit already repeats. Change the repeat instead.",
  "repeat-of-several-days": "Work of several days cannot repeat by itself. Book it anew each time.",
  "not-a-demo": "Only the demo’s clock can be moved.",
  "clock-goes-forward": "The demo’s clock only goes forward.",
  "last-owner": "Somebody must remain the owner.",
  busy: "The system is very busy. Try again in a moment.",
  offline: "There is no connection right now. Nothing was lost: try again in a moment.",
  unexpected: "Something went wrong on our side. Nothing was changed. Try again.",
} as const;

export type ProblemCode = keyof typeof problems;

/** Whether the same request may succeed later, without anybody changing it. */
export const passesByItself = (code: ProblemCode): boolean => passing.has(code);
const passing = new Set<ProblemCode>(["offline", "busy", "unexpected", "too-many-tries", "not-signed-in"]);

export interface Problem {
  code: ProblemCode;
  sentence: string;
  /** Sentences for single entries, by JSON pointer: `/spans/0/opens`. */
  fields?: Record<string, string>;
  /** Data that helps to go on, such as the nearest offers. */
  details?: unknown;
}

export type Result<T> = { ok: true; value: T } | { ok: false; problem: Problem };

/** Thrown inside an operation or a view: nothing is changed, and the caller gets the problem. */
export class Refusal extends Error {
  readonly problem: Problem;

  constructor(code: ProblemCode, more: Omit<Problem, "code" | "sentence"> & { sentence?: string } = {}) {
    super(more.sentence ?? problems[code]);
    this.name = "Refusal";
    this.problem = { ...more, code, sentence: more.sentence ?? problems[code] };
  }
}
