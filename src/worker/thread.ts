import { openHogar } from "@/registry/open-hogar";
import { turnsOf } from "@/store/write-turns";
import { parentPort, workerData } from "node:worker_threads";
import { startWorker } from "./loop";

/** The worker in a thread of its own, on a connection of its own: what takes long keeps no request waiting. */
const { folder, turns } = workerData as { folder: string; turns: SharedArrayBuffer };
const hogar = openHogar({ folder, inTurn: turnsOf(turns, { standsBack: true }) });
const stop = startWorker(hogar);

parentPort!.on("message", async (message: "wake" | "stop") => {
  if (message === "wake") return hogar.wake();
  await stop();
  hogar.close();
  process.exit(0);
});
