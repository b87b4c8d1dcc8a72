import { inTwoPlaces } from "@demo/two-places";
import Database from "better-sqlite3";
import { mkdtempSync, rmSync } from "node:fs";
import { Agent, request } from "node:http";
import { tmpdir } from "node:os";
import path from "node:path";
import { makeBusiness, serve } from "./full-business";
import { percentile } from "./measure";

const size = { technicians: 12, days: 30, stopsADay: 4 };
/** Look-ups a second that are sent, with a tenth as many bookings: more and more until no more are answered. */
const rates = [50, 100, 150, 200, 250, 300];
const [seconds, bookingsPerLookUp] = [8, 0.1];

interface Answer {
  status: number;
  middle: string | undefined;
  body: { ok: boolean; value: never; problem?: { code: string } };
  ms: number;
}

/** What came of sending so much for some seconds. */
interface Outcome {
  asked: number;
  /** Look-ups and bookings that were answered, in a second. */
  answered: number;
  booked: number;
  lookUps: number[];
  refusals: number[];
  trouble: string[];
}

/**
 * The front door under load: look-ups of windows and bookings, sent whether or not the ones before have been answered, by many
 * customers from many addresses. Prints how much is answered at the most, and what happens when three times as much is asked;
 * then the data is looked at. Fails where a request broke off, or where anybody is in two places.
 */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const hogar = makeBusiness(folder, size);
    hogar.store.db
      .transaction(() =>
        hogar.store.audit.under({ at: 1, actor: "bench", operation: "bench" }, () =>
          hogar.store
            .sql("UPDATE business SET unproved_each = 10000, unproved_percent = 100, unproved_a_day = 10000")
            .run(),
        ),
      )
      .immediate();
    const addresses = hogar.town!.addresses.filter((a) => /^MW [13]/.test(a.postcode)).map(({ id }) => id);
    hogar.store.db.close();
    const { url, stop } = await serve(folder);
    const customers = customersOf(url, addresses);
    let best: { rate: number; outcome: Outcome } | null = null;
    const troubles: string[] = [];
    let booked = 0;
    const note = ({ trouble, booked: more }: Outcome) => {
      troubles.push(...trouble);
      booked += more;
    };
    note(await customers.load(20, 2));
    for (const rate of rates) {
      const outcome = await customers.load(rate, seconds);
      note(outcome);
      console.log(`  ${wordsOf(rate, outcome)}`);
      if (best && outcome.answered < best.outcome.answered * 1.05) break;
      best = { rate, outcome };
    }
    const over = await customers.load(best!.rate * 3, seconds);
    note(over);
    console.log(`  three times the best: ${wordsOf(best!.rate * 3, over)}`);
    console.log(
      `  answered at three times: ${((100 * over.answered) / best!.outcome.answered).toFixed(0)}% of the best; refusals p95 ${over.refusals.length ? percentile(over.refusals, 0.95).toFixed(0) : "–"} ms`,
    );
    await stop();
    const db = new Database(path.join(folder, "hogar.sqlite"), { readonly: true });
    const { jobs, twice } = db
      .prepare<[], { jobs: number; twice: number }>(
        `SELECT (SELECT count(*) FROM jobs WHERE booked_by = 'front door') AS jobs, (SELECT count(*) FROM (${inTwoPlaces})) AS twice`,
      )
      .get()!;
    db.close();
    console.log(`  ${jobs} jobs, ${twice} in two places, ${troubles.length} errors`);
    if (troubles.length || twice || jobs !== booked)
      throw new Error(`The front door did not hold: ${[...new Set(troubles)].slice(0, 5).join(", ")}`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const wordsOf = (rate: number, { answered, lookUps, refusals, booked, trouble }: Outcome): string =>
  `${rate} look-ups and ${rate * bookingsPerLookUp} bookings a second asked: ${answered.toFixed(0)} answered a second (${booked} booked), p50 ${percentile(lookUps, 0.5).toFixed(0)} ms, p95 ${percentile(lookUps, 0.95).toFixed(0)} ms; ${refusals.length} told to come again, ${trouble.length} errors`;

/** Customers without browsers: each from an address of their own, with a connection that stays. */
function customersOf(url: string, addresses: readonly string[]) {
  const agent = new Agent({ keepAlive: true, maxSockets: 2_000 });
  let nth = 0;
  const post = (at: string, body: object, who: number, middle?: string): Promise<Answer> =>
    new Promise((resolve, reject) => {
      const started = performance.now();
      const asked = request(
        `${url}/api/${at}`,
        {
          method: "POST",
          agent,
          headers: {
            "content-type": "application/json",
            "x-forwarded-for": `10.${(who >> 16) & 255}.${(who >> 8) & 255}.${who & 255}`,
            ...(middle && { "x-hogar-middle": middle }),
          },
        },
        (response) => {
          let text = "";
          response.on("data", (part) => (text += String(part)));
          response.on("end", () =>
            resolve({
              status: response.statusCode!,
              middle: response.headers["x-hogar-middle"] as string | undefined,
              body: JSON.parse(text) as Answer["body"],
              ms: performance.now() - started,
            }),
          );
        },
      );
      asked.once("error", reject);
      asked.end(JSON.stringify(body));
    });
  const order = (who: number) => ({ addressId: addresses[(who * 37) % addresses.length]!, items: [{ serviceId: 1 }] });

  return {
    async load(lookUpsASecond: number, forSeconds: number): Promise<Outcome> {
      const outcome: Outcome = { asked: 0, answered: 0, booked: 0, lookUps: [], refusals: [], trouble: [] };
      let done = 0;
      const ask = async (who: number, at: string, body: object, middle?: string): Promise<Answer | null> => {
        const answer = await post(at, body, who, middle);
        if (answer.status === 503) {
          outcome.refusals.push(answer.ms);
          return null;
        }
        return answer;
      };
      const lookUp = async (who: number) => {
        const answer = await ask(who, "views/offers", order(who));
        if (!answer) return;
        outcome.lookUps.push(answer.ms);
        done++;
      };
      const book = async (who: number) => {
        const seen = await ask(who, "views/offers", order(who));
        if (!seen) return;
        const { windows } = (
          seen.body as unknown as { value: { windows: { date: string; from: number; to: number }[] } }
        ).value;
        if (windows.length === 0) return void done++;
        const { date, from, to } = windows[who % Math.min(windows.length, 9)]!;
        const window = { ...order(who), date, from, to };
        const hold = await ask(who, "operations/hold-offer", window, seen.middle);
        if (!hold?.body.ok) return void (hold && done++);
        const customer = {
          name: `Customer ${who}`,
          mail: `customer${who}@example.com`,
          phone: `+1 202 555 ${String(who % 10_000).padStart(4, "0")}`,
          reminders: false,
        };
        const { key } = (hold.body as unknown as { value: { key: string } }).value;
        const booked = await ask(who, "operations/book", { ...window, hold: key, note: "", customer }, seen.middle);
        if (booked?.body.ok) outcome.booked++;
        if (booked) done++;
      };
      const under: Promise<void>[] = [];
      const begin = (what: (who: number) => Promise<void>) => {
        outcome.asked++;
        under.push(what(nth++).catch((error: unknown) => void outcome.trouble.push(String(error))));
      };
      const started = performance.now();
      await new Promise<void>((resolve) => {
        let [looked, ordered] = [0, 0];
        const timer = setInterval(() => {
          const passed = (performance.now() - started) / 1000;
          while (looked < Math.min(passed, forSeconds) * lookUpsASecond) {
            looked++;
            begin(lookUp);
          }
          while (ordered < Math.min(passed, forSeconds) * lookUpsASecond * bookingsPerLookUp) {
            ordered++;
            begin(book);
          }
          if (passed < forSeconds) return;
          clearInterval(timer);
          resolve();
        }, 10);
      });
      await Promise.all(under);
      outcome.answered = done / ((performance.now() - started) / 1000);
      return outcome;
    },
  };
}
