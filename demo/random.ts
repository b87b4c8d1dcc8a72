import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";

/** Random choices from a seed: the same seed makes the same world. */
export interface Random {
  /** A whole number from `from` to `to`, both included. */
  int(from: number, to: number): number;
  pick<T>(items: readonly T[]): T;
  chance(probability: number): boolean;
  shuffle<T>(items: readonly T[]): T[];
}

export function seeded(seed: number): Random {
  const generator = xoroshiro128plus(seed);
  const unit = () => (generator.next() >>> 0) / 2 ** 32;
  const int = (from: number, to: number) => from + Math.floor(unit() * (to - from + 1));
  return {
    int,
    pick: (items) => items[int(0, items.length - 1)]!,
    chance: (probability) => unit() < probability,
    shuffle(items) {
      const shuffled = [...items];
      for (let i = shuffled.length - 1; i > 0; i--) {
        const k = int(0, i);
        [shuffled[i], shuffled[k]] = [shuffled[k]!, shuffled[i]!];
      }
      return shuffled;
    },
  };
}
