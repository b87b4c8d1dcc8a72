import { allOccasions, kindOf } from "@/core/messages/occasions";
import { messageStates } from "@/core/messages/states";
import { moneyWords } from "@/core/money/amounts";
import { paymentStates } from "@/core/money/states";
import { dayMs } from "@/core/horizons";
import { may } from "@/core/people/permissions";
import { addDays } from "@/core/time/dates";
import { momentIn } from "@/core/time/local-words";
import { dayWords } from "@/core/time/words";
import type { ViewContext } from "@/kernel/operation";
import { unreachable, whyNotWords } from "@/modules/messages/reach";
import { channelsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import type { NeedsPerson } from "./needs";

const mostShown = 10;
/** So long a message that was lost is worth a person's while. */
const lostDays = 14;

/** What did not happen outside, or by itself: each with what a person can do about it. */
export const stuckNeeds = (context: ViewContext): NeedsPerson[] => [
  ...failingLanes(context),
  ...lostMessages(context),
  ...notReached(context),
  ...(may(context.actor, "money.change") ? unknownCharges(context) : []),
  ...failedWork(context),
  ...givenUp(context),
];

const lanes: Record<string, string> = {
  mail: "Emails do not go out",
  text: "Texts do not go out",
  voice: "Calls do not go out",
  cards: "The card service does not answer",
  rest: "Something is not done by itself",
};

const failingLanes = ({ sql, business }: ViewContext): NeedsPerson[] =>
  sql<Rows["lanes"]>("SELECT * FROM lanes WHERE paused_until > 0 ORDER BY failing_since")
    .all()
    .map(({ lane, failing_since, problem }) => ({
      kind: "trouble",
      words: `${lanes[lane]} since ${momentIn(failing_since, business.time_zone)}`,
      detail: `${problem}. It is tried again by itself, and nothing is lost meanwhile.`,
      href: lane === "cards" ? "/setup/payments" : "/setup/messages",
    }));

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

/** Charges of which the card service has said nothing for a day: a person looks there, and says how it was. */
const unknownCharges = ({ sql, now, business }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; name: string; minor: number; customerId: number; at: number }>(
    `SELECT p.id, c.name, p.amount_minor + p.tip_minor AS minor, c.id AS customerId, p.asked_at AS at
      FROM payments p JOIN customers c ON c.id = p.customer_id
      WHERE p.method = 'card' AND p.state IN ${paymentStates.sql("under way")} AND p.asked_at < ? ORDER BY p.id DESC LIMIT ?`,
  )
    .all(now - dayMs, mostShown)
    .map(({ id, name, minor, customerId, at }) => ({
      kind: "stuck",
      words: `Whether ${name}’s card was charged ${moneyWords(minor, business.currency)} is not known`,
      detail: `Asked on ${momentIn(at, business.time_zone)}. Look at your card service, and say how it was; until then it is asked again.`,
      href: `/customers/${customerId}`,
      charge: { paymentId: id },
    }));

/** What failed by itself, by its cause, the newest first. */
const failedWork = ({ sql }: ViewContext): NeedsPerson[] =>
  sql<{ job: string; words: string; problem: string; n: number }>(
    `SELECT job, words, problem, count(*) AS n, max(failed_at) AS at FROM failed_work
      GROUP BY job, problem ORDER BY at DESC LIMIT ?`,
  )
    .all(mostShown)
    .map(({ job, words, problem, n }) => ({
      kind: "stuck",
      words:
        n === 1
          ? `${words}: this could not be done by itself`
          : `${words} and ${n - 1} more: this could not be done by itself`,
      detail: `${problem} It is tried again when something about it changes.`,
      href: "/today",
      again: { job, problem },
      ...(n > 1 && { n }),
    }));

const givenUp = ({ sql }: ViewContext): NeedsPerson[] =>
  sql<{ kind: string; last_problem: string }>(
    `SELECT kind, last_problem FROM outbox WHERE state = 'given up' AND kind NOT IN ('message', 'tell', 'reader', 'keep card')
      ORDER BY id DESC LIMIT ?`,
  )
    .all(mostShown)
    .map(({ kind, last_problem }) => ({
      kind: "stuck",
      words: `“${kind}” could not be carried out`,
      detail: last_problem,
      href: "/today",
    }));
