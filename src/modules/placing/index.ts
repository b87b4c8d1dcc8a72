import { defineModule } from "@/kernel/module";
import { placingLaws } from "./laws";
import { placingNeeds } from "./needs";
import { saveBookingRules } from "./operations/booking-rules";
import { moveVisit } from "./operations/move-visit";
import { removeSpecialDay } from "./operations/opening";
import { settleUnkept } from "./operations/settle-unkept";
import { board } from "./views/board";
import { dayStrip } from "./views/day-strip";
import { placementOptions } from "./views/placement-options";
import { whyNot, whyNotChoices } from "./views/why-not";

export const placingModule = defineModule({
  name: "placing",
  owns: ["placements", "shared_times", "opening_hours", "special_days", "unkept_promises"],
  operations: {
    "move-visit": moveVisit,
    "remove-special-day": removeSpecialDay,
    "save-booking-rules": saveBookingRules,
    "settle-unkept": settleUnkept,
  },
  views: {
    board,
    "day-strip": dayStrip,
    "placement-options": placementOptions,
    "why-not": whyNot,
    "why-not-choices": whyNotChoices,
  },
  needs: placingNeeds,
  laws: placingLaws,
});
