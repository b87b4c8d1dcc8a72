import { defineOperation } from "@/kernel/operation";
import { MoveRepeatVisit, moveVisitOfRepeat } from "../moving";

/**
 * Moves a visit of a repeat by hand: this one alone, with those that come after it (whoever was promised one is told), or with
 * all that are not promised yet. For a date that is not promised, it is agreed. `undo-repeat-change` takes back what was agreed
 * for those after it.
 */
export const moveRepeatVisit = defineOperation({
  name: "move-repeat-visit",
  access: "board.change",
  about: { visitId: "visit", technicianIds: "shared" },
  input: MoveRepeatVisit,
  run: moveVisitOfRepeat,
});
