import { clock, listWords, weekdayNames } from "@/core/time/words";
import { cut, type PatternPart } from "@/core/windows/patterns";
import { type CheckedSetup, type Contradiction } from "./checked-setup";

/** Whether some window of a part lies within the opening hours of a weekday; of one that depends on who is where, whether it may. */
const isOpenIn = (part: PatternPart, opening: CheckedSetup["opening"], weekday: number): boolean =>
  opening
    .filter((o) => o.weekday === weekday)
    .some(({ opens, closes }) =>
      part.kind === "continuous"
        ? opens < part.to && closes > part.from
        : cut(part).some(([from, to]) => opens <= from && to <= closes),
    );

export function ofWindows({ windows, technicians, opening }: CheckedSetup): Contradiction[] {
  const shut =
    opening.length === 0
      ? []
      : windows.flatMap((part): Contradiction[] => {
          const days = weekdayNames.filter((_, day) => part.weekdays & (1 << day) && !isOpenIn(part, opening, day));
          return days.length
            ? [
                {
                  code: "outside-opening-hours",
                  part: "windows",
                  id: null,
                  sentence: `${part.kind === "window" ? "The window" : "Every window"} from ${clock(part.from)} lies outside the opening hours on ${listWords(days.map((d) => `${d}s`))}.`,
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
