import type { Item } from "@/core/catalogue/items";
import type { OnClosed } from "@/core/repeats/coming";
import type { Counted } from "@/core/repeats/counted";
import type { Comes, Leeway } from "@/core/repeats/flexible";
import { type Recurrence, ruleText } from "@/core/repeats/recurrence";
import type { LocalDate } from "@/core/time/dates";
import type { OperationContext } from "@/kernel/operation";
import { itemsColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";

/** A repeat as it is agreed, however it came to be. */
export interface NewRepeat {
  customerId: number;
  siteId: number;
  /** What is done, the main service first; by a job pattern where the first names one. */
  items: readonly Item[];
  /** Another pattern the first time, and every so many times. */
  firstPatternId?: number | null;
  nth?: { every: number; patternId: number } | null;
  rule: Recurrence;
  /** Its first date, which is one of the rule. */
  start: LocalDate;
  fromMinute: number;
  toMinute: number;
  technicianId: number | null;
  onClosed?: OnClosed;
  comes: Comes;
  leewayDays?: Leeway;
  counted?: Counted;
  /** A price of its own for each visit; null is by the catalogue. */
  visitMinor?: number | null;
  /** The visit after which it is time again. */
  afterVisitId?: number;
  /** The first of those that were agreed together with it. */
  agreedWithId?: number | null;
}

/** Writes a repeat down; its dates are laid out by whoever comes next. Answers its id. */
export const storeRepeat = ({ sql }: OperationContext, repeat: NewRepeat): number =>
  insertRow(sql, "repeats", {
    customer_id: repeat.customerId,
    site_id: repeat.siteId,
    service_id: repeat.items[0]!.serviceId,
    pattern_id: repeat.items[0]!.patternId ?? null,
    first_pattern_id: repeat.firstPatternId ?? null,
    nth: repeat.nth?.every ?? null,
    nth_pattern_id: repeat.nth?.patternId ?? null,
    items: itemsColumn.write(
      repeat.items.map(({ serviceId, quantity, answers, extras }) => ({ serviceId, quantity, answers, extras })),
    ),
    rule: ruleText(repeat.rule),
    start_date: repeat.start,
    from_minute: repeat.fromMinute,
    to_minute: repeat.toMinute,
    technician_id: repeat.technicianId,
    on_closed: repeat.onClosed ?? "nearest",
    comes: repeat.comes,
    leeway_days: repeat.leewayDays ?? null,
    counted: repeat.counted ?? "calendar",
    price_per: repeat.visitMinor == null ? "catalogue" : "visit",
    price_minor: repeat.visitMinor ?? null,
    after_visit_id: repeat.afterVisitId ?? null,
    agreed_with_id: repeat.agreedWithId ?? null,
    state: "active",
  });
