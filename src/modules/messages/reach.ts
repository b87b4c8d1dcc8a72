import type { Channel } from "@/core/messages/purposes";
import { messageStates } from "@/core/messages/states";
import { isLandline } from "@/core/people/landlines";
import type { LocalDate } from "@/core/time/dates";
import { visitStates } from "@/core/visits/states";
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

/** Visits that are awaited between two days, and whose customers nothing that we send reaches. */
export const unreachable = (context: ViewContext, first: LocalDate, last: LocalDate) =>
  context
    .sql<{ visitId: number; date: LocalDate; customerId: number; name: string; mail: string; phone: string }>(
      // Most are reached by email, and need no closer look.
      `SELECT v.id AS visitId, v.date, c.id AS customerId, c.name, c.mail, c.phone
        FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
        WHERE v.date BETWEEN @first AND @last AND v.state IN ${visitStates.sql("await")}
          AND (c.mail = '' OR EXISTS (SELECT 1 FROM stops WHERE channel = 'mail' AND address = c.mail)
            OR EXISTS (SELECT 1 FROM messages WHERE recipient = c.mail AND state = 'bounced'))
        ORDER BY v.date, v.window_from`,
    )
    .all({ first, last })
    .map(({ mail, phone, ...visit }) => ({ ...visit, phone, ways: reachOf(context, { mail, phone }) }))
    .filter(({ ways }) => ways.every(({ whyNot }) => whyNot !== null));

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
