import { type ChildProcess, fork } from "node:child_process";
import path from "node:path";

/** What is not taken on, since too many wait already: in all, or from one source. */
export class TooManyWait extends Error {}
/** What took longer than it may, or brought its process down. */
export class NotDone extends Error {}

interface Asked<Question> {
  question: Question;
  /** How large it is, in bytes: smaller ones go first. */
  size: number;
  /** Where it came from, so that one source does not take every place; null: ourselves. */
  from: string | null;
}

export interface OutsideProcess<Question, Answer> {
  ask: (asked: Asked<Question>) => Promise<Answer>;
}

interface Limits {
  /** So long one question may take, in milliseconds. */
  longestMs: number;
  /** So many may wait, in all and from one source. */
  most: number;
  mostFromOne: number;
}

type Waiting<Question, Answer> = Asked<Question> & {
  resolve: (answer: Answer) => void;
  reject: (error: Error) => void;
};

const idleMs = 60_000;

/**
 * Has what comes from outside looked into in a process of its own, one after the other: it takes neither the thread nor the
 * memory of those who wait for a page, and what hangs is ended. `script` is named from the project's root; it answers each
 * message with one.
 */
export function outsideProcess<Question, Answer>(
  script: string,
  { longestMs, most, mostFromOne }: Limits,
): OutsideProcess<Question, Answer> {
  const waiting: Waiting<Question, Answer>[] = [];
  let child: ChildProcess | null = null;
  let idle: NodeJS.Timeout | undefined;
  let busy = false;

  const stop = () => {
    child?.kill("SIGKILL");
    child = null;
  };
  const start = (): ChildProcess => {
    const file = path.join(/* turbopackIgnore: true */ process.cwd(), script);
    const started = fork(/* turbopackIgnore: true */ file, {
      execArgv: ["--import", "tsx", "--max-old-space-size=256"],
      serialization: "advanced",
    });
    started.on("exit", () => (child = child === started ? null : child));
    return started;
  };
  const answerOf = (question: Question): Promise<Answer> =>
    new Promise((resolve, reject) => {
      const asked = (child ??= start());
      asked.ref();
      asked.channel?.ref();
      const end = (then: () => void) => {
        clearTimeout(tooLong);
        asked.off("message", onMessage).off("exit", onExit);
        asked.unref();
        asked.channel?.unref();
        then();
      };
      // Whatever it is doing: the next question gets a new process.
      const tooLong = setTimeout(() => {
        stop();
        end(() => reject(new NotDone("took too long")));
      }, longestMs);
      const onMessage = (message: unknown) => end(() => resolve(message as Answer));
      const onExit = () => end(() => reject(new NotDone("brought its process down")));
      asked.once("message", onMessage).once("exit", onExit);
      asked.send(question as object);
    });
  const goOn = (): void => {
    if (busy) return;
    const next = smallestOf(waiting);
    if (!next) return void (idle = setTimeout(stop, idleMs).unref());
    clearTimeout(idle);
    busy = true;
    void answerOf(next.question)
      .then(next.resolve, next.reject)
      .finally(() => {
        busy = false;
        goOn();
      });
  };
  return {
    ask: (asked) =>
      new Promise((resolve, reject) => {
        const ofOne = waiting.filter(({ from }) => from === asked.from && from !== null).length;
        if (waiting.length >= most || ofOne >= mostFromOne) return reject(new TooManyWait("too many wait"));
        waiting.push({ ...asked, resolve, reject });
        goOn();
      }),
  };
}

/** Takes the smallest out of those that wait; of two of one size, the one that came first. */
function smallestOf<W extends { size: number }>(waiting: W[]): W | undefined {
  let at = 0;
  for (const [i, one] of waiting.entries()) if (one.size < waiting[at]!.size) at = i;
  return waiting.splice(at, 1)[0];
}
