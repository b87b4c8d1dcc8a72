import { inTwoPlaces } from "@demo/two-places";
import Database from "better-sqlite3";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { makeBusiness, serve } from "./full-business";
import { percentile } from "./measure";

const size = { technicians: 12, days: 30, stopsADay: 4 };
const [seconds, lookUpsASecond, bookingsASecond] = [20, 50, 5];

/**
 * The front door under load: so many look-ups of windows and so many bookings a second, sent whether or
 * not the ones before have been answered; then the data is looked at. Fails where a request went wrong,
 * or where anybody is in two places.
 */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const hogar = makeBusiness(folder, size);
    const addresses = hogar.town!.addresses.filter((a) => /^MW [13]/.test(a.postcode));
    hogar.store.db.close();
    const { url, stop } = await serve(folder);
    const post = async <T>(
      at: string,
      body: object,
    ): Promise<{ ok: true; value: T } | { ok: false; problem: { code: string } }> => {
      const response = await fetch(`${url}/api/${at}`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: JSON.stringify(body),
      });
      return response.json();
    };
    const order = (nth: number) => ({
      addressId: addresses[(nth * 37) % addresses.length]!.id,
      items: [{ serviceId: 1 }],
    });
    const offersFor = async (nth: number) => {
      const result = await post<{ windows: { date: string; from: number; to: number }[] }>("views/offers", order(nth));
      if (!result.ok) throw new Error(result.problem.code);
      return result.value.windows;
    };
    const book = async (nth: number): Promise<"booked" | "somebody was faster"> => {
      const offers = await offersFor(nth);
      const { date, from, to } = offers[nth % Math.min(offers.length, 9)]!;
      const window = { ...order(nth), date, from, to };
      const hold = await post<{ key: string }>("operations/hold-offer", window);
      if (!hold.ok && hold.problem.code === "window-gone") return "somebody was faster";
      if (!hold.ok) throw new Error(hold.problem.code);
      const result = await post<{ link: string }>("operations/book", {
        ...window,
        hold: hold.value.key,
        note: "",
        customer: {
          name: `Customer ${nth}`,
          mail: `customer${nth}@example.com`,
          phone: "+1 555 0142",
          reminders: false,
        },
      });
      if (!result.ok) throw new Error(result.problem.code);
      return "booked";
    };
    await offersFor(0);

    const times = { lookUps: [] as number[], bookings: [] as number[] };
    const trouble: string[] = [];
    let booked = 0;
    const timed = async (into: number[], what: () => Promise<unknown>) => {
      const started = performance.now();
      try {
        if ((await what()) === "booked") booked++;
        into.push(performance.now() - started);
      } catch (error) {
        trouble.push(String(error));
      }
    };
    const under: Promise<void>[] = [];
    const started = performance.now();
    await new Promise<void>((resolve) => {
      let [looked, ordered] = [0, 0];
      const timer = setInterval(() => {
        const passed = (performance.now() - started) / 1000;
        while (looked < Math.min(passed, seconds) * lookUpsASecond)
          under.push(timed(times.lookUps, () => offersFor(++looked)));
        while (ordered < Math.min(passed, seconds) * bookingsASecond)
          under.push(timed(times.bookings, () => book(++ordered)));
        if (passed < seconds) return;
        clearInterval(timer);
        resolve();
      }, 10);
    });
    await Promise.all(under);
    const lasted = (performance.now() - started) / 1000;
    await stop();

    const db = new Database(path.join(folder, "hogar.sqlite"), { readonly: true });
    const one = <Row>(query: string) => db.prepare<[], Row>(query).get()!;
    const { jobs, visits, twice } = one<{ jobs: number; visits: number; twice: number }>(
      `SELECT (SELECT count(*) FROM jobs WHERE booked_by = 'front door') AS jobs, (SELECT count(*) FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.booked_by = 'front door' AND v.state = 'promised') AS visits,
       (SELECT count(*) FROM (${inTwoPlaces})) AS twice`,
    );
    db.close();
    console.log(
      `  ${size.technicians} technicians, ${seconds} s: ${(times.lookUps.length / lasted).toFixed(1)} look-ups and ${(times.bookings.length / lasted).toFixed(1)} bookings a second answered (${lookUpsASecond} and ${bookingsASecond} sent)`,
    );
    console.log(
      `  look-ups: p50 ${percentile(times.lookUps, 0.5).toFixed(0)} ms, p95 ${percentile(times.lookUps, 0.95).toFixed(0)} ms; bookings of three requests: p95 ${percentile(times.bookings, 0.95).toFixed(0)} ms; last answer ${(lasted - seconds).toFixed(1)} s after the last request`,
    );
    console.log(
      `  ${booked} booked, ${jobs} jobs with ${visits} visits, ${twice} in two places, ${trouble.length} errors`,
    );
    if (trouble.length || twice || jobs !== booked || visits !== booked)
      throw new Error(`The front door did not hold: ${[...new Set(trouble)].join(", ")}`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
