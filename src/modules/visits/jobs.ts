import { mustPerform } from "@/kernel/operation";
import { minuteMs, type ScheduledJob, worker } from "@/kernel/scheduled";
import { tellTeam } from "./operations/tell-team";

export const visitJobs: readonly ScheduledJob[] = [
  {
    name: "our own people",
    order: 200,
    everyMs: minuteMs,
    run: (hogar) => {
      mustPerform(hogar, tellTeam, {}, worker);
      return null;
    },
  },
];
