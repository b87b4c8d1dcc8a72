import { minuteMs, type ScheduledJob } from "@/kernel/scheduled";
import { modules } from "@/registry/modules";
import { drainOutbox } from "./outbox";
import { prune } from "./pruning";

/** All of the outbox, to the end; the running worker has its lanes go on by themselves instead. */
export const outbox: ScheduledJob = {
  name: "outbox",
  order: 0,
  everyMs: 0,
  async run(hogar) {
    await drainOutbox(hogar);
    return null;
  },
};

/** In their order at each turn. The outbox comes first, so that nothing that follows can keep a message or a charge back. */
export const jobs: readonly ScheduledJob[] = [
  outbox,
  ...modules.flatMap(({ jobs = [] }) => jobs),
  { name: "what is kept no longer", order: 900, everyMs: 60 * minuteMs, run: prune },
].toSorted((a, b) => a.order - b.order);

/** What is looked after at every turn. */
export const everyTurn = jobs.filter((job) => job.everyMs === 0);
