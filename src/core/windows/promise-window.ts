import type { LocalDate } from "../time/dates";

/** A span in which arrival is promised, in epoch minutes; `to` is the last moment of arrival. An exact time has both the same. */
export interface PromiseWindow {
  date: LocalDate;
  from: number;
  to: number;
}
