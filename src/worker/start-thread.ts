import type { Hogar } from "@/kernel/hogar";
import { freeTurn, makeTurns, turnsOf } from "@/store/write-turns";
import { existsSync } from "node:fs";
import path from "node:path";
import { Worker } from "node:worker_threads";

const restartMs = 1_000;
/** Made with the application (scripts/prepare.mjs): in one file the worker takes a third of the memory. */
const bundledWorker = path.join(process.cwd(), ".next/hogar-worker.mjs");

/**
 * Runs the worker in a thread beside this process's own work, woken when something is put into the outbox. A thread that
 * dies is started again; its leases run out, and what it was about is done once. Answers how to stop it.
 */
export function startWorkerThread(hogar: Hogar, folder: string): () => Promise<void> {
  const turns = makeTurns();
  hogar.inTurn = turnsOf(turns, { standsBack: false });
  let stopping = false;
  let thread = start();

  function start(): Worker {
    const isBundled = existsSync(bundledWorker);
    const worker = new Worker(isBundled ? bundledWorker : path.join(process.cwd(), "src/worker/thread.ts"), {
      workerData: { folder, turns },
      resourceLimits: { maxYoungGenerationSizeMb: 8 },
      execArgv: isBundled ? [] : ["--import", "tsx"],
    });
    worker.on("error", (error) => console.error("worker thread", error));
    worker.on("exit", () => {
      freeTurn(turns);
      if (!stopping) setTimeout(() => (stopping ? undefined : (thread = start())), restartMs).unref();
    });
    return worker;
  }
  hogar.wake = () => thread.postMessage("wake");
  return async () => {
    stopping = true;
    const gone = new Promise((resolve) => thread.once("exit", resolve));
    thread.postMessage("stop");
    await gone;
  };
}
