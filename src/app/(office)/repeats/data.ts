import type { ViewInput, ViewOutput } from "@/api/client";
import type { OnClosed } from "@/core/repeats/coming";

/** What the sheet of a repeat reads. */
export type RepeatDetails = ViewOutput<"repeat">;

export type Outlooked = ViewOutput<"repeats-outlook">;
export type Which = Pick<ViewInput<"repeats">, "show" | "serviceId" | "zoneId" | "technicianId">;

/** Which repeats the list begins with. */
export const everyOne = { show: "all", serviceId: null, zoneId: null, technicianId: null } as const;

export const closedWords: Record<OnClosed, string> = {
  nearest: "the nearest day",
  later: "the next day somebody comes",
  earlier: "the day before on which somebody comes",
  skip: "left out",
  ask: "waits for us to settle it",
};
