import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { makeBusiness, serve } from "./full-business";
import { percentile } from "./measure";

/**
 * After a start: how long the first look-up of windows takes, and how long others wait meanwhile who ask something small, at a
 * small business and at one of 100 technicians and 30,000 visits; as multiples of what both take later in the same run.
 */
export async function run(): Promise<void> {
  for (const size of [
    { technicians: 12, days: 30, stopsADay: 4 },
    { technicians: 100, days: 30, stopsADay: 10 },
  ]) {
    const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
    try {
      const hogar = makeBusiness(folder, size);
      const [address] = hogar.town!.addresses.filter((a) => /^MW [13]/.test(a.postcode));
      hogar.store.db.close();
      const { url, stop } = await serve(folder);
      const timed = async (view: string, body: object): Promise<number> => {
        const started = performance.now();
        const response = await fetch(`${url}/api/views/${view}`, {
          method: "POST",
          headers: { "content-type": "application/json" },
          body: JSON.stringify(body),
        });
        if (!response.ok) throw new Error(`${view}: ${response.status}`);
        await response.arrayBuffer();
        return performance.now() - started;
      };
      const lookUp = () => timed("offers", { addressId: address!.id, items: [{ serviceId: 1 }] });
      const small = () => timed("front-door", {});
      const first = lookUp();
      const meanwhile: number[] = [];
      let isOver = false;
      void first.then(() => (isOver = true));
      while (!isOver) meanwhile.push(await small());
      const [firstMs, later, smallLater] = [await first, [] as number[], [] as number[]];
      for (let i = 0; i < 30; i++) {
        later.push(await lookUp());
        smallLater.push(await small());
      }
      await stop();
      const [p50, smallP50] = [percentile(later, 0.5), percentile(smallLater, 0.5)];
      console.log(
        `  ${size.technicians} technicians, ${size.technicians * size.days * size.stopsADay} visits: first look-up ${firstMs.toFixed(0)} ms (${(firstMs / p50).toFixed(1)} times a later one); others waited ${Math.max(...meanwhile).toFixed(0)} ms at the most (${(Math.max(...meanwhile) / smallP50).toFixed(1)} times)`,
      );
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  }
}
