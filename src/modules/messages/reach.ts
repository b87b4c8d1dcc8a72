import type { Channel } from "@/core/messages/purposes";
import { messageStates } from "@/core/messages/states";
import { isLandline } from "@/core/people/landlines";
import type { ViewContext } from "@/kernel/operation";

/** Why somebody is not reached on a channel; null where they are, as far as anybody knows. */
export type WhyNot = "no address" | "not connected" | "stopped" | "bounced" | "landline";

export const whyNotWords: Record<WhyNot, string> = {
  "no address": "we have no address of theirs",
  "not connected": "nothing can be sent this way yet: see Set-up, Messages",
  stopped: "they have said that they want nothing on this way",
  bounced: "what we wrote last has not arrived",
  landline: "this is a landline: call them",
};

/** How somebody is reached on each channel, as things stand. */
export const reachOf = (
  context: ViewContext,
  { mail, phone }: { mail: string; phone: string },
): { channel: Channel; address: string; whyNot: WhyNot | null }[] =>
  (["mail", "text", "voice"] as const).map((channel) => {
    const address = channel === "mail" ? mail : phone;
    return { channel, address, whyNot: whyNot(context, channel, address) };
  });

function whyNot({ sql, hogar }: ViewContext, channel: Channel, address: string): WhyNot | null {
  if (!address) return "no address";
  if (!hogar.gateways[channel]) return "not connected";
  if (channel === "text" && isLandline(address)) return "landline";
  if (sql("SELECT 1 FROM stops WHERE channel = ? AND address = ?").get(channel, address)) return "stopped";
  const last = sql<{ bounced: 0 | 1 }>(
    `SELECT state = 'bounced' AS bounced FROM messages
      WHERE recipient = ? AND channel = ? AND (state = 'bounced' OR state IN ${messageStates.sql("gone")})
      ORDER BY written_at DESC, id DESC LIMIT 1`,
  ).get(address, channel);
  return last?.bounced === 1 ? "bounced" : null;
}
