import { type Day, type Stop, type Travel, work } from "@/core/routes/timing";

/**
 * The plain, slow way to the same answers as core/routes: one minute after the other, from scratch
 * for every question. It shares no code with the engine but its types, and is what tests and
 * benchmarks hold the engine against.
 */
export function plainDay(day: Day, travel: Travel): { arrive: number; leave: number }[] | null {
  if (day.spans.length === 0) return day.stops.length ? null : [];
  const opens = day.spans[0]![0];
  const closes = day.spans.at(-1)![1];
  const working = (minute: number) => day.spans.some(([open, close]) => open <= minute && minute < close);
  const oneSpan = (from: number, to: number) => day.spans.some(([open, close]) => open <= from && to <= close);
  const walked: { arrive: number; leave: number }[] = [];
  let time = opens;
  let place = day.start;

  const drive = (to: number) => {
    let left = travel(place, to);
    while (left > 0 && time <= closes) {
      if (working(time)) left--;
      time++;
    }
    place = to;
    return left === 0;
  };
  for (const stop of day.stops) {
    if (!drive(stop.place)) return null;
    while (time <= stop.latest && !(time >= stop.earliest && oneSpan(time, time + work(stop)))) time++;
    if (time > stop.latest) return null;
    walked.push({ arrive: time, leave: time + work(stop) });
    time += work(stop);
  }
  if (day.stops.length && (!drive(day.end) || time > closes)) return null;
  return walked;
}

/** Every arrival that works with the stop before the present stop `position`, tried one by one. */
export function plainArrivals(day: Day, position: number, stop: Stop, travel: Travel): number[] {
  const arrivals: number[] = [];
  for (let minute = stop.earliest; minute <= stop.latest; minute++) {
    const at = { ...stop, earliest: minute, latest: minute };
    if (plainDay({ ...day, stops: [...day.stops.slice(0, position), at, ...day.stops.slice(position)] }, travel))
      arrivals.push(minute);
  }
  return arrivals;
}
