import type { Channel } from "@/core/messages/purposes";
import type { LocalDate } from "@/core/time/dates";
import type { NeedKind } from "@/core/today/urgency";

/** What needs a person now, in a sentence, with what can be done about it. */
export interface NeedsPerson {
  kind: NeedKind;
  words: string;
  detail: string;
  href: string;
  /** The day it is about, where it is about one. */
  date?: LocalDate;
  /** What can be done about it at once: room that is given back. */
  givesBack?: { address: string | null; date: LocalDate | null; customerId: number | null };
  /** The same: a message that did not get through, and the channel by which it could still go. */
  lost?: { messageId: number; next: Channel | null };
  /** The same: a charge of which nobody knows how it ended. */
  charge?: { paymentId: number };
  /** The same: what failed by itself, to be tried again. */
  again?: { job: string; problem: string };
  /** The same: a promise that a change of set-up has touched. */
  unkept?: { visitId: number; mayGoToOthers: boolean };
  /** How many it stands for, where that is not one. */
  n?: number;
}
