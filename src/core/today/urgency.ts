import { daysBetween, type LocalDate } from "../time/dates";

/** What can wait for a person on the first screen. */
export type NeedKind =
  | "danger"
  | "nobody home"
  | "not closed"
  | "incoming"
  | "unplaced"
  | "late"
  | "failed card"
  | "overdue"
  | "bounced"
  | "expiring"
  | "reply"
  | "unconfirmed"
  | "stuck"
  | "hoarding"
  | "dispute"
  | "broken promise"
  | "not collected"
  | "objection"
  | "paid twice"
  | "unreachable"
  | "unkept"
  | "bank"
  | "trouble";

/** Days ahead up to which a promise without a technician is about to be broken. */
const soonDays = 1;

/** By what waiting costs: somebody in danger, then a broken promise first, then money that does not come, then who waits for an answer, then what can wait. */
const ranks: Record<NeedKind, number> = {
  danger: -1,
  late: 0,
  unplaced: 6,
  stuck: 2,
  hoarding: 2,
  dispute: 2,
  "nobody home": 2,
  "not closed": 3,
  "failed card": 3,
  "not collected": 3,
  objection: 3,
  unreachable: 3,
  unkept: 2,
  "paid twice": 4,
  "broken promise": 4,
  reply: 4,
  trouble: 3,
  unconfirmed: 3,
  incoming: 5,
  bounced: 7,
  overdue: 8,
  bank: 8,
  expiring: 9,
};

const rankOf = ({ kind, date }: Need, today: LocalDate): number =>
  kind === "unplaced" && date !== undefined && daysBetween(today, date) <= soonDays ? 1 : ranks[kind];

interface Need {
  kind: NeedKind;
  /** The day it is about, where it is about one. */
  date?: LocalDate;
}

/** What needs a person, in the order of what waiting costs; what costs the same stays as it was, the nearer day first. */
export const byUrgency = <N extends Need>(needs: readonly N[], today: LocalDate): N[] =>
  [...needs].sort((a, b) => rankOf(a, today) - rankOf(b, today) || (a.date ?? "").localeCompare(b.date ?? ""));
