import type { LocalDate } from "@/core/time/dates";
import type { NeedKind } from "@/core/today/urgency";

export interface NeedsPerson {
  kind: NeedKind;
  words: string;
  detail: string;
  href: string;
  /** The day it is about, where it is about one. */
  date?: LocalDate;
  /** What can be done about it at once: room that is given back. */
  givesBack?: { address: string | null; date: LocalDate | null; customerId: number | null };
  /** How many it stands for, where that is not one. */
  n?: number;
}
