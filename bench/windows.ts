import { bestInsertion, prepareDay } from "@/core/routes/insertion";
import type { Day, Stop, Travel } from "@/core/routes/timing";
import { addDays } from "@/core/time/dates";
import { answerWindows } from "@/core/windows/offers";
import { type WindowsQuestion } from "@/core/windows/question";
import { seeded } from "@demo/random";
import { run as overHttp } from "./front-door-windows";
import { ms } from "./measure";
import { plainArrivals } from "./plain-checker";

/** The window engine: its time, against the plain checker in the same run, and its growth in each factor. */
const random = seeded(1);
const places = 200;
const points = Array.from({ length: places }, () => [random.int(0, 60), random.int(0, 60)] as const);
const minutes = points.map(([x, y]) => points.map(([u, v]) => Math.round(Math.hypot(x - u, y - v) / 2)));
const travel: Travel = (from, to) => minutes[from]![to]!;
const visit = { place: 7, minutes: 15, before: 0, after: 0, skills: [], crew: 1 };
/** Two spans with a break, long enough for all that is asked. */
const spansFor = (stops: number): [number, number][] => [
  [0, 26 * stops],
  [26 * stops + 30, 62 * stops],
];

/** A feasible day of `count` stops. */
function randomDay(count: number): Day {
  const spans = spansFor(count);
  const close = spans[1]![1];
  const stops: Stop[] = [];
  for (let tries = 0; stops.length < count && tries < 500; tries++) {
    const earliest = random.int(0, close - 140);
    const stop: Stop = {
      place: random.int(0, places - 1),
      earliest,
      latest: earliest + 120,
      before: 0,
      minutes: random.int(10, 20),
      after: 0,
    };
    const day = prepareDay({ start: 0, end: 0, spans, stops }, travel);
    const at = day && bestInsertion(day, stop, travel);
    if (at) stops.splice(at.position, 0, stop);
  }
  return { start: 0, end: 0, spans, stops };
}

interface Size {
  days: number;
  technicians: number;
  stops: number;
  windows: number;
}

/** The plain arrays of a case, and what is asked of them. */
function plainArrays({ days, technicians, stops, windows }: Size) {
  const dates = Array.from({ length: days }, (_, i) => addDays("2027-03-01", i));
  // Stops are drawn for a hundred technician-days and used in turn: drawing takes longer than answering.
  const drawn = Array.from({ length: 100 }, () => randomDay(stops));
  const plans = Array.from(
    { length: technicians },
    (_, t) => new Map(dates.map((date, d) => [date, drawn[(t * 31 + d) % drawn.length]!])),
  );
  const step = (62 * stops) / windows;
  const asked = dates.flatMap((date) =>
    Array.from({ length: windows }, (_, w) => ({
      date,
      from: Math.round(w * step * 0.8),
      to: Math.round(w * step * 0.8) + 120,
    })),
  );
  return { plans, asked };
}

function question({ plans, asked }: ReturnType<typeof plainArrays>): WindowsQuestion {
  return {
    now: -10_000,
    today: "2027-02-28",
    rules: { notice: 0, furthestDays: 3650, capacity: { mode: "route" }, limits: [] },
    visit,
    windows: asked,
    refusal: () => [],
    travel,
    technicians: plans.map((plan, t) => ({
      id: String(t),
      skills: [],
      day: (date) => {
        const day = prepareDay(plan.get(date)!, travel);
        return day ? { works: true, load: 0, day } : { works: false, code: "day-not-feasible" };
      },
    })),
  };
}

/** The same answers from the plain checker, for every `nth` technician: how many windows somebody can keep. */
function plainly({ plans, asked }: ReturnType<typeof plainArrays>, nth: number): number {
  let found = 0;
  for (const plan of plans.filter((_, t) => t % nth === 0))
    for (const window of asked) {
      const day = plan.get(window.date)!;
      for (let k = 0; k <= day.stops.length; k++)
        found += plainArrivals(
          day,
          k,
          { place: visit.place, earliest: window.from, latest: window.to, before: 0, minutes: visit.minutes, after: 0 },
          travel,
        ).length;
    }
  return found;
}

export async function run(): Promise<void> {
  const base: Size = { days: 30, technicians: 100, stops: 10, windows: 5 };
  const arrays = plainArrays(base);
  const engine = await ms("engine", () => answerWindows(question(arrays)));
  const nth = 50;
  const started = performance.now();
  plainly(arrays, nth);
  const plain = (performance.now() - started) * nth;
  const answers = answerWindows(question(arrays));
  console.log(
    `  30 days × 100 technicians × 10 stops × 5 windows, from plain arrays: ${engine.toFixed(1)} ms (${answers.filter((a) => a.offered).length} of ${answers.length} windows offered)`,
  );
  console.log(
    `  the plain checker, from every ${nth}th technician in the same run: ${(plain / engine).toFixed(0)} times as long`,
  );
  const small: Size = { days: 15, technicians: 50, stops: 5, windows: 5 };
  for (const factor of Object.keys(small) as (keyof Size)[]) {
    const times: number[] = [];
    for (const times1 of [1, 2, 4]) {
      const some = plainArrays({ ...small, [factor]: small[factor] * times1 });
      times.push(await ms(factor, () => answerWindows(question(some))));
    }
    console.log(
      `  ${factor} at 1×, 2×, 4×: ${times.map((t) => `${(t / times[0]!).toFixed(2)}`).join(", ")} times as long`,
    );
  }
  await overHttp();
}
