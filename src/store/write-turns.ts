/**
 * Turns in writing, among the threads of one process. SQLite lets one write at a time, and whoever finds it taken looks
 * again after up to 100 ms: a worker that writes one piece after the other would hardly ever be found between two of
 * them. Here a request that waits goes before the worker's next piece. Between processes SQLite's own lock stands, and
 * it stands behind this one too: whoever has waited too long goes on to it.
 */
export type InTurn = <R>(write: () => R) => R;

/** Where turns are kept: whether somebody writes, and how many requests wait. */
export const makeTurns = (): SharedArrayBuffer => new SharedArrayBuffer(8);
const [taken, waiting] = [0, 1];

/** After so long nobody waits here any more: whoever had the turn may have died with it. */
const longestMs = 5_000;
/** So long at most a worker stands back for requests that keep coming. */
const standsBackMs = 1_000;

/** Without other threads nobody has to wait. */
export const alone: InTurn = (write) => write();

/** Gives a turn back: one's own, or that of a thread that has died with it. */
export function freeTurn(turns: SharedArrayBuffer): void {
  const state = new Int32Array(turns);
  Atomics.store(state, taken, 0);
  Atomics.notify(state, taken, 1);
}

/** Takes turns by what `turns` says; `standsBack`: only while no request waits. */
export function turnsOf(turns: SharedArrayBuffer, { standsBack }: { standsBack: boolean }): InTurn {
  const state = new Int32Array(turns);
  let mine = false;

  const take = (): boolean => {
    const until = performance.now() + longestMs;
    while (Atomics.compareExchange(state, taken, 0, 1) !== 0) {
      const left = until - performance.now();
      if (left <= 0) return false;
      Atomics.wait(state, taken, 1, left);
    }
    return true;
  };
  const takeAsRequest = (): boolean => {
    Atomics.add(state, waiting, 1);
    try {
      return take();
    } finally {
      if (Atomics.sub(state, waiting, 1) === 1) Atomics.notify(state, waiting);
    }
  };
  const takeAsWorker = (): boolean => {
    const until = performance.now() + standsBackMs;
    for (let n = Atomics.load(state, waiting); n > 0; n = Atomics.load(state, waiting)) {
      const left = until - performance.now();
      if (left <= 0) break;
      Atomics.wait(state, waiting, n, left);
    }
    return take();
  };

  return (write) => {
    // Within a turn of one's own one goes on.
    if (mine) return write();
    mine = standsBack ? takeAsWorker() : takeAsRequest();
    try {
      return write();
    } finally {
      if (mine) {
        mine = false;
        freeTurn(turns);
      }
    }
  };
}
