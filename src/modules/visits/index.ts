import { defineModule } from "@/kernel/module";
import { visitJobs } from "./jobs";
import { visitNeeds } from "./needs";
import { advanceVisit } from "./operations/advance-visit";
import { cancelVisit } from "./operations/cancel-visit";
import { tellLate } from "./operations/tell-late";
import { fieldDay } from "./views/field";
import { visitSheet } from "./views/visit-sheet";

export const visitsModule = defineModule({
  name: "visits",
  owns: ["told_days"],
  operations: {
    "advance-visit": advanceVisit,
    "cancel-visit": cancelVisit,
    "tell-late": tellLate,
  },
  views: {
    "field-day": fieldDay,
    "visit-sheet": visitSheet,
  },
  jobs: visitJobs,
  needs: visitNeeds,
});
