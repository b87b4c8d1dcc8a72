import { mustPerform } from "@/kernel/operation";
import type { Hogar } from "@/kernel/hogar";
import { type ScheduledJob, worker } from "@/kernel/scheduled";
import { readBusiness } from "@/store/business";
import { rezoneSites } from "./operations/rezone";

/** After zones have changed, some customers more at each turn. */
function rezone(hogar: Hogar): null {
  if (readBusiness(hogar.store)?.zoned_to !== null) mustPerform(hogar, rezoneSites, {}, worker);
  return null;
}

export const setupJobs: readonly ScheduledJob[] = [{ name: "customers of zones", order: 40, everyMs: 0, run: rezone }];
