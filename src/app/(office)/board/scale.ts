import type { BoardDay } from "./data";

/** The hours that a board shows, minutes of the day, and the hour it is. */
export interface Frame {
  start: number;
  end: number;
  now: number | null;
}

export const leftOf = ({ start, end }: Frame, minute: number): string => `${((minute - start) / (end - start)) * 100}%`;

/** An exact time has no width of its own; it gets half an hour. */
const widthOf = ({ start, end }: Frame, from: number, to: number): string =>
  `${((to === from ? 30 : to - from) / (end - start)) * 100}%`;

export const spanOf = (frame: Frame, from: number, to: number) => ({
  left: leftOf(frame, from),
  width: widthOf(frame, from, to),
});

/** From the first to the last hour in which somebody works, is promised or can be. */
export function hoursShown(day: BoardDay): [number, number] {
  const edges = [
    ...day.windows.flat(),
    ...day.technicians.flatMap((t) => [
      ...t.spans.flat(),
      ...t.stops.flatMap((s) => [s.driveFrom, s.leaves, s.windowFrom, s.windowTo]),
    ]),
  ];
  if (edges.length === 0) return [8 * 60, 18 * 60];
  return [Math.floor(Math.min(...edges) / 60) * 60, Math.ceil(Math.max(...edges) / 60) * 60];
}
