import { setTimeout as pause } from "node:timers/promises";
import { percentile } from "./measure";

/** How long requests waited, in milliseconds, by what was asked. */
type Waits = Record<string, number[]>;

/** A customer at the front door looks at windows and keeps one, again and again for as long as something goes on. */
export async function requestsWhile(url: string, addressId: string, goesOn: () => boolean): Promise<Waits> {
  const waits = { "read windows": [] as number[], "keep one": [] as number[] };
  const send = async (at: string, body: object) => {
    const before = performance.now();
    const response = await fetch(`${url}/api/${at}`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    });
    const answer = (await response.json()) as {
      ok: boolean;
      value: { windows: { date: string; from: number; to: number }[] };
    };
    return { answer, took: performance.now() - before };
  };
  const order = { addressId, items: [{ serviceId: 1 }] };
  // The first request of a process reads everybody's days; those that follow find them in memory.
  console.log(`  the first request of a process: ${(await send("views/offers", order)).took.toFixed(0)} ms`);
  while (goesOn()) {
    const { answer, took } = await send("views/offers", order);
    waits["read windows"].push(took);
    const [{ date, from, to }] = answer.value.windows as [{ date: string; from: number; to: number }];
    waits["keep one"].push((await send("operations/hold-offer", { ...order, date, from, to })).took);
    await pause(50);
  }
  return waits;
}

export function sayWaits(waits: Waits): void {
  for (const [what, samples] of Object.entries(waits))
    console.log(
      `  meanwhile ${samples.length} requests to ${what}: p50 ${percentile(samples, 0.5).toFixed(0)} ms, p95 ${percentile(samples, 0.95).toFixed(0)} ms, the longest ${Math.max(...samples).toFixed(0)} ms`,
    );
}
