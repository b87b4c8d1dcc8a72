import { type Channel, channelNames } from "@/core/messages/purposes";
import type { OperationContext } from "@/kernel/operation";
import { insertOnce, insertRow } from "@/store/insert";

interface Wish {
  purpose: "reminders" | "offers";
  channel: Channel;
  wanted: boolean;
}

/** What somebody has agreed to otherwise comes on a channel, or does not; the history says so. */
export function withhold(context: OperationContext, customerId: number, { purpose, channel, wanted }: Wish): void {
  const { sql, now } = context;
  const changed = wanted
    ? sql("DELETE FROM withheld WHERE customer_id = ? AND purpose = ? AND channel = ?").run(
        customerId,
        purpose,
        channel,
      ).changes > 0
    : insertOnce(sql, "withheld", { customer_id: customerId, purpose, channel }) !== null;
  if (!changed) return;
  const words = `${purpose === "reminders" ? "Reminders" : "Offers"} by ${channelNames[channel]}: ${wanted ? "yes" : "no"}`;
  insertRow(sql, "consents", {
    customer_id: customerId,
    kind: purpose,
    given: wanted ? 1 : 0,
    words,
    at: now,
    channel,
  });
}
