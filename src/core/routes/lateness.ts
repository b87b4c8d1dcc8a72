import { type Day, drive, earliestArrival, openEnded, type Stop, type Travel, work } from "./timing";

/**
 * The day as it will go where it can no longer be kept: each stop that will be late gets a window
 * that ends when it will be reached, and the last span ends when the technician is home. What is
 * late already stands in nobody's way, but nothing new may make it later. A day that can be kept
 * comes back as it is.
 */
export function asLateAsItIs<S extends Stop>(day: Day<S>, travel: Travel): Day<S> {
  const { spans, stops } = day;
  if (spans.length === 0 || stops.length === 0) return day;
  const [lastOpen, close] = spans[spans.length - 1]!;
  const openEnd = openEnded(spans);
  let place = day.start;
  let free = spans[0]![0];
  const later = stops.map((stop) => {
    const arrive = earliestArrival(openEnd, free, travel(place, stop.place), stop);
    free = arrive + work(stop);
    place = stop.place;
    return arrive > stop.latest ? { ...stop, latest: arrive } : stop;
  });
  const home = drive(openEnd, free, travel(place, day.end));
  if (home <= close && later.every((stop, i) => stop === stops[i])) return day;
  return { ...day, spans: [...spans.slice(0, -1), [lastOpen, Math.max(close, home)]], stops: later };
}
