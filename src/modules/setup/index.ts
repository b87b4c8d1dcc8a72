import { defineModule } from "@/kernel/module";
import { takeKit } from "./operations/take-kit";
import { canBeBooked } from "./views/can-be-booked";
import { firstSteps } from "./views/first-steps";
import { previewWindows } from "./views/preview-windows";
import { setup } from "./views/setup";

export const setupModule = defineModule({
  name: "setup",
  owns: [],
  operations: {
    "take-kit": takeKit,
  },
  views: {
    "can-be-booked": canBeBooked,
    "first-steps": firstSteps,
    "preview-windows": previewWindows,
    setup,
  },
});
