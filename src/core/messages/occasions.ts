import type { FieldName } from "./fields";
import type { Channel, Purpose } from "./purposes";
import type { Outside } from "./falling";

/** What becomes of a message outside the allowed hours; "other": the next of its channels that does not ring. */
export type OutsideHours = Outside | "other";

type OccasionGroup =
  | "Booking"
  | "Before the visit"
  | "On the day"
  | "Afterwards"
  | "Coming again"
  | "Quotes and requests"
  | "Money"
  | "Answers"
  | "Your team"
  | "You";

/** An occasion on which somebody is written to, as it is to begin with. */
interface OccasionKind {
  group: OccasionGroup;
  name: string;
  /** When it goes out, as set-up says it. */
  about: string;
  purpose: Purpose;
  /** In this order; the first that works, or `each` of them. */
  channels: readonly Channel[];
  each?: true;
  outside?: OutsideHours;
  /** Not sent until the owner wants it. */
  off?: true;
  /** Cannot be switched off: somebody has asked for it, or law does. */
  always?: true;
  /** Speaks of a promise: out of date once its visit has moved or is cancelled. */
  ofPromise?: true;
  /** Tells of a change of a visit: its reader is to know in time, whatever the hour, and however much they have got today. */
  urgent?: true;
  /** Speaks of an open invoice: out of date once it is paid. */
  ofDebt?: true;
  /** Fields beside those that every message has. */
  fields: readonly FieldName[];
}

/** What every message to a customer may name. */
const common = ["customer", "customer_first", "business", "phone", "my_link"] as const satisfies FieldName[];
const work = ["service", "site", "where"] as const satisfies FieldName[];
const visit = [...work, "day", "window", "arrival", "from", "to", "promise", "comes"] as const satisfies FieldName[];
const who = ["technician", "technician_first", "technician_initials"] as const satisfies FieldName[];
const bill = ["service", "invoice", "total", "open", "due", "others"] as const satisfies FieldName[];
const charge = ["service", "invoice", "amount", "card", "day"] as const satisfies FieldName[];
const quoted = ["service", "site", "sum", "until"] as const satisfies FieldName[];

export const occasions = {
  booked: {
    group: "Booking",
    name: "Booked",
    about: "As soon as a booking stands",
    purpose: "answer",
    channels: ["mail", "text"],
    ofPromise: true,
    fields: [...visit, ...who],
  },
  received: {
    group: "Booking",
    name: "Waits for approval",
    about: "When a booking waits for one of you to confirm it",
    purpose: "answer",
    channels: ["mail", "text"],
    fields: visit,
  },
  approved: {
    group: "Booking",
    name: "Approved",
    about: "When one of you has confirmed a booking that waited",
    purpose: "service",
    channels: ["mail", "text"],
    ofPromise: true,
    fields: [...visit, ...who],
  },
  proposed: {
    group: "Booking",
    name: "Another time proposed",
    about: "When you propose another window for a booking",
    purpose: "answer",
    channels: ["mail", "text"],
    each: true,
    fields: visit,
  },
  declined: {
    group: "Booking",
    name: "Declined",
    about: "When you cannot take a booking",
    purpose: "answer",
    channels: ["mail", "text"],
    fields: [...visit, "reason"],
  },
  moved: {
    group: "Booking",
    name: "Moved",
    about: "When a visit gets another window",
    purpose: "service",
    channels: ["mail", "text"],
    each: true,
    ofPromise: true,
    urgent: true,
    fields: [...visit, ...who, "old"],
  },
  cancelled: {
    group: "Booking",
    name: "Cancelled",
    about: "When a visit is cancelled",
    purpose: "service",
    channels: ["mail", "text"],
    urgent: true,
    fields: visit,
  },
  "deposit lapsed": {
    group: "Booking",
    name: "Deposit did not come",
    about: "When a booking ends because its deposit has not come",
    purpose: "service",
    channels: ["mail", "text"],
    fields: visit,
  },
  "visit reminder": {
    group: "Before the visit",
    name: "Reminder",
    about: "As often before a visit as set under Reminders",
    purpose: "reminders",
    channels: ["text", "mail", "voice"],
    outside: "earlier",
    ofPromise: true,
    fields: [...visit, ...who, "visits"],
  },
  "please confirm": {
    group: "Before the visit",
    name: "Please confirm",
    about: "A reminder that asks for a yes; nothing where they have confirmed",
    purpose: "reminders",
    channels: ["text", "mail", "voice"],
    outside: "earlier",
    ofPromise: true,
    fields: [...visit, ...who, "visits"],
  },
  "on the way": {
    group: "On the day",
    name: "On the way",
    about: "When the technician sets off",
    purpose: "answer",
    channels: ["text", "mail"],
    ofPromise: true,
    fields: [...visit, ...who, "expected"],
  },
  "running late": {
    group: "On the day",
    name: "Running late",
    about: "When you or the technician say so",
    purpose: "answer",
    channels: ["text", "voice", "mail"],
    ofPromise: true,
    fields: [...visit, ...who, "minutes", "expected"],
  },
  "nobody home": {
    group: "On the day",
    name: "Nobody home",
    about: "When nobody let the technician in",
    purpose: "service",
    channels: ["text", "mail"],
    fields: [...visit, "missed", ...who],
  },
  done: {
    group: "Afterwards",
    name: "Done, with its report",
    about: "When a visit is done: what was ticked and noted",
    purpose: "service",
    channels: ["mail"],
    off: true,
    fields: [...visit, ...who, "done", "note"],
  },
  "please review": {
    group: "Afterwards",
    name: "Please review",
    about: "Once after the work, as set under Reviews",
    purpose: "service",
    channels: ["mail", "text"],
    fields: [...work, "day", ...who],
  },
  "review answered": {
    group: "Afterwards",
    name: "Answer to a review",
    about: "When one of you has answered what a customer has said of the work",
    purpose: "answer",
    channels: ["mail", "text"],
    fields: [...work, "reply"],
  },
  "coming again": {
    group: "Coming again",
    name: "It is time again",
    about: "When a date of a repeat becomes a promise",
    purpose: "service",
    channels: ["mail", "text"],
    ofPromise: true,
    fields: [...visit, ...who],
  },
  "ask first": {
    group: "Coming again",
    name: "Is it time again?",
    about: "When a repeat asks before it books",
    purpose: "service",
    channels: ["mail", "text"],
    fields: [...work, "day", "promise", "comes"],
  },
  "price review": {
    group: "Coming again",
    name: "Price review",
    about: "Before another price of a repeat counts",
    purpose: "service",
    channels: ["mail"],
    always: true,
    fields: [...work, "day", "old", "price", "promise", "comes"],
  },
  offer: {
    group: "Coming again",
    name: "Offer of a campaign",
    about: "When a campaign invites somebody; each campaign begins with these words and may have its own",
    purpose: "offers",
    channels: ["mail", "text"],
    fields: ["service", "site", "price", "off", "last_time", "until", "stop_link"],
  },
  "wish come true": {
    group: "Coming again",
    name: "Wish come true",
    about: "When a window that somebody waits for is free",
    purpose: "service",
    channels: ["mail", "text"],
    each: true,
    fields: ["day", "window", "arrival"],
  },
  quote: {
    group: "Quotes and requests",
    name: "Quote",
    about: "When you send a quote, or change it",
    purpose: "answer",
    channels: ["mail", "text"],
    each: true,
    always: true,
    fields: [...quoted, "old", "instead"],
  },
  "quote follow-up": {
    group: "Quotes and requests",
    name: "Quote follow-up",
    about: "So many days after a quote that nobody has answered",
    purpose: "service",
    channels: ["mail", "text"],
    fields: [...quoted, "sent"],
  },
  "quote withdrawn": {
    group: "Quotes and requests",
    name: "Quote withdrawn",
    about: "When a quote does not stand any more",
    purpose: "service",
    channels: ["mail"],
    fields: ["reason"],
  },
  "request declined": {
    group: "Quotes and requests",
    name: "Request declined",
    about: "When you cannot help with a request",
    purpose: "service",
    channels: ["mail"],
    fields: ["reason"],
  },
  invoice: {
    group: "Money",
    name: "Invoice",
    about: "When an invoice is made",
    purpose: "service",
    channels: ["mail", "text"],
    always: true,
    fields: bill,
  },
  receipt: {
    group: "Money",
    name: "Receipt",
    about: "When a payment has come",
    purpose: "answer",
    channels: ["mail"],
    fields: ["service", "amount"],
  },
  "invoice coming": {
    group: "Money",
    name: "Due soon",
    about: "Before an invoice is due, by the ladder in Money",
    purpose: "service",
    channels: ["mail"],
    ofDebt: true,
    fields: bill,
  },
  "invoice reminder": {
    group: "Money",
    name: "Reminder of an invoice",
    about: "After it was due, by the ladder in Money",
    purpose: "service",
    channels: ["mail", "text"],
    each: true,
    ofDebt: true,
    fields: bill,
  },
  "last reminder": {
    group: "Money",
    name: "Last reminder",
    about: "The last step of the ladder; then you phone",
    purpose: "service",
    channels: ["mail", "text"],
    each: true,
    ofDebt: true,
    fields: bill,
  },
  "charge tomorrow": {
    group: "Money",
    name: "Charge tomorrow",
    about: "The day before a card is charged by itself",
    purpose: "service",
    channels: ["mail", "text"],
    each: true,
    always: true,
    ofDebt: true,
    fields: charge,
  },
  "charge step": {
    group: "Money",
    name: "Their bank asks",
    about: "When a bank wants its customer to confirm a charge",
    purpose: "answer",
    channels: ["mail", "text"],
    each: true,
    always: true,
    fields: charge,
  },
  "charge failed": {
    group: "Money",
    name: "Charge failed",
    about: "When no card of theirs could pay",
    purpose: "service",
    channels: ["mail", "text"],
    each: true,
    ofDebt: true,
    fields: charge,
  },
  "card expires": {
    group: "Money",
    name: "Card expires",
    about: "A month before a card on file ends",
    purpose: "service",
    channels: ["mail", "text"],
    fields: ["card", "month", ...visit],
  },
  "answer understood": {
    group: "Answers",
    name: "Thanks for confirming",
    about: "When somebody answers yes to a reminder",
    purpose: "answer",
    channels: ["text", "mail"],
    fields: [...visit, "visits"],
  },
  "other times": {
    group: "Answers",
    name: "Other times",
    about: "When somebody answers that the time does not suit: their page shows real windows",
    purpose: "answer",
    channels: ["text", "mail"],
    fields: visit,
  },
  stopped: {
    group: "Answers",
    name: "Stopped",
    about: "When somebody has written STOP",
    purpose: "answer",
    channels: ["text"],
    always: true,
    fields: [],
  },
  started: {
    group: "Answers",
    name: "Started again",
    about: "When somebody has written START",
    purpose: "answer",
    channels: ["text"],
    always: true,
    fields: [],
  },
  help: {
    group: "Answers",
    name: "Help",
    about: "When somebody has written HELP",
    purpose: "answer",
    channels: ["text"],
    always: true,
    fields: [],
  },
  question: {
    group: "Answers",
    name: "Question received",
    about: "When somebody asks something at your front door",
    purpose: "answer",
    channels: ["mail", "text"],
    fields: ["words"],
  },
  "new booking": {
    group: "Your team",
    name: "New booking",
    about: "To whoever handles incoming, and to the addresses under Front door, technicians and services",
    purpose: "ours",
    channels: ["mail", "text"],
    each: true,
    fields: ["what", "who", "service", "day", "window", "total", "words", "more"],
  },
  "office news": {
    group: "Your team",
    name: "News from a customer",
    about: "When a customer moves, cancels, adds or answers something",
    purpose: "ours",
    channels: ["mail", "text"],
    each: true,
    fields: ["what", "who", "more"],
  },
  "day changed": {
    group: "Your team",
    name: "Your day has changed",
    about: "To a technician whose day of today or tomorrow is another than they were told",
    purpose: "ours",
    channels: ["text", "mail"],
    fields: ["day", "what", "technician_first", "technician"],
  },
  "day ahead": {
    group: "Your team",
    name: "Tomorrow’s list",
    about: "To each technician, the evening before",
    purpose: "ours",
    channels: ["mail"],
    off: true,
    fields: ["day", "stops", "technician_first", "technician"],
  },
  "day begins": {
    group: "Your team",
    name: "Today’s list",
    about: "To each technician, in the morning, with what was left over",
    purpose: "ours",
    channels: ["mail"],
    off: true,
    fields: ["day", "stops", "left_over", "technician_first", "technician"],
  },
  "visit soon": {
    group: "Your team",
    name: "One hour before",
    about: "To the technician, an hour before a window opens",
    purpose: "ours",
    channels: ["text"],
    off: true,
    fields: [...work, "day", "window", "who"],
  },
  "to sign off": {
    group: "Your team",
    name: "To sign off",
    about: "To the office, when a subcontractor has closed a visit",
    purpose: "ours",
    channels: ["mail"],
    fields: [...work, "day", "who", "technician", "technician_first"],
  },
  "daily summary": {
    group: "You",
    name: "Daily summary",
    about: "To the owner, in the evening",
    purpose: "ours",
    channels: ["mail"],
    off: true,
    fields: ["day", "figures", "needs"],
  },
  "weekly summary": {
    group: "You",
    name: "Weekly summary",
    about: "To the owner, on Sunday evening",
    purpose: "ours",
    channels: ["mail"],
    off: true,
    fields: ["day", "figures", "needs"],
  },
} as const satisfies Record<string, OccasionKind>;

export type Occasion = keyof typeof occasions;
export const allOccasions = Object.keys(occasions) as Occasion[];
export const kindOf = (occasion: Occasion): OccasionKind => occasions[occasion];

/** The fields that a text of an occasion may name. */
export const fieldsOf = (occasion: Occasion): FieldName[] => {
  const { purpose, fields } = kindOf(occasion);
  return purpose === "ours" ? ["business", ...fields] : [...common, ...fields.filter((name) => !isCommon(name))];
};
const isCommon = (name: FieldName): boolean => (common as readonly FieldName[]).includes(name);
