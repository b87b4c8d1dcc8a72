import type { Point } from "@/core/place/points";
import type { RoadGateway } from "./types";

/** Most places in one question to the server. */
const placesAtOnce = 80;
const retryAfterMs = 60_000;

export interface RoutingServer extends RoadGateway {
  /** Resolves when nothing is being asked any more. */
  settled(): Promise<void>;
}

/**
 * Driving times from a routing server that speaks the common HTTP table protocol:
 * `GET {address}/table/v1/driving/{lng},{lat};…?annotations=duration`, answered by
 * `{ code: "Ok", durations: [[seconds | null]] }`. A request never waits for it: what is not known
 * yet is estimated, asked for in the background, and used from the next time on. Where the server
 * does not answer, the estimate stands.
 */
export function routingServer(
  address: string,
  estimate: RoadGateway,
  ask: typeof fetch = fetch,
  log: (problem: string) => void = console.error,
): RoutingServer {
  const points: Point[] = [];
  const known = new Map<string, number>();
  const missing = new Set<string>();
  let revision = 0;
  let silentUntil = 0;
  let asking: Promise<void> | null = null;

  return {
    place(point, pace) {
      const number = estimate.place(point, pace);
      points[number] ??= point;
      return number;
    },
    minutes(from, to) {
      if (from === to) return 0;
      const key = `${from} ${to}`;
      const found = known.get(key);
      if (found !== undefined) return found;
      missing.add(key);
      if (Date.now() >= silentUntil) asking ??= askForMissing().finally(() => (asking = null));
      return estimate.minutes(from, to);
    },
    revision: () => revision,
    settled: async () => {
      while (asking) await asking;
    },
  };

  async function askForMissing(): Promise<void> {
    // What one computation needs comes in one go: wait until it has asked for all of it.
    await Promise.resolve();
    while (missing.size) {
      const places = new Set<number>();
      for (const key of missing) {
        for (const place of key.split(" ").map(Number)) places.add(place);
        if (places.size >= placesAtOnce - 1) break;
      }
      try {
        await askFor([...places]);
      } catch (error) {
        silentUntil = Date.now() + retryAfterMs;
        log(`The routing server does not answer; driving times are estimated. ${(error as Error).message}`);
        return;
      }
    }
  }

  async function askFor(places: number[]): Promise<void> {
    const coordinates = places.map((p) => `${points[p]!.lng},${points[p]!.lat}`).join(";");
    const response = await ask(`${address.replace(/\/$/, "")}/table/v1/driving/${coordinates}?annotations=duration`, {
      signal: AbortSignal.timeout(10_000),
    });
    const answer = (await response.json()) as { code?: string; durations?: (number | null)[][] };
    if (answer.code !== "Ok" || answer.durations?.length !== places.length)
      throw new Error(`It said “${answer.code ?? response.status}”.`);
    for (const [i, from] of places.entries())
      for (const [j, to] of places.entries()) {
        const seconds = answer.durations[i]?.[j];
        const key = `${from} ${to}`;
        missing.delete(key);
        if (from !== to)
          known.set(
            key,
            typeof seconds === "number" ? Math.max(1, Math.ceil(seconds / 60)) : estimate.minutes(from, to),
          );
      }
    revision++;
  }
}
