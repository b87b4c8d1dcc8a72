"use client";
import { writeTimesBy } from "@/core/time/words";
import dayjs from "dayjs";
import updateLocale from "dayjs/plugin/updateLocale";
import { createContext, type ReactNode, useContext } from "react";

/** How the business writes: the day its week begins with (0 is Monday), the hours of its clock, and its currency. */
export interface Habits {
  weekStart: number;
  clockHours: 12 | 24;
  currency: string;
}

dayjs.extend(updateLocale);
const HabitsContext = createContext<Habits>({ weekStart: 0, clockHours: 24, currency: "EUR" });
export const useHabits = (): Habits => useContext(HabitsContext);

export function HabitsProvider({ habits, children }: { habits: Habits; children: ReactNode }) {
  // Before anything under it is written: words and date pickers know of no context.
  writeTimesBy(habits.clockHours);
  dayjs.updateLocale("en", { weekStart: (habits.weekStart + 1) % 7 });
  return <HabitsContext.Provider value={habits}>{children}</HabitsContext.Provider>;
}

/** The numbers of the weekdays, from the one that weeks begin with. */
export const weekdaysFrom = (start: number): number[] => Array.from({ length: 7 }, (_, i) => (start + i) % 7);
