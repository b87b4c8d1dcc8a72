import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { makeBusiness, serve } from "./full-business";
import { percentile } from "./measure";

const size = { technicians: 100, days: 30, stopsADay: 10 };

/** The whole request over HTTP, SQL included: the soonest windows for a customer at a business of 100 technicians and 30,000 future visits. */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const hogar = makeBusiness(folder, size);
    const addresses = hogar.town!.addresses.filter(
      (a) => a.postcode.startsWith("MW 1") || a.postcode.startsWith("MW 3"),
    );
    const visits = hogar.store.sql<{ n: number }>("SELECT count(*) AS n FROM visits").get()!.n;
    hogar.store.db.close();
    const { url, stop } = await serve(folder);
    const ask = async (nth: number): Promise<{ ms: number; offers: number }> => {
      const started = performance.now();
      const response = await fetch(`${url}/api/views/offers`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify({ addressId: addresses[(nth * 37) % addresses.length]!.id, items: [{ serviceId: 1 }] }),
      });
      const answer = (await response.json()) as { ok: boolean; value: { windows: unknown[] } };
      if (!answer.ok) throw new Error(JSON.stringify(answer));
      return { ms: performance.now() - started, offers: answer.value.windows.length };
    };
    const first = await ask(0);
    const samples: number[] = [];
    for (let i = 1; i <= 60; i++) samples.push((await ask(i)).ms);
    console.log(
      `  over HTTP, ${size.technicians} technicians, ${visits.toLocaleString("en")} future visits: p50 ${percentile(samples, 0.5).toFixed(0)} ms, p95 ${percentile(samples, 0.95).toFixed(0)} ms (the first request, which reads all days: ${first.ms.toFixed(0)} ms, ${first.offers} windows)`,
    );
    await stop();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
