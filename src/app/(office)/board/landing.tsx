"use client";
import { useDroppable } from "@dnd-kit/core";
import { useContext } from "react";
import css from "./board.module.css";
import type { PlacementOptions } from "./data";
import { LiftedVisit } from "./lift";
import { type Frame, spanOf } from "./scale";

type Window = readonly [from: number, to: number];

/** The windows of a row in which what is carried can be put down; none while nothing is. */
export function Landings({
  technicianId,
  windows,
  frame,
}: {
  technicianId: number;
  windows: readonly Window[];
  frame: Frame;
}) {
  const lifted = useContext(LiftedVisit);
  if (!lifted) return null;
  const { windowFrom, windowTo } = lifted.visit;
  const own = windows.some(([from, to]) => from === windowFrom && to === windowTo);
  const all = own ? windows : [...windows, [windowFrom, windowTo] as const];
  return all.map(([from, to]) => (
    <Landing
      key={`${from} ${to}`}
      technicianId={technicianId}
      from={from}
      to={to}
      frame={frame}
      options={lifted.options}
    />
  ));
}

/** Where a lifted visit can be put down: says what it costs there, or why it cannot be. */
function Landing({
  technicianId,
  from,
  to,
  frame,
  options,
}: {
  technicianId: number;
  from: number;
  to: number;
  frame: Frame;
  options: PlacementOptions | null;
}) {
  const { setNodeRef, isOver } = useDroppable({
    id: `${technicianId} ${from} ${to}`,
    data: { technicianId, from, to },
  });
  const here = options?.find((o) => o.from === from && o.to === to)?.technicians.find((t) => t.id === technicianId);
  const classes = [css.landing, options && (here?.fits ? css.fits : css.no), isOver && css.over];
  return (
    <div ref={setNodeRef} className={classes.filter(Boolean).join(" ")} style={spanOf(frame, from, to)}>
      {here?.fits && `+${here.extraDriving} min`}
      {here && !here.fits && isOver && here.why}
    </div>
  );
}
