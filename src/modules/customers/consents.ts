import { type Consent, consentWords } from "@/core/messages/consents";
import { type Channel, channelNames } from "@/core/messages/purposes";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { insertOnce, insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";

/** A line in the history of what a customer has agreed to, with the words as they were shown or said; of one channel, or of all. */
export const noteConsent = (
  { sql, now }: OperationContext,
  customerId: number,
  { kind, given, words, channel }: { kind: Consent; given: boolean; words: string; channel?: Channel },
): number =>
  insertRow(sql, "consents", {
    customer_id: customerId,
    kind,
    given: given ? 1 : 0,
    words,
    at: now,
    ...(channel && { channel }),
  });

/** A customer agrees to reminders or offers, or does not any more. Answers whether that is news. */
export const setAgreed = (
  { sql }: OperationContext,
  customerId: number,
  kind: "reminders" | "offers",
  given: boolean,
): boolean =>
  sql(`UPDATE customers SET ${kind} = @given WHERE id = @customerId AND ${kind} <> @given`).run({
    given: given ? 1 : 0,
    customerId,
  }).changes > 0;

/** Takes down a yes or a no, with the words as they were shown; the same answer again is not written twice. */
export function recordConsent(
  context: OperationContext,
  customerId: number,
  kind: Consent,
  given: boolean,
  takenBack = false,
): void {
  const { sql, business } = context;
  const words = consentWords(business.name)[kind];
  const last = sql<{ given: number; words: string }>(
    "SELECT given, words FROM consents WHERE customer_id = ? AND kind = ? ORDER BY id DESC LIMIT 1",
  ).get(customerId, kind);
  // Somebody who books again without a tick has not taken back what they agreed to before.
  if (last && (last.given === (given ? 1 : 0) || (!given && !takenBack))) return;
  noteConsent(context, customerId, { kind, given, words });
  if (kind !== "card on file") setAgreed(context, customerId, kind, given);
}

interface Wish {
  purpose: "reminders" | "offers";
  channel: Channel;
  wanted: boolean;
}

/** What somebody has agreed to otherwise comes on a channel, or does not; the history says so. */
export function withhold(context: OperationContext, customerId: number, { purpose, channel, wanted }: Wish): void {
  const { sql } = context;
  const changed = wanted
    ? sql("DELETE FROM withheld WHERE customer_id = ? AND purpose = ? AND channel = ?").run(
        customerId,
        purpose,
        channel,
      ).changes > 0
    : insertOnce(sql, "withheld", { customer_id: customerId, purpose, channel }) !== null;
  if (!changed) return;
  const words = `${purpose === "reminders" ? "Reminders" : "Offers"} by ${channelNames[channel]}: ${wanted ? "yes" : "no"}`;
  noteConsent(context, customerId, { kind: purpose, given: wanted, words, channel });
}

/** What a customer does not want on which channel. */
export const withheldOf = (
  { sql }: Pick<ViewContext, "sql">,
  customerId: number,
): Pick<Rows["withheld"], "purpose" | "channel">[] =>
  sql<Pick<Rows["withheld"], "purpose" | "channel">>("SELECT purpose, channel FROM withheld WHERE customer_id = ?").all(
    customerId,
  );
