import { windowWords } from "@/core/time/words";
import {
  type Announcements,
  closestCenter,
  type CollisionDetection,
  type KeyboardCoordinateGetter,
  pointerWithin,
} from "@dnd-kit/core";
import type { BoardDay, Held, PlacementOptions } from "./data";

/** Says to a screen reader how a visit is lifted: the id of those words. */
export const liftWords = "how-to-lift";

/** The card of a visit in which something happened. */
export const overWhat = (target: EventTarget): HTMLElement | null =>
  target instanceof HTMLElement ? target.closest<HTMLElement>("[data-visit]") : null;

/** Where a carried visit is: under the pointer, or, carried by keys, over the nearest landing. */
export const overLanding: CollisionDetection = (args) =>
  args.pointerCoordinates ? pointerWithin(args) : closestCenter(args);

/** Arrows carry a visit from landing to landing: left and right along a row, up and down between technicians. */
export const toNextLanding: KeyboardCoordinateGetter = (
  event,
  { context: { collisionRect: here, droppableRects } },
) => {
  const ahead = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.code];
  if (!ahead || !here) return;
  event.preventDefault();
  const [alongX, alongY] = ahead as [number, number];
  const near = [...droppableRects.values()].flatMap((to) => {
    const [dx, dy] = [
      to.left + to.width / 2 - here.left - here.width / 2,
      to.top + to.height / 2 - here.top - here.height / 2,
    ];
    const [along, across] = [dx * alongX + dy * alongY, Math.abs(alongX ? dy : dx)];
    // Not the one it is over; and along a row none of another row.
    return along > 8 && (alongY || across < to.height / 2) ? [{ to, along, across }] : [];
  });
  const next = near.sort((a, b) => a.along - b.along || a.across - b.across)[0]?.to;
  return next && { x: next.left + next.width / 2 - here.width / 2, y: next.top + next.height / 2 - here.height / 2 };
};

export interface Landing {
  technicianId: number;
  from: number;
  to: number;
}

/** What a screen reader says while a visit is carried. */
export function announcements(day: BoardDay, options: PlacementOptions | null): Announcements {
  const place = ({ technicianId, from, to }: Landing) => {
    const here = options?.find((o) => o.from === from && o.to === to)?.technicians.find((t) => t.id === technicianId);
    const name = day.technicians.find((t) => t.id === technicianId)?.name ?? "";
    return `${name}, ${windowWords(from, to)}${here ? (here.fits ? `, ${here.extraDriving} minutes more driving` : `: ${here.why}`) : ""}`;
  };
  const customer = (data: unknown) => (data as Held).visit!.customer;
  return {
    onDragStart: ({ active }) =>
      `${customer(active.data.current)} is lifted. Arrows carry it, Space puts it down, Escape leaves it where it was.`,
    onDragOver: ({ over }) => (over ? place(over.data.current as Landing) : "Over no window."),
    onDragEnd: ({ active, over }) =>
      over
        ? `${customer(active.data.current)} is put down: ${place(over.data.current as Landing)}`
        : `${customer(active.data.current)} stays where it was.`,
    onDragCancel: ({ active }) => `${customer(active.data.current)} stays where it was.`,
  };
}
