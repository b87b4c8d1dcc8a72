"use client";
import { nameWithin } from "@/core/people/names";
import { clock, durationWords, windowWords } from "@/core/time/words";
import { stateGlyphs } from "@/ui/arch";
import { hues } from "@/ui/palette";
import PhoneDisabled from "@mui/icons-material/PhoneDisabled";
import { createContext, type CSSProperties, memo, useContext } from "react";
import css from "./board.module.css";
import { liftWords } from "./carry";
import type { BoardStop, BoardVisit } from "./data";
import { type Frame, spanOf } from "./scale";

/** Pixels of a letter of the card, on the wide side, and what of the card is not for letters. */
const [letterWidth, edges] = [7.5, 11];

/** How many pixels an hour of the board is wide. */
export const HourWidth = createContext(72);

interface CardProps {
  visit: BoardVisit;
  /** Pixels that it is wide. */
  width: number;
  carried?: boolean;
  late?: boolean;
  chosen?: boolean;
}

/** A visit on the board. Short ones keep the family name and the code; everything else is in the hover card. */
export function VisitCard({ visit, width, carried, late, chosen }: CardProps) {
  const classes = [
    css.card,
    visit.minutes < 60 && !carried && css.short,
    (visit.state === "forecast" || visit.state === "held") && css.pencilled,
    chosen && css.chosen,
    late && css.late,
    carried && css.carried,
  ];
  return (
    <div className={classes.filter(Boolean).join(" ")} style={{ "--hue": hues[visit.hue] } as CSSProperties}>
      <div className={css.who}>
        {visit.bookings > 1
          ? `${visit.bookings} customers`
          : nameWithin(visit.customer, Math.floor((width - edges) / letterWidth))}
      </div>
      <div className={css.what}>
        <span>
          {visit.code}
          {width > 100 && ` · ${visit.minutes} min`}
        </span>
        <span aria-hidden="true">
          {visit.unreached && <PhoneDisabled className={css.unreached} />}
          {visit.confirmed === "yes" && "✓ "}
          {visit.confirmed === "asked" && <b className={css.asked}>? </b>}
          {stateGlyphs[visit.state]}
        </span>
      </div>
    </div>
  );
}

const confirmedWords = ({ confirmed }: BoardVisit): string =>
  confirmed === "yes" ? ", confirmed" : confirmed === "asked" ? ", not confirmed yet" : "";

interface PlacedProps {
  visit: BoardStop;
  frame: Frame;
  late: boolean;
  chosen: boolean;
  canChange: boolean;
}

/** A visit in its place. It is opened and lifted by whoever holds the whole board (lift.tsx). */
export const PlacedVisit = memo(function PlacedVisit({ visit, frame, late, chosen, canChange }: PlacedProps) {
  const width = (useContext(HourWidth) * (visit.leaves - visit.arrives)) / 60;
  const movable = canChange && (visit.state === "promised" || visit.state === "forecast");
  const words = `${visit.customer}, ${visit.service}, ${visit.site}. Promised ${windowWords(visit.windowFrom, visit.windowTo)}, planned ${clock(visit.arrives)} to ${clock(visit.leaves)}, ${durationWords(visit.minutes)}, ${visit.state}${confirmedWords(visit)}${visit.unreached ? ", customer not reached" : ""}${late ? ", late" : ""}.`;
  return (
    <div
      className={css.stop}
      style={spanOf(frame, visit.arrives, visit.leaves)}
      data-visit={visit.id}
      data-hint={words}
      data-movable={movable || undefined}
      role="button"
      tabIndex={0}
      aria-label={words}
      {...(movable && { "aria-roledescription": "visit that can be carried", "aria-describedby": liftWords })}
    >
      <VisitCard visit={visit} width={width} late={late} chosen={chosen} />
    </div>
  );
});
