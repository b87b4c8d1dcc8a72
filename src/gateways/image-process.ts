import { type ChildProcess, fork } from "node:child_process";
import path from "node:path";
import { type CleanImage, ImageProblem } from "./images";

const longestMs = 20_000;
const idleMs = 60_000;

let child: ChildProcess | null = null;
let idle: NodeJS.Timeout | undefined;
let last: Promise<unknown> = Promise.resolve();

type Answer = { image: CleanImage } | { problem: string; isNoPicture: boolean };

/**
 * Makes a picture safe (images.ts) in a process of its own, one at a time: decoding takes neither the threads nor the memory
 * of those who wait for a page. Throws ImageProblem for what is no picture, and for what takes too long.
 */
export function cleanImageOutside(sent: Buffer, size: number): Promise<CleanImage> {
  const turn = last.then(() => clean(sent, size));
  last = turn.catch(() => {});
  return turn;
}

async function clean(sent: Buffer, size: number): Promise<CleanImage> {
  clearTimeout(idle);
  const process = (child ??= start());
  process.ref();
  process.channel?.ref();
  try {
    const answer = await new Promise<Answer>((resolve, reject) => {
      const tooLong = setTimeout(() => {
        // Whatever it is doing: the next picture gets a new one.
        stop();
        reject(new ImageProblem("took too long"));
      }, longestMs);
      const end = (then: () => void) => {
        clearTimeout(tooLong);
        process.off("message", onMessage).off("exit", onExit);
        then();
      };
      const onMessage = (message: unknown) => end(() => resolve(message as Answer));
      const onExit = () => end(() => reject(new ImageProblem("could not be decoded")));
      process.once("message", onMessage).once("exit", onExit);
      process.send({ sent, size });
    });
    if ("image" in answer) return { ...answer.image, bytes: Buffer.from(answer.image.bytes) };
    throw answer.isNoPicture ? new ImageProblem(answer.problem) : new Error(answer.problem);
  } finally {
    process.unref();
    process.channel?.unref();
    idle = setTimeout(stop, idleMs).unref();
  }
}

function start(): ChildProcess {
  const script = path.join(/* turbopackIgnore: true */ process.cwd(), "src/gateways/image-child.ts");
  const started = fork(/* turbopackIgnore: true */ script, {
    execArgv: ["--import", "tsx", "--max-old-space-size=256"],
    serialization: "advanced",
  });
  started.on("exit", () => (child = child === started ? null : child));
  return started;
}

function stop(): void {
  child?.kill("SIGKILL");
  child = null;
}
