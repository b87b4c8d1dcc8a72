import { type CleanImage, ImageProblem } from "./images";
import { NotDone, outsideProcess } from "./outside-process";

type Answer = { image: CleanImage } | { problem: string; isNoPicture: boolean };

const pictures = outsideProcess<{ sent: Buffer; size: number }, Answer>("src/gateways/image-child.ts", {
  longestMs: 20_000,
  most: 60,
  // More than one booking may bring.
  mostFromOne: 12,
});

/**
 * Makes a picture safe (images.ts) in a process of its own, one at a time, small ones first. `from` is where it came from.
 * Throws ImageProblem for what is no picture and for what takes too long, TooManyWait where others are before it.
 */
export async function cleanImageOutside(sent: Buffer, size: number, from: string | null): Promise<CleanImage> {
  const answer = await pictures.ask({ question: { sent, size }, size: sent.length, from }).catch((error: unknown) => {
    throw error instanceof NotDone ? new ImageProblem(error.message) : error;
  });
  if ("image" in answer) return { ...answer.image, bytes: Buffer.from(answer.image.bytes) };
  throw answer.isNoPicture ? new ImageProblem(answer.problem) : new Error(answer.problem);
}
