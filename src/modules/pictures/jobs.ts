import { mustPerform } from "@/kernel/operation";
import { minuteMs, type ScheduledJob, worker } from "@/kernel/scheduled";
import { forgetPictures } from "./operations/forget-pictures";

export const pictureJobs: readonly ScheduledJob[] = [
  {
    name: "pictures nobody needs",
    order: 220,
    everyMs: 60 * minuteMs,
    run: (hogar) => {
      mustPerform(hogar, forgetPictures, {}, worker);
      return null;
    },
  },
];
