import { defineModule } from "@/kernel/module";
import { takeKit } from "./operations/take-kit";
import { canBeBooked } from "./views/can-be-booked";
import { firstSteps } from "./views/first-steps";
import { previewWindows } from "./views/preview-windows";
import { setup } from "./views/setup";
import { setupJobs } from "./jobs";
import { rezoneSites } from "./operations/rezone";

export const setupModule = defineModule({
  name: "setup",
  owns: [],
  operations: {
    "rezone-sites": rezoneSites,
    "take-kit": takeKit,
  },
  views: {
    "can-be-booked": canBeBooked,
    "first-steps": firstSteps,
    "preview-windows": previewWindows,
    setup,
  },
  jobs: setupJobs,
});
