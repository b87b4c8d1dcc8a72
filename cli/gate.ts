import { createHmac, randomBytes, timingSafeEqual } from "node:crypto";
import type { Server } from "node:http";

/** Who goes first where not all can be answered: money and steps in the field, whoever is signed in, whoever is in the middle of a booking, everybody else. */
export type Turn = 0 | 1 | 2 | 3;

/** So long somebody of each turn may be expected to wait, in milliseconds; whoever would wait longer is told at once to come again. */
const longestMs = [8_000, 4_000, 2_000, 1_200] as const;
/** Requests under way at once: what they do is mostly work of the one thread. */
const atOnce = 2;
/** What is loaded for the first time says little of those that follow. */
const mostEachMs = 200;
/** Looks for connections that the system has taken and this process has not seen yet, at the most. */
const mostLooks = 200;

export interface Gate {
  /** Whether somebody of this turn would wait too long by now. */
  isFull: (turn: Turn) => boolean;
  /** Waits for one's turn. False: there are too many, and nothing was begun. True: `leave` is called afterwards. */
  enter: (turn: Turn) => Promise<boolean>;
  leave: () => void;
}

/**
 * Lets as many requests in as can be answered, and tells the others at once. Node takes about one new connection in each turn
 * of its loop, so that those who wait are in the system's queue, where nobody counts them: before the next request is begun all
 * of them are let in to be counted. How long somebody waits is worked out from how long the last ones took.
 */
export function openGate(server: Server): Gate {
  const lines: { go: () => void; turn: Turn }[][] = [[], [], [], []];
  let running = 0;
  let isLooking = false;
  let arrivals = 0;
  /** What one request takes of the thread, in milliseconds, as the last ones have. */
  let eachMs = 5;
  let lastEnd = performance.now();
  server.on("connection", () => void arrivals++);

  const waitingUpTo = (turn: Turn): number => lines.slice(0, turn + 1).reduce((sum, line) => sum + line.length, 0);
  const beginNext = (): void => {
    if (isLooking || running >= atOnce || waitingUpTo(3) === 0) return;
    isLooking = true;
    void everybodyIsIn().then(() => {
      isLooking = false;
      const next = lines.find((line) => line.length > 0)?.shift();
      if (next) {
        if (running++ === 0) lastEnd = performance.now();
        next.go();
      }
      beginNext();
    });
  };
  const everybodyIsIn = async (): Promise<void> => {
    for (let looks = 0, before = -1; looks < mostLooks && before !== arrivals; looks++) {
      before = arrivals;
      await new Promise(setImmediate);
    }
  };
  const isFull = (turn: Turn): boolean => (waitingUpTo(turn) + running) * eachMs > longestMs[turn];
  return {
    isFull,
    enter: (turn) =>
      new Promise((resolve) => {
        if (isFull(turn)) return resolve(false);
        lines[turn]!.push({ turn, go: () => resolve(true) });
        beginNext();
      }),
    leave() {
      const now = performance.now();
      eachMs += (Math.min(now - lastEnd, mostEachMs) - eachMs) / 20;
      lastEnd = now;
      running--;
      beginNext();
    },
  };
}

/** So long whoever was answered once goes before those who only come. */
const middleMs = 15 * 60_000;

/** Marks those who are in the middle of something: a sign that was given with an answer, and is brought along from then on. */
export function middleSigns(now: () => number = Date.now): { give: () => string; isOurs: (sign: string) => boolean } {
  const key = randomBytes(32);
  const sealOf = (until: string): Buffer => createHmac("sha256", key).update(until).digest();
  return {
    give() {
      const until = String(now() + middleMs);
      return `${until}.${sealOf(until).toString("base64url")}`;
    },
    isOurs(sign) {
      const [until = "", seal = ""] = sign.split(".");
      const given = Buffer.from(seal, "base64url");
      const right = sealOf(until);
      return Number(until) > now() && given.length === right.length && timingSafeEqual(given, right);
    },
  };
}
