import { Bench } from "tinybench";
import { answerWindows, type WindowsQuestion } from "@/core/windows/offers";
import { prepareDay, insertions } from "@/core/routes/insertion";
import type { Day, Stop, Travel } from "@/core/routes/timing";
import { seeded } from "@demo/random";
import { plainArrivals } from "./plain-checker";

/** `npm run bench`: the window engine against the plain checker, as ratios within this one run. */
const random = seeded(1);
const places = 200;
const points = Array.from({ length: places }, () => [random.int(0, 60), random.int(0, 60)] as const);
const travel: Travel = (from, to) => Math.round(Math.hypot(points[from]![0] - points[to]![0], points[from]![1] - points[to]![1]) / 2);

/** A feasible day of `count` stops. */
function randomDay(count: number): Day {
  const stops: Stop[] = [];
  for (let tries = 0; stops.length < count && tries < 500; tries++) {
    const earliest = random.int(0, 480);
    const stop: Stop = { place: random.int(0, places - 1), earliest, latest: earliest + 120, before: 0, minutes: random.int(10, 20), after: 0 };
    const day = prepareDay({ start: 0, end: 0, spans: [[0, 260], [290, 620]], stops }, travel);
    const at = day && insertions(day, stop, travel)[0];
    if (at) stops.splice(at.position, 0, stop);
  }
  return { start: 0, end: 0, spans: [[0, 260], [290, 620]], stops };
}

function question(days: number, technicians: number, stops: number, windows: number): { question: () => WindowsQuestion; plain: (share: number) => number } {
  const dates = Array.from({ length: days }, (_, i) => `2027-03-${String(i + 1).padStart(2, "0")}`);
  const plans = Array.from({ length: technicians }, () => dates.map(() => randomDay(stops)));
  const asked = dates.flatMap((date) => Array.from({ length: windows }, (_, w) => ({ date, from: w * 100, to: w * 100 + 120 })));
  const visit = { place: 7, minutes: 15, before: 0, after: 0, skills: [], crew: 1 };
  return {
    question: () => ({
      now: -10_000, today: "2027-02-28", rules: { notice: 0, furthestDays: 365 }, visit, windows: asked, refusal: () => null, travel,
      technicians: plans.map((plan, t) => ({ id: String(t), skills: [], goesThere: true, day: (date) => ({ works: true as const, load: 0, day: prepareDay(plan[dates.indexOf(date)]!, travel)! }) })),
    }),
    plain(share) {
      let found = 0;
      for (const plan of plans.slice(0, Math.ceil(technicians * share)))
        for (const window of asked) {
          const day = plan[dates.indexOf(window.date)]!;
          for (let k = 0; k <= day.stops.length; k++) found += plainArrivals(day, k, { place: 7, earliest: window.from, latest: window.to, before: 0, minutes: 15, after: 0 }, travel).length;
        }
      return found;
    },
  };
}

async function ms(name: string, run: () => void): Promise<number> {
  const bench = new Bench({ time: 500, warmupTime: 100 });
  bench.add(name, run);
  await bench.run();
  const { result } = bench.tasks[0]!;
  if (!result || !("latency" in result)) throw new Error(`${name} could not be measured`);
  return result.latency.mean;
}

const base = { days: 30, technicians: 100, stops: 10, windows: 5 };
const of = (more: Partial<typeof base> = {}) => {
  const { days, technicians, stops, windows } = { ...base, ...more };
  return question(days, technicians, stops, windows);
};
const whole = of();
const engine = await ms("engine", () => answerWindows(whole.question()));
const share = 0.01;
const started = performance.now();
whole.plain(share);
const plain = (performance.now() - started) / share;
console.log(`30 days × 100 technicians × 10 stops × 5 windows: ${engine.toFixed(1)} ms; the plain checker, from a sample of ${share * 100}%: ${(plain / engine).toFixed(0)} times as long`);
for (const factor of ["technicians", "stops", "windows"] as const) {
  const small = { ...base, [factor]: Math.ceil(base[factor] / 2) };
  const half = await ms("half", ((q) => () => answerWindows(q.question()))(of(small)));
  console.log(`twice the ${factor}: ${(engine / half).toFixed(2)} times as long`);
}
