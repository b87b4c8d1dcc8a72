import { passingProblems } from "./passing-problems";

/**
 * Everything that can be refused, with the sentence a person reads. One catalogue, so that the same
 * trouble is told in the same words everywhere. Sentences say what is wrong and how to mend it.
 */
export const problems = {
  "invalid-input": "Some entries need another look.",
  "not-signed-in": "Please sign in to go on.",
  "not-allowed": "Your role does not allow this. Ask the owner of the business.",
  "as-person":
    "You are signed in, so this customer’s page can be read and not used. Open the link in a private window to act as the customer.",
  "not-found": "This no longer exists. Go back and choose again.",
  "wrong-password": "Email and password do not match. Check both and try again.",
  "too-many-holds": "You keep several times already. Book one of them or wait some minutes until they are free again.",
  "day-is-kept":
    "Many people are choosing times on this day right now. Try again in some minutes, or choose another day.",
  "code-needed": "Confirm your booking with the code that we have sent you.",
  "wrong-code": "This code is not right. Look at the newest message and try again.",
  "second-factor": "Enter the code from your authenticator app.",
  "second-factor-needed": "Your role needs a second factor. Set it up under Your account first.",
  "too-many-cards": "Several cards were declined. Call us, and we will find a way.",
  "too-many-pictures": "There are many pictures already. Send what you have first, or try again tomorrow.",
  "too-many-messages": "We have written to this address often today. Call us, please.",
  "too-many-codes":
    "Five codes were wrong. Wait an hour, or ask whoever says who signs in for a new password: it counts anew.",
  ...passingProblems,
  "asked-often": "You have asked several questions today. Call us, and we talk about all of them.",
  "too-many-tries": "Too many tries. Wait a few minutes and try again.",
  "bad-request": "The request could not be read. Reload the page and try again.",
  "link-ended": "This link is no longer valid. Call us and we will send a new one.",
  "outside-zones": "This address is not in our zones yet.",
  "service-not-offered": "This service cannot be booked at the moment. Choose another one.",
  "move-refused": "It is too late to move this here. Call us.",
  "window-gone":
    "Somebody was faster: this window has just been taken. The nearest ones that are still free are below.",
  "hold-expired": "The window was kept for you for a while and is free again. Choose one of those below.",
  "cannot-be-kept": "This cannot be kept as the day stands.",
  "visit-not-open": "This visit is over or cancelled and cannot be changed any more.",
  "too-late-to-change": "It is too late to change this here. Call us.",
  "fee-changed": "What cancelling costs has changed. Look at it again before you cancel.",
  "terms-changed": "Something has changed since you read it. Look at it again before you book.",
  "price-changed": "The price has changed. Look at it again before you book.",
  "quote-over": "This quote has run out.",
  "changed-meanwhile": "Somebody else has saved this since you opened it. Look at what both of you have changed.",
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

/** `asOf`: for a form, the last change as the audit numbers it. */
export type Result<T> = { ok: true; value: T; asOf?: number } | { ok: false; problem: Problem };

/** What has to do with the lock, for the owner to read. */
export const securityKinds = [
  "sign-in refused",
  "signed in",
  "code wrong",
  "second factor",
  "password changed",
  "rights changed",
  "link copied",
  "link ended",
  "room refused",
  "room given back",
  "card refused",
] as const;
export type SecurityKind = (typeof securityKinds)[number];
export interface SecurityNote {
  kind: SecurityKind;
  /** Who it was, or whom it was about. */
  who: string;
  words: string;
}

/** Thrown inside an operation or a view: nothing is changed, and the caller gets the problem. */
export class Refusal extends Error {
  readonly problem: Problem;

  /** What the log of the lock says of it, where it has to do with that. */
  readonly security: SecurityNote | null;

  constructor(
    code: ProblemCode,
    {
      security = null,
      ...more
    }: Omit<Problem, "code" | "sentence"> & { sentence?: string; security?: SecurityNote | null } = {},
  ) {
    super(more.sentence ?? problems[code]);
    this.name = "Refusal";
    this.security = security;
    this.problem = { ...more, code, sentence: more.sentence ?? problems[code] };
  }
}
