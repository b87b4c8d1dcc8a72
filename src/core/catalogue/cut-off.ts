import type { Minor } from "../money/amounts";
import { type ItemTerms, lateFee } from "./terms";

/** Until when customers change a visit by themselves, in hours before its window. */
export interface CutOffs {
  moveHours: number;
  cancelHours: number;
}

export interface OwnChanges {
  /** Epoch minutes. */
  moveUntil: number;
  cancelUntil: number;
  mayMove: boolean;
  mayCancel: boolean;
  /** What cancelling costs at this moment. */
  feeMinor: Minor;
}

/** What a customer may do about a promised visit at a moment, and what it costs. What waits for its deposit or for us is not agreed: it can be left for nothing, and not be moved; a time that we proposed can be answered with another. `opens` and `now` are epoch minutes. */
export function ownChanges(
  { moveHours, cancelHours }: CutOffs,
  terms: readonly ItemTerms[],
  { agreed, proposed = false }: { agreed: boolean; proposed?: boolean },
  opens: number,
  now: number,
): OwnChanges {
  const [moveUntil, cancelUntil] = [opens - moveHours * 60, opens - cancelHours * 60];
  return {
    moveUntil,
    cancelUntil,
    mayMove: (agreed || proposed) && now < moveUntil,
    mayCancel: now < cancelUntil,
    feeMinor: agreed ? lateFee(terms, opens - now) : 0,
  };
}
