import sharp from "sharp";
import { cleanImage, ImageProblem } from "./images";

/** A process of its own that makes pictures safe, one after the other, for the process that has started it (image-process.ts). */
sharp.concurrency(1);
sharp.cache(false);

process.on("message", async ({ sent, size }: { sent: Uint8Array; size: number }) => {
  try {
    process.send!({ image: await cleanImage(Buffer.from(sent), size) });
  } catch (error) {
    process.send!({ problem: String(error), isNoPicture: error instanceof ImageProblem });
  }
});
process.on("disconnect", () => process.exit(0));
