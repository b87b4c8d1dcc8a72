import { type Minor, moneyWords } from "@/core/money/amounts";
import { epochMinute } from "@/core/time/local";
import type { ViewContext } from "@/kernel/operation";

/** Why the card service would not take a sum now, as the owner has set down what it takes at most; null where it does. */
export function overLimit({ sql, business, today }: ViewContext, minor: Minor): string | null {
  const { card_most_minor: most, card_day_minor: ofDay, currency } = business;
  if (most !== null && minor > most) return `one payment by card is ${moneyWords(most, currency)} at most`;
  if (ofDay === null) return null;
  const { n } = sql<{ n: Minor }>(
    `SELECT coalesce(sum(amount_minor + tip_minor), 0) AS n
      FROM payments WHERE method = 'card' AND asked_at >= ? AND state <> 'declined'`,
  ).get(epochMinute(today, 0, business.time_zone) * 60_000)!;
  return n + minor > ofDay ? `no more than ${moneyWords(ofDay, currency)} is taken by card on one day` : null;
}
