/**
 * How much room the forecasts of repeats keep from new bookings: all of it, that of every other one
 * (the first of a day keeps its room, the second gives way, and so on), or none.
 */

export type ForecastRoom = "full" | "half" | "none";

/** The stops of a day that keep their room, in their order. */
export function keepingRoom<S extends { forecast: boolean }>(stops: readonly S[], room: ForecastRoom): readonly S[] {
  if (room === "full" || !stops.some((s) => s.forecast)) return stops;
  let nth = 0;
  return stops.filter((stop) => !stop.forecast || (room === "half" && nth++ % 2 === 0));
}
