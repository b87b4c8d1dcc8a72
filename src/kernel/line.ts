/** What is not taken on, since too many wait already. */
export class LineIsFull extends Error {}

/** Runs work a few at a time, in the order it came; beyond `most` that wait it takes none on. */
export function lineOf(atOnce: number, most: number): <T>(work: () => Promise<T>) => Promise<T> {
  const waiting: (() => void)[] = [];
  let running = 0;
  return async (work) => {
    if (running >= atOnce) {
      if (waiting.length >= most) throw new LineIsFull("Too many wait");
      // Whoever ends gives this place on: nobody who comes meanwhile takes it.
      await new Promise<void>((resolve) => waiting.push(resolve));
    } else running++;
    try {
      return await work();
    } finally {
      const next = waiting.shift();
      if (next) next();
      else running--;
    }
  };
}
