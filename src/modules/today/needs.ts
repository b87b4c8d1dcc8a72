import type { LocalDate } from "@/core/time/dates";
import type { NeedKind } from "@/core/today/urgency";

export interface NeedsPerson {
  kind: NeedKind;
  words: string;
  detail: string;
  href: string;
  /** The day it is about, where it is about one. */
  date?: LocalDate;
  /** How many it stands for, where that is not one. */
  n?: number;
}
