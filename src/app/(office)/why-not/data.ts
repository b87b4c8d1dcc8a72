import type { ViewOutput } from "@/api/client";
import { dayShort } from "@/core/time/words";

export type Explained = ViewOutput<"why-not">;

export const followingDays = (days: readonly string[]): string =>
  days.length ? `goes on ${days.map(dayShort).join(", ")}` : "";
