import { defineModule } from "@/kernel/module";
import { incomingNeeds } from "./needs";
import { approveBookings, declineIncoming, proposeWindow, takeOn } from "./operations/incoming";
import { incoming, incomingEntry } from "./views/incoming";

export const incomingModule = defineModule({
  name: "incoming",
  owns: [],
  operations: {
    "approve-bookings": approveBookings,
    "decline-incoming": declineIncoming,
    "propose-window": proposeWindow,
    "take-on": takeOn,
  },
  views: {
    incoming,
    "incoming-entry": incomingEntry,
  },
  needs: incomingNeeds,
});
