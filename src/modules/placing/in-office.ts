import { type VisitRow } from "./visits";
import { type AskOptions } from "./windows";

export const windowOf = (visit: VisitRow) => ({ date: visit.date, from: visit.window_from, to: visit.window_to });

/** A person in the office is not bound by the booking rules; forecasts do not push one another aside. */
export const inOffice = (visit: VisitRow): AskOptions => ({
  strict: false,
  ...(visit.state === "forecast" && { forecasts: "full" }),
});
