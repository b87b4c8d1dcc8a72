import { dayMs } from "@/core/horizons";
import { allOccasions, kindOf } from "@/core/messages/occasions";
import { messageStates } from "@/core/messages/states";
import { addDays } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";
import { channelsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { unreachable, whyNotWords } from "./reach";
import { askedToConfirm } from "./reminders";

const mostShown = 10;
/** So long a message that was lost is worth a person's while. */
const lostDays = 14;

const called = (kind: string): string => {
  const occasion = allOccasions.find((one) => one === kind);
  return occasion ? kindOf(occasion).name : "Written by hand";
};

/** Messages that went no way: the newest first. What has been said since on another way is not lost. */
const lostMessages = ({ sql, now }: ViewContext): NeedsPerson[] =>
  sql<
    Pick<Rows["messages"], "id" | "kind" | "state" | "recipient" | "problem" | "channels_left"> & {
      name: string;
      customerId: number | null;
      phone: string;
    }
  >(
    `SELECT m.id, m.kind, m.state, m.recipient, m.problem, m.channels_left, m.customer_id AS customerId,
        coalesce(c.name, m.recipient) AS name, coalesce(c.phone, '') AS phone
      FROM messages m LEFT JOIN customers c ON c.id = m.customer_id
      WHERE m.state IN ('failed', 'not known') AND m.settled_at IS NULL AND m.written_at > @since
        AND NOT EXISTS (SELECT 1 FROM messages n WHERE n.id > m.id AND n.kind = m.kind AND n.customer_id IS m.customer_id
          AND n.visit_id IS m.visit_id AND n.invoice_id IS m.invoice_id AND n.state NOT IN ${messageStates.sql("lost")})
      ORDER BY m.id DESC LIMIT @most`,
  )
    .all({ since: now - lostDays * dayMs, most: mostShown })
    .map((m) => ({
      kind: "stuck",
      words:
        m.state === "not known"
          ? `Nobody can say whether ${m.name} got our message: ${called(m.kind)}`
          : `${m.name} has not got our message: ${called(m.kind)}`,
      detail: [m.recipient, m.problem, m.phone && m.phone !== m.recipient && `Phone ${m.phone}`]
        .filter(Boolean)
        .join(" · "),
      href: m.customerId === null ? "/messages" : `/customers/${m.customerId}`,
      lost: { messageId: m.id, next: channelsColumn.read(m.channels_left)[0] ?? null },
    }));

/** Visits of today and the next two days whose customers we cannot reach in any way. */
const notReached = (context: ViewContext): NeedsPerson[] => {
  const visits = unreachable(context, context.today, addDays(context.today, 2));
  // The first visit of each stands for the others.
  return [...new Map(visits.toReversed().map((visit) => [visit.customerId, visit])).values()]
    .reverse()
    .slice(0, 12)
    .map(({ date, customerId, name, phone, ways }) => {
      const why = ways.filter(({ whyNot }) => whyNot !== "no address" && whyNot !== "not connected");
      return {
        kind: "unreachable",
        words: `${name} cannot be reached before the visit on ${dayWords(date)}`,
        detail: [
          ...new Set(why.map(({ address, whyNot }) => `${address}: ${whyNotWords[whyNot!]}`)),
          phone ? `Phone ${phone}` : "No phone number and no email address",
        ].join(" · "),
        href: `/customers/${customerId}`,
        date,
      };
    });
};

/** Addresses that are not right: as long as it is still the one that we have, and nothing has arrived there since. */
const bounced = ({ sql }: ViewContext): NeedsPerson[] =>
  sql<{ name: string; customer_id: number; recipient: string; other: string }>(
    `SELECT c.id AS customer_id, c.name, m.recipient, iif(m.channel = 'mail', c.phone, c.mail) AS other
      FROM messages m JOIN customers c ON c.id = m.customer_id
      WHERE m.state = 'bounced' AND m.recipient IN (c.mail, c.phone)
        AND NOT EXISTS (SELECT 1 FROM messages d WHERE d.recipient = m.recipient AND d.state IN ${messageStates.sql("arrived")} AND d.id > m.id)
      GROUP BY c.id ORDER BY max(m.id) DESC LIMIT 5`,
  )
    .all()
    .map((b) => ({
      kind: "bounced",
      words: `${b.recipient} of ${b.name} is not right: what we wrote has bounced`,
      detail: b.other ? `Ask them for another one: ${b.other}` : "Ask them for another one when you see them",
      href: `/customers/${b.customer_id}`,
    }));

/** Who was asked to confirm tomorrow's visit, and has not. */
function unconfirmed({ sql, today }: ViewContext): NeedsPerson[] {
  const tomorrow = addDays(today, 1);
  const { n, names } = sql<{ n: number; names: string | null }>(
    `SELECT count(*) AS n, group_concat(name, ', ') AS names FROM (
      SELECT c.name FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
        WHERE v.date = ? AND v.state = 'promised' AND v.confirmed_at IS NULL AND ${askedToConfirm("v")} ORDER BY v.window_from)`,
  ).get(tomorrow)!;
  if (n === 0) return [];
  const some = names!.split(", ").slice(0, 5).join(", ");
  return [
    {
      kind: "unconfirmed",
      words:
        n === 1 ? `${names} has not confirmed tomorrow’s visit` : `${n} customers have not confirmed tomorrow’s visits`,
      detail: n === 1 ? "They were asked: call them" : `${some}${n > 5 ? " and others" : ""} were asked`,
      href: `/board?date=${tomorrow}`,
      n,
    },
  ];
}

/** Whoever wrote of danger stands there until somebody has answered, whether it is put off or not. */
const inDanger = ({ sql }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; name: string; words: string }>(
    `SELECT t.id, coalesce(c.name, nullif(t.name, ''), nullif(t.phone, ''), t.mail) AS name, r.body AS words
      FROM threads t JOIN replies r ON r.id = (SELECT max(id) FROM replies
          WHERE thread_id = t.id AND received_at >= t.waiting_since AND understood LIKE '%"danger"%')
        LEFT JOIN customers c ON c.id = t.customer_id
      WHERE t.waiting_since IS NOT NULL ORDER BY r.received_at DESC LIMIT 12`,
  )
    .all()
    .map(({ id, name, words }) => ({
      kind: "danger",
      words: `${name} writes of danger: “${words.slice(0, 120)}”`,
      detail: "Call them now",
      href: `/messages?open=${id}`,
    }));

/** Conversations that wait for an answer. */
function unanswered({ sql, now }: ViewContext): NeedsPerson[] {
  const { n, name, words } = sql<{ n: number; oldest: number; name: string; words: string }>(
    `SELECT count(*) AS n, min(t.waiting_since) AS oldest, coalesce(c.name, nullif(t.name, ''), nullif(t.phone, ''), t.mail) AS name, t.last_words AS words
      FROM threads t LEFT JOIN customers c ON c.id = t.customer_id
      WHERE t.waiting_since IS NOT NULL AND (t.snoozed_until IS NULL OR t.snoozed_until <= ?)`,
  ).get(now)!;
  if (n === 0) return [];
  return [
    {
      kind: "reply",
      words: n === 1 ? `${name} writes: “${words.slice(0, 120)}”` : `${n} conversations wait for an answer`,
      detail: n === 1 ? "Waits for an answer" : `The longest: ${name}, “${words.slice(0, 80)}”`,
      href: "/messages",
    },
  ];
}

export const messageNeeds: readonly Needs[] = [
  inDanger,
  lostMessages,
  notReached,
  bounced,
  unconfirmed,
  unanswered,
].map((read) => ({ may: "office.see", read }));
