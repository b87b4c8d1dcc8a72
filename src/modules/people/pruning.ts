import { dayMs, endedSessionDays } from "@/core/horizons";
import type { ViewContext } from "@/kernel/operation";

/** Sessions that have ended long ago, by the real clock. Answers how many went. */
export const pruneSessions = ({ sql }: ViewContext, most: number): number =>
  sql("DELETE FROM sessions WHERE id IN (SELECT id FROM sessions WHERE expires_at < ? LIMIT ?)").run(
    Date.now() - endedSessionDays * dayMs,
    most,
  ).changes;
