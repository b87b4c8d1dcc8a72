"use client";
import { useDraggable } from "@dnd-kit/core";
import { createContext, type KeyboardEvent, type ReactNode, type SyntheticEvent, useContext, useRef } from "react";
import { overWhat } from "./carry";
import type { BoardVisit, Held, PlacementOptions } from "./data";

/** What is carried, and where it can be put down; null while nothing is. */
export interface Lifted {
  visit: BoardVisit;
  options: PlacementOptions | null;
}
export const LiftedVisit = createContext<Lifted | null>(null);

/**
 * All visits within can be opened and lifted. There is one thing to drag, which becomes the card that is touched: so
 * carrying one costs nothing for the hundreds of others.
 */
export function Liftable({
  find,
  open,
  children,
}: {
  find: (id: number) => BoardVisit | undefined;
  open: (id: number) => void;
  children: ReactNode;
}) {
  const lifted = useContext(LiftedVisit);
  const held = useRef<Held>({ visit: null });
  const { listeners, setNodeRef } = useDraggable({ id: "visit", data: held.current });
  const grab = (event: SyntheticEvent): boolean => {
    const card = overWhat(event.target);
    if (lifted || !card || card.dataset.movable === undefined) return false;
    held.current.visit = find(Number(card.dataset.visit)) ?? null;
    setNodeRef(card);
    return held.current.visit !== null;
  };
  const pass = (name: string, event: SyntheticEvent) => {
    if (grab(event)) listeners?.[name]?.(event);
  };
  const onKey = (event: KeyboardEvent) => {
    const card = overWhat(event.target);
    if (!card || card !== event.target || lifted) return;
    if (event.key === "Enter") open(Number(card.dataset.visit));
    else pass("onKeyDown", event);
  };
  return (
    <div
      style={{ display: "contents" }}
      onPointerDown={(event) => pass("onPointerDown", event)}
      onKeyDown={onKey}
      onClick={(event) => {
        const card = overWhat(event.target);
        if (card) open(Number(card.dataset.visit));
      }}
    >
      {/* The card that is carried fades where it was. */}
      {lifted && <style>{`[data-visit="${lifted.visit.id}"] { opacity: 0.35 }`}</style>}
      {children}
    </div>
  );
}
