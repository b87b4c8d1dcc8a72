import { clock, listWords, weekdayNames } from "@/core/time/words";
import type { PatternPart } from "@/core/windows/patterns";
import { type CheckedSetup, type Contradiction } from "./checked-setup";

/** Where the first window of a part ends. */
export const firstEnd = (part: PatternPart): number =>
  part.kind === "stepping" ? part.from + part.length : part.kind === "window" ? part.to : part.from;

export function ofWindows({ windows, technicians, opening }: CheckedSetup): Contradiction[] {
  const shut =
    opening.length === 0
      ? []
      : windows.flatMap((part): Contradiction[] => {
          const days = weekdayNames.filter(
            (_, day) =>
              part.weekdays & (1 << day) &&
              !opening.some((o) => o.weekday === day && o.opens <= part.from && firstEnd(part) <= o.closes),
          );
          return days.length
            ? [
                {
                  code: "outside-opening-hours",
                  part: "windows",
                  id: null,
                  sentence: `The window from ${clock(part.from)} lies outside the opening hours on ${listWords(days.map((d) => `${d}s`))}.`,
                },
              ]
            : [];
        });
  if (technicians.length === 0) return shut;
  return [
    ...shut,
    ...windows.flatMap((part): Contradiction[] => {
      const idle = weekdayNames.filter(
        (_, day) =>
          part.weekdays & (1 << day) &&
          !technicians.some((t) => t.hours.some((h) => h.weekday === day && h.opens < part.to && h.closes > part.from)),
      );
      return idle.length
        ? [
            {
              code: "window-never-worked",
              part: "windows",
              id: null,
              sentence: `Nobody works in the window from ${clock(part.from)} on ${listWords(idle.map((d) => `${d}s`))}.`,
            },
          ]
        : [];
    }),
  ];
}
