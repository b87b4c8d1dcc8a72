import { mustPerform, perform } from "@/operations/door";
import { releaseLapsed, writeReminders } from "@/operations/fall-due";
import { forgetPictures } from "@/operations/images";
import type { Hogar } from "@/operations/hogar";
import { growRepeats } from "@/operations/repeats";
import { meetWish, openWishes } from "@/operations/wishes";
import { readBusiness } from "@/store/business";
import { worker } from "./effects";
import { drainOutbox } from "./outbox";

const tickMs = 1_000;

/** Everything that falls due by now: lapsed holds, reminders and the outbox; with `growing` also what is looked at by the hour. */
export async function runDue(hogar: Hogar, growing = true, leaseMs?: number, meeting = growing): Promise<void> {
  mustPerform(hogar, releaseLapsed, {}, worker);
  if (growing) {
    mustPerform(hogar, growRepeats, {}, worker);
    mustPerform(hogar, forgetPictures, {}, worker);
  }
  // A wish that was withdrawn this moment is none any more: no matter.
  if (meeting) for (const id of openWishes(hogar)) perform(hogar, meetWish, { id }, worker);
  mustPerform(hogar, writeReminders, {}, worker);
  await drainOutbox(hogar, leaseMs);
}

/** Starts the worker loop: once a second, and at once when something is put into the outbox. Answers how to stop it. */
export function startWorker(hogar: Hogar, leaseMs?: number): () => Promise<void> {
  let running: Promise<void> = Promise.resolve();
  let stopped = false;
  let busy = false;
  let again = false;
  let [grownOn, metOn] = ["", ""];

  const turn = () => {
    if (stopped) return;
    if (busy) return void (again = true);
    busy = true;
    running = round()
      .catch((error: unknown) => console.error("worker", error))
      .finally(() => {
        busy = false;
        if (again) {
          again = false;
          turn();
        }
      });
  };
  const round = async () => {
    if (!readBusiness(hogar.store)) return;
    // Repeats change by the day: once in each hour of the business's clock is enough.
    const hour = String(Math.floor(hogar.now() / 3_600_000));
    // A window that opens is told of within minutes.
    const minutes = String(Math.floor(hogar.now() / 300_000));
    await runDue(hogar, hour !== grownOn, leaseMs, minutes !== metOn);
    [grownOn, metOn] = [hour, minutes];
  };
  const timer = setInterval(turn, tickMs);
  hogar.wake = () => setImmediate(turn);
  turn();
  return async () => {
    stopped = true;
    clearInterval(timer);
    await running;
  };
}
