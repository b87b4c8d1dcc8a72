import { openHogar } from "@/registry/open-hogar";
import { parentPort, workerData } from "node:worker_threads";
import { startWorker } from "./loop";

/** The worker in a thread of its own, on a connection of its own: what takes long keeps no request waiting. */
const hogar = openHogar({ folder: (workerData as { folder: string }).folder });
const stop = startWorker(hogar);

parentPort!.on("message", async (message: "wake" | "stop") => {
  if (message === "wake") return hogar.wake();
  await stop();
  hogar.store.db.close();
  process.exit(0);
});
