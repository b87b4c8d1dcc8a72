import { addDays } from "../time/dates";
import { epochMinute, localOf } from "../time/local";
import { intoHours } from "./falling";
import type { AllowedHours } from "./moments";
import type { OutsideHours } from "./occasions";
import type { Channel, Purpose } from "./purposes";

/** What counts at the moment in which a message would go out. */
export interface AtSending {
  purpose: Purpose;
  channel: Channel;
  /** Epoch minutes. */
  now: number;
  zone: string;
  hours: AllowedHours;
  outside: OutsideHours;
  /** After this moment it is of no use: the window has opened. Null: it keeps. */
  uselessFrom: number | null;
  /** Why it is out of date, in a word: its visit was moved or cancelled, its invoice paid. Null: it is not. */
  stale: string | null;
  /** Whether its reader has agreed to what needs their consent, on this channel. */
  agreed: boolean;
  /** Whether they have said STOP on this channel, or it does not reach them. */
  stopped: boolean;
  /** Until when a change of a visit has to be known (epoch minutes): some time before it. Null: it is none. */
  knownBy: number | null;
  /** Messages that went to them today of our own accord, and how many may. */
  sentToday: number;
  mostADay: number;
}

export type Verdict =
  | { goes: true }
  /** Not before this moment (epoch minutes). */
  | { waits: number }
  /** By the next of its channels, because of this. */
  | { next: string }
  /** Not at all, because of this. */
  | { dropped: string };

/** Whether a message goes out now: the one rule of all, asked again at the moment of sending. */
export function verdictOf(m: AtSending): Verdict {
  if (m.stale !== null) return { dropped: m.stale };
  if (m.uselessFrom !== null && m.now >= m.uselessFrom) return { dropped: "too late to be of use" };
  if (m.purpose === "ours") return mailOrHours(m);
  if (!m.agreed) return { next: "not agreed to" };
  if (m.stopped) return { next: "they have ended it on this channel" };
  if (m.purpose === "answer") return { goes: true };
  if (m.knownBy !== null) return inTime(m, m.knownBy);
  if (m.sentToday >= m.mostADay) return until(m, tomorrow(m), "enough for one day");
  return withinHours(m);
}

/** A mail to one of us waits quietly; a phone is not to ring at night. */
const mailOrHours = (m: AtSending): Verdict => (m.channel === "mail" ? { goes: true } : withinHours(m));

/** A mail disturbs nobody; a phone rings at night where the morning would be too late. */
function inTime(m: AtSending, knownBy: number): Verdict {
  const later = intoHours(m.now, "later", m.hours, m.zone)!;
  return later === m.now || m.channel === "mail" || later > knownBy ? { goes: true } : { waits: later };
}

function withinHours(m: AtSending): Verdict {
  const { outside } = m;
  const later = intoHours(m.now, "later", m.hours, m.zone)!;
  if (later === m.now) return { goes: true };
  if (outside === "drop") return { dropped: "outside the allowed hours" };
  // What should have gone out earlier and did not is of use as long as it comes in time.
  if (outside === "other") return m.channel === "mail" ? until(m, later, "") : { next: "outside the allowed hours" };
  return until(m, later, "outside the allowed hours");
}

/** The first allowed moment of the next day. */
const tomorrow = ({ now, zone, hours }: AtSending): number =>
  epochMinute(addDays(localOf(now, zone).date, 1), hours.from, zone);

const until = (m: AtSending, moment: number, why: string): Verdict =>
  m.uselessFrom !== null && moment >= m.uselessFrom ? { dropped: why || "too late to be of use" } : { waits: moment };
