import { addDays, type LocalDate } from "../time/dates";

/** Minutes of the day between which customers may be written to. */
export interface AllowedHours {
  from: number;
  to: number;
}

/** How a reminder of an invoice speaks: before it is due or on the day, after it, and the last time. */
export type ReminderTone = "coming" | "reminder" | "last";

/** The tone of the nth step (from 1) of a ladder: days after the due date, in order, below nothing before it. */
export const reminderTone = (daysAfter: readonly number[], nth: number): ReminderTone =>
  daysAfter[nth - 1]! <= 0 ? "coming" : nth === daysAfter.length && nth > 1 ? "last" : "reminder";

/** The reminders of an invoice that have come by `today`: their numbers, from 1. */
export const paymentRemindersDue = (dueDate: LocalDate, daysAfter: readonly number[], today: LocalDate): number[] =>
  daysAfter
    .map((days, i) => ({ on: addDays(dueDate, days), number: i + 1 }))
    .filter(({ on }) => on <= today)
    .map(({ number }) => number);

/** The day of the first reminder after `today`; null where all have come. */
export const nextPaymentReminder = (
  dueDate: LocalDate,
  daysAfter: readonly number[],
  today: LocalDate,
): LocalDate | null => daysAfter.map((days) => addDays(dueDate, days)).find((on) => on > today) ?? null;
