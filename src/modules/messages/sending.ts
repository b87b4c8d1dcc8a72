import { allOccasions, kindOf, type Occasion, occasions } from "@/core/messages/occasions";
import { channelsOff } from "@/core/messages/purposes";
import { type AtSending, type Verdict, verdictOf } from "@/core/messages/sending";
import { epochMinute, localOf } from "@/core/time/local";
import { visitStates } from "@/core/visits/states";
import type { ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";
import { settingsOf } from "./settings";
import { withheldOf } from "@/modules/customers/consents";

type MessageRow = Rows["messages"];

/** What becomes of a message that waits, at this moment: consent, STOP, hours and what it speaks of are looked at as they are now. */
export const whetherToSend = (context: ViewContext, message: MessageRow): Verdict =>
  message.kind in occasions ? verdictOf(factsOf(context, message, message.kind as Occasion)) : byHand(context, message);

/** What a person of the office has written goes out as it is, unless its reader has ended the channel. */
const byHand = (context: ViewContext, message: MessageRow): Verdict =>
  isStopped(context, message) ? { next: "they have ended it on this channel" } : { goes: true };

/** Answers to STOP, START and HELP themselves. */
const answersToStop = new Set<string>(["stopped", "started", "help"]);

function factsOf(context: ViewContext, message: MessageRow, occasion: Occasion): AtSending {
  const { business, minute } = context;
  const { purpose, ofPromise, ofDebt, urgent } = kindOf(occasion);
  return {
    purpose: message.at_any_hour && purpose === "service" ? "answer" : purpose,
    channel: message.channel,
    now: minute,
    zone: zoneOf(context, message.customer_id) ?? business.time_zone,
    // What a person has sent off waits for no hour and no other day.
    hours: message.at_any_hour ? { from: 0, to: 1440 } : { from: business.message_from, to: business.message_to },
    outside: settingsOf(context, occasion).outside,
    uselessFrom: purpose === "reminders" ? message.window_from : null,
    stale:
      (ofPromise ? stalePromise(context, message, occasion) : null) ??
      (ofDebt ? paidMeanwhile(context, message) : null) ??
      (message.invite_id === null ? null : staleOffer(context, message.invite_id)),
    agreed: isAgreed(context, message, purpose),
    stopped: !answersToStop.has(occasion) && isStopped(context, message),
    knownBy: urgent ? knownBy(context, message) : null,
    sentToday: sentToday(context, message),
    mostADay: message.at_any_hour ? Infinity : business.most_messages,
  };
}

/** By when a change of a visit has to be known: the owner's time before it, or before the window that it had. */
function knownBy({ sql, business }: ViewContext, message: MessageRow): number | null {
  const { before } = sql<{ before: number | null }>(
    "SELECT min(window_from) AS before FROM promises WHERE visit_id = ? AND ended_at >= ?",
  ).get(message.visit_id, message.written_at)!;
  const begins = [message.window_from, before].filter((moment) => moment !== null);
  return begins.length ? Math.min(...begins) - business.urgent_minutes : null;
}

/** The clock by which a customer lives, where that is another one than ours. */
export const zoneOf = ({ sql }: Pick<ViewContext, "sql">, customerId: number | null): string | null =>
  customerId === null
    ? null
    : (sql<{ zone: string | null }>("SELECT time_zone AS zone FROM customers WHERE id = ?").get(customerId)?.zone ??
      null);

/** Why what it says of a visit does not hold any more. */
function stalePromise({ sql }: ViewContext, message: MessageRow, occasion: Occasion): string | null {
  if (message.visit_id === null) return null;
  const visit = sql<Pick<Rows["visits"], "state" | "window_from" | "confirmed_at">>(
    "SELECT state, window_from, confirmed_at FROM visits WHERE id = ?",
  ).get(message.visit_id);
  if (!visit || visit.state === "cancelled") return "the visit was cancelled";
  if (message.window_from !== null && visit.window_from !== message.window_from) return "the visit was moved";
  if (!visitStates.allows("expect", visit.state)) return "the visit is over";
  if (occasion === "please confirm" && visit.confirmed_at !== null) return "they have confirmed";
  return null;
}

const paidMeanwhile = ({ sql }: ViewContext, { invoice_id }: MessageRow): string | null => {
  if (invoice_id === null) return null;
  const { open } = sql<{ open: number }>("SELECT open_minor AS open FROM invoice_balances WHERE invoice_id = ?").get(
    invoice_id,
  ) ?? { open: 0 };
  return open > 0 ? null : "it was paid";
};

/** Why nobody is invited any more: they have booked, or its days are over. */
function staleOffer({ sql, today }: ViewContext, inviteId: number): string | null {
  const offer = sql<{ job_id: number | null; last_date: string }>(
    "SELECT i.job_id, c.last_date FROM campaign_invites i JOIN campaigns c ON c.id = i.campaign_id WHERE i.id = ?",
  ).get(inviteId)!;
  if (offer.job_id !== null) return "they have booked";
  return offer.last_date <= today ? "its days are over" : null;
}

/** Whether its reader has agreed to what needs their consent, and on this channel. */
function isAgreed({ sql }: ViewContext, message: MessageRow, purpose: AtSending["purpose"]): boolean {
  if ((purpose !== "reminders" && purpose !== "offers") || message.customer_id === null) return true;
  const given = sql<{ given: number }>(
    `SELECT coalesce((SELECT ${purpose} FROM jobs WHERE id = @jobId), ${purpose}) AS given FROM customers WHERE id = @customerId`,
  ).get({ customerId: message.customer_id, jobId: purpose === "reminders" ? message.job_id : null });
  return given?.given === 1 && !channelsOff(withheldOf({ sql }, message.customer_id), purpose).has(message.channel);
}

const isStopped = ({ sql }: ViewContext, { channel, recipient }: MessageRow): boolean =>
  sql("SELECT 1 FROM stops WHERE channel = ? AND address = ?").get(channel, recipient) !== undefined;

/** What has to be known in time is not counted. */
const urgentKinds = JSON.stringify(allOccasions.filter((occasion) => kindOf(occasion).urgent));

/** Messages of our own accord that have gone to the same customer since midnight. */
function sentToday({ sql, business, minute }: ViewContext, { customer_id, id }: MessageRow): number {
  if (customer_id === null) return 0;
  const midnight = epochMinute(localOf(minute, business.time_zone).date, 0, business.time_zone) * 60_000;
  return sql<{ n: number }>(
    `SELECT count(DISTINCT kind || coalesce(visit_id, '') || coalesce(invoice_id, '')) AS n FROM messages
      WHERE customer_id = ? AND written_at >= ? AND sent_at >= ? AND at_any_hour = 0 AND id <> ?
        AND kind NOT IN (SELECT value FROM json_each(?))`,
  ).get(customer_id, midnight - 7 * 86_400_000, midnight, id, urgentKinds)!.n;
}
