import type { Minor } from "../money/amounts";
import { type ItemTerms, lateFee, type Terms } from "./terms";

/** Until when customers change a visit by themselves, in hours before its window. */
export interface CutOffs {
  moveHours: number;
  cancelHours: number;
  /** What moving does inside the time in which cancelling costs a fee: it takes the fee along, or is refused. */
  lateMoves: "fee" | "refused";
}

export interface OwnChanges {
  /** Epoch minutes. */
  moveUntil: number;
  cancelUntil: number;
  mayMove: boolean;
  mayCancel: boolean;
  /** What cancelling costs at this moment. */
  feeMinor: Minor;
  /** What a move at this moment takes along: cancelling costs at least this afterwards. */
  moveTakesMinor: Minor;
}

/** Until how many hours before its window a customer moves a visit by themselves: where late moves are refused, before a fee would be asked. */
export const movedUntilHours = (
  { moveHours, lateMoves }: Pick<CutOffs, "moveHours" | "lateMoves">,
  terms: readonly Terms[],
): number =>
  lateMoves === "fee"
    ? moveHours
    : Math.max(moveHours, ...terms.map(({ late }) => (late.kind === "none" || late.value === 0 ? 0 : late.hours)));

/** What a customer may do about a promised visit at a moment, and what it costs. What waits for its deposit or for us is not agreed: it can be left for nothing, and not be moved; a time that we proposed can be answered with another. `opens` and `now` are epoch minutes. */
export function ownChanges(
  { moveHours, cancelHours, lateMoves }: CutOffs,
  terms: readonly ItemTerms[],
  { agreed, proposed = false, takenMinor = 0 }: { agreed: boolean; proposed?: boolean; takenMinor?: Minor },
  opens: number,
  now: number,
): OwnChanges {
  const cancelUntil = opens - cancelHours * 60;
  const moveUntil = opens - (agreed ? movedUntilHours({ moveHours, lateMoves }, terms) : moveHours) * 60;
  // A fee that was taken along by moving late is not lost on the way.
  const feeMinor = agreed ? Math.max(lateFee(terms, opens - now), takenMinor) : 0;
  const lateNow = agreed ? lateFee(terms, opens - now) : 0;
  return {
    moveUntil,
    cancelUntil,
    mayMove: (agreed || proposed) && now < moveUntil && (lateNow === 0 || lateMoves === "fee"),
    mayCancel: now < cancelUntil,
    feeMinor,
    moveTakesMinor: lateNow > 0 ? feeMinor : takenMinor,
  };
}
