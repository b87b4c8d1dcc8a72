import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { Type } from "@sinclair/typebox";
import { chosenPlace, moveByHand } from "../by-hand";
import { readVisit } from "../visits";

const MoveVisit = input({
  visitId: Id,
  ...chosenPlace,
  /** Of a time that several customers share, this one only. */
  alone: Type.Optional(Type.Boolean()),
});

/** Moves a visit that is promised; a date of a repeat that is not is moved by `move-repeat-visit`, which keeps what was agreed. */
export const moveVisit = defineOperation({
  name: "move-visit",
  access: "board.change",
  about: { visitId: "visit", technicianIds: "shared" },
  input: MoveVisit,
  run(context, { visitId, alone = false, ...place }) {
    const visit = readVisit(context, visitId);
    if (visit.state === "forecast")
      throw new Refusal("visit-not-open", {
        sentence: "Say whether only this date of the repeat moves, or all from now on.",
      });
    return moveByHand(context, visit, place, { alone });
  },
});
