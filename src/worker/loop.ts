import type { Hogar } from "@/kernel/hogar";
import { readBusiness } from "@/store/business";
import type { ScheduledJob } from "@/kernel/scheduled";
import { jobs, outbox } from "./jobs";
import { openLanes } from "./outbox";

const tickMs = 1_000;
/** A job that has more to do than this at once goes on at the next turn, behind the outbox. */
const turnMs = 400;

/** The jobs of one process, with when each ran last. */
export interface Rounds {
  /** One turn: every job whose time has come, each within its own try. Answers whether some have more to do. */
  turn: () => Promise<boolean>;
}

export function makeRounds(hogar: Hogar, all: readonly ScheduledJob[] = jobs): Rounds {
  /** By job: in which stretch of its time it ran last, and where it goes on. */
  const ran = new Map<ScheduledJob, { stretch: number; from: number | null }>();

  const step = async (job: ScheduledJob): Promise<boolean> => {
    const stretch = job.everyMs === 0 ? NaN : Math.floor(hogar.now() / job.everyMs);
    const before = ran.get(job);
    if (before && before.stretch === stretch && before.from === null) return false;
    let from: number | null = null;
    try {
      from = await job.run(hogar, performance.now() + turnMs, before?.from ?? 0);
    } catch (error) {
      console.error(`worker, ${job.name}`, error);
    }
    ran.set(job, { stretch, from });
    return from !== null;
  };
  return {
    async turn() {
      if (!readBusiness(hogar.store)) return false;
      let more = false;
      for (const job of all) if (await step(job)) more = true;
      return more;
    },
  };
}

/** Everything that is due by now, to the end: for tests, the demo and whoever wants to wait for it. */
export async function runDue(hogar: Hogar, all: readonly ScheduledJob[] = jobs): Promise<void> {
  const { turn } = makeRounds(hogar, all);
  while (await turn());
  // What the jobs have put into the outbox.
  await turn();
}

/** Starts the worker loop: once a second, and at once when something is put into the outbox, whose lanes go on beside all else. Answers how to stop it. */
export function startWorker(hogar: Hogar): () => Promise<void> {
  const lanes = openLanes(hogar);
  const { turn } = makeRounds(
    hogar,
    jobs.filter((job) => job !== outbox),
  );
  let running: Promise<void> = Promise.resolve();
  let stopped = false;
  let busy = false;
  let again = false;

  const wake = () => {
    if (stopped) return;
    lanes.begin();
    if (busy) return void (again = true);
    busy = true;
    running = turn()
      .catch((error: unknown) => {
        console.error("worker", error);
        return false;
      })
      .then((more) => {
        busy = false;
        if (!more && !again) return;
        again = false;
        setImmediate(wake);
      });
  };
  const timer = setInterval(wake, tickMs);
  hogar.wake = () => setImmediate(wake);
  wake();
  return async () => {
    stopped = true;
    clearInterval(timer);
    await Promise.all([running, lanes.close()]);
  };
}
