import { Bench } from "tinybench";

/** Mean milliseconds of a run, after warming up. */
export async function ms(name: string, run: () => void): Promise<number> {
  const bench = new Bench({ time: 700, warmupTime: 300 });
  bench.add(name, run);
  await bench.run();
  const { result } = bench.tasks[0]!;
  if (!result || !("latency" in result)) throw new Error(`${name} could not be measured`);
  return result.latency.mean;
}

/** The value below which the share `p` of the samples lies. */
export function percentile(samples: readonly number[], p: number): number {
  const sorted = [...samples].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(sorted.length * p) - 1)]!;
}
