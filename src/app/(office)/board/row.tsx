"use client";
import { clock, durationWords, windowWords } from "@/core/time/words";
import { imageAddress } from "@/ui/images";
import { hues } from "@/ui/palette";
import { type CSSProperties, memo } from "react";
import css from "./board.module.css";
import type { BoardDay, BoardStop } from "./data";
import { Landings } from "./landing";
import { type Frame, leftOf, spanOf } from "./scale";
import { PlacedVisit } from "./visit-card";

type Technician = BoardDay["technicians"][number];

interface RowProps {
  technician: Technician;
  frame: Frame;
  windows: BoardDay["windows"];
  canChange: boolean;
  /** The visit that is open, where it is in this row. */
  chosen: number | null;
}

/** One technician's day. */
export const Row = memo(function Row({ technician, frame, windows, canChange, chosen }: RowProps) {
  const { start, end, now } = frame;
  const arches = [...new Map(technician.stops.map((s) => [`${s.windowFrom} ${s.windowTo}`, s])).values()];
  return (
    <div className={css.row}>
      <Head technician={technician} />
      <div className={css.lane} style={{ "--hour": `${6000 / (end - start)}%` } as CSSProperties}>
        {gapsOf(technician.spans, start, end).map(([from, to]) => (
          <div key={from} className={css.gap} style={spanOf(frame, from, to)} />
        ))}
        {technician.errands.map((e) => (
          <div
            key={e.id}
            className={css.errand}
            style={spanOf(frame, e.from, e.to)}
            role="img"
            aria-label={`Errand: ${e.title}`}
            data-hint={`${e.title}, ${clock(e.from)} to ${clock(e.to)}${e.place ? `, ${e.place}` : ""}`}
          >
            {e.title}
          </div>
        ))}
        {arches.map((s) => (
          <div
            key={`${s.windowFrom} ${s.windowTo}`}
            className={css.window}
            style={spanOf(frame, s.windowFrom, s.windowTo)}
          >
            {windowWords(s.windowFrom, s.windowTo)}
          </div>
        ))}
        {technician.stops.map((s) => s.arrives > s.driveFrom && <Drive key={s.id} stop={s} frame={frame} />)}
        {technician.stops.map((s) => (
          <PlacedVisit
            key={s.id}
            visit={s}
            frame={frame}
            late={technician.late.includes(s.id)}
            chosen={chosen === s.id}
            canChange={canChange}
          />
        ))}
        {now !== null && now >= start && now <= end && <div className={css.now} style={{ left: leftOf(frame, now) }} />}
        <Landings technicianId={technician.id} windows={windows} frame={frame} />
      </div>
    </div>
  );
});

function Head({ technician }: { technician: Technician }) {
  const share = technician.workable ? Math.min(100, (technician.promised / technician.workable) * 100) : 0;
  const skills = technician.skills.join(", ");
  return (
    <div
      className={css.head}
      style={{ "--hue": hues[technician.hue] } as CSSProperties}
      data-hint={skills || undefined}
    >
      <div className={css.name}>
        {technician.photo ? (
          <img className={css.photo} src={imageAddress(technician.photo)} alt="" />
        ) : (
          <span aria-hidden className={css.mark} />
        )}
        {technician.name}
      </div>
      <div className={`${css.small} ${css.skills}`}>{skillsShown(technician.skills)}</div>
      <div className={technician.absence ? `${css.small} ${css.absent}` : css.small}>
        {technician.absence ?? `${(technician.promised / 60).toFixed(1)} of ${(technician.workable / 60).toFixed(1)} h`}
      </div>
      <div className={css.load}>
        <div style={{ width: `${share}%` }} />
      </div>
    </div>
  );
}

/** As many skills as there is room for, never cut in the middle; the rest as a number. */
function skillsShown(skills: readonly string[]): string {
  const letters = 22;
  const shown = skills.filter((_, i) => skills.slice(0, i + 1).join(" · ").length <= letters);
  const left = skills.length - shown.length;
  return left === 0 ? shown.join(" · ") : [...shown, `+${left}`].join(" · ");
}

function Drive({ stop, frame }: { stop: BoardStop; frame: Frame }) {
  const { driving } = stop;
  return (
    <div
      role="img"
      aria-label={`${durationWords(driving)} driving`}
      className={css.drive}
      style={spanOf(frame, stop.driveFrom, stop.arrives)}
      data-hint={`${durationWords(driving)} driving to ${stop.customer}`}
    >
      {driving >= 12 && <span>{driving}</span>}
    </div>
  );
}

function gapsOf(spans: Technician["spans"], start: number, end: number): [number, number][] {
  const edges = [start, ...spans.flat(), end];
  return Array.from({ length: edges.length / 2 }, (_, i): [number, number] => [
    edges[2 * i]!,
    edges[2 * i + 1]!,
  ]).filter(([from, to]) => to > from);
}
