import { dayMs } from "@/core/horizons";
import { may, seesOnly } from "@/core/people/permissions";
import { addDays } from "@/core/time/dates";
import { localOf } from "@/core/time/local";
import { dateWords } from "@/core/time/words";
import { byUrgency } from "@/core/today/urgency";
import { lateBy } from "@/core/visits/lateness";
import { messageStates } from "@/core/messages/states";
import { type VisitState, visitStates } from "@/core/visits/states";
import { Nothing } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { askedToConfirm } from "@/modules/messages/reminders";
import { hoarding } from "@/modules/booking/unproved";
import { readIncoming } from "@/modules/incoming/entries";
import { openTroubles } from "@/modules/reviews/reviews";
import { stuckNeeds } from "../stuck-needs";
import { moneyNeeds } from "../money-needs";
import { unkeptNeeds } from "../unkept-needs";
import type { NeedsPerson } from "../needs";

const did = {
  booking: "has booked",
  request: "asks for",
  quote: "has our quote for",
  repeat: "comes back for",
} as const;
/** Of what waits in Incoming, so many are named one by one. */
const mostShown = 12;

/** The first screen: what needs a person now, and how the day goes. */
export const todayView = defineView({
  name: "today",
  access: "office.see",
  input: Nothing,
  read(context) {
    const { sql, actor, today, minute, now, business } = context;
    const only = seesOnly(actor);
    const needs: NeedsPerson[] = [];
    const soon = addDays(today, 14);
    if (only === null && may(actor, "customers.see")) {
      const first = { page: 0, size: mostShown, sort: "at", descending: false, search: "" };
      const { rows, forUs } = readIncoming(context, first, true);
      for (const e of rows)
        needs.push({
          kind: "incoming",
          words: `${e.name} ${did[e.kind]} ${e.what}`,
          detail: [e.kind === "repeat" ? e.next : e.waits, e.when, e.handler && `${e.handler} is on it`]
            .filter(Boolean)
            .join(" · "),
          href: e.kind === "repeat" ? `/repeats?open=${e.id}` : `/incoming?open=${encodeURIComponent(e.key)}`,
        });
      if (forUs > mostShown)
        needs.push({
          kind: "incoming",
          words: `${forUs - mostShown} more wait in Incoming`,
          detail: "",
          href: "/incoming",
          n: forUs - mostShown,
        });
    }
    if (only === null && may(actor, "board.change"))
      for (const { address, date, kept, customerId, name } of hoarding(context))
        needs.push({
          kind: "hoarding",
          words: name
            ? `${name} has booked ${kept} times online`
            : `${kept} times are kept by ${address ? "somebody" : "people"} nobody knows${date ? `, on ${dateWords(date)}` : ""}`,
          detail: name
            ? "As many as one customer may: call them, and see whether all are meant"
            : address
              ? "Holds and bookings without a payment or a code, all from one network address"
              : "Holds and bookings without a payment or a code: much of that day",
          href: name ? `/customers/${customerId}` : date ? `/board?date=${date}` : "/board",
          givesBack: { address, date, customerId: customerId ?? null },
        });
    const clockOf = (epoch: number) => localOf(epoch, business.time_zone).minute;

    for (const v of sql<{ id: number; date: string; service: string; name: string; state: string }>(
      `SELECT v.id, v.date, v.state, v.title AS service, coalesce(c.name, rc.name) AS name
        FROM visits v JOIN services s ON s.id = v.service_id LEFT JOIN jobs j ON j.id = v.job_id
          LEFT JOIN customers c ON c.id = j.customer_id LEFT JOIN repeats r ON r.id = v.repeat_id
          LEFT JOIN customers rc ON rc.id = r.customer_id
        WHERE v.date BETWEEN ? AND ? AND v.state IN ${visitStates.sql("await")}
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
        GROUP BY coalesce(v.shared_id, -v.id) ORDER BY v.date LIMIT 30`,
    ).all(today, soon))
      needs.push({
        kind: "unplaced",
        words: `${v.name} has no technician yet`,
        detail: v.service,
        href: `/board?date=${v.date}&visit=${v.id}`,
        date: v.date,
      });

    // Until somebody has settled them, however long ago they were.
    for (const v of sql<{
      id: number;
      date: string;
      state: VisitState;
      service: string;
      name: string;
      who: string | null;
    }>(
      `SELECT v.id, v.date, v.state, v.title AS service, c.name,
          (SELECT group_concat(t.name, ', ') FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = v.id) AS who
        FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
        WHERE (v.state IN ${visitStates.sql("go again")} AND v.date <= @today)
          OR (v.state IN ${visitStates.sql("expect")} AND v.date < @today AND v.window_to < @ended AND j.state = 'agreed')
        ORDER BY v.date, v.window_from LIMIT 40`,
      // Work that goes on past midnight is not over yet.
    ).all({ today, ended: minute - 4 * 60 })) {
      const missed = visitStates.allows("go again", v.state);
      needs.push({
        kind: missed ? "nobody home" : "not closed",
        words: missed ? `Nobody was home at ${v.name}` : `Nobody has said how the visit at ${v.name} ended`,
        detail: [v.service, dateWords(v.date), v.who, missed ? "Promise another time, or cancel" : "Done, or not?"]
          .filter(Boolean)
          .join(" · "),
        href: `/board?date=${v.date}&visit=${v.id}`,
        date: v.date,
      });
    }

    if (only === null) needs.push(...unkeptNeeds(context));
    for (const v of sql<{
      id: number;
      state: VisitState;
      date: string;
      name: string;
      technician: string;
      window_to: number;
      arrives: number;
    }>(
      `SELECT v.id, v.state, v.date, c.name, t.name AS technician, v.window_to, p.arrives
        FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
          JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id
        WHERE v.date = ? AND v.state IN ${visitStates.sql("await")} GROUP BY coalesce(v.shared_id, -v.id)`,
    ).all(today)) {
      const late = lateBy({ state: v.state, windowTo: v.window_to, arrives: v.arrives }, minute);
      if (late === 0) continue;
      needs.push({
        kind: "late",
        words: `${v.technician} ${minute > v.window_to ? "is" : "will be"} ${late} min past the window at ${v.name}`,
        detail: "Tell the customer, or place it anew",
        href: `/board?date=${v.date}&visit=${v.id}`,
        date: v.date,
      });
    }

    for (const p of sql<{ id: number; visit_id: number; date: string; name: string; purpose: string; problem: string }>(
      `SELECT p.id, v.id AS visit_id, v.date, c.name, p.purpose, p.problem
        FROM payments p JOIN customers c ON c.id = p.customer_id JOIN visits v ON v.job_id = p.job_id
          JOIN jobs j ON j.id = p.job_id
        WHERE p.state = 'declined' AND j.state <> 'cancelled' AND p.settled_at > ?
          AND NOT EXISTS (SELECT 1 FROM payments q WHERE q.job_id = p.job_id AND q.purpose = p.purpose AND q.id > p.id)
        GROUP BY p.id ORDER BY p.id DESC LIMIT 10`,
    ).all(now - 7 * 86_400_000))
      needs.push({
        kind: "failed card",
        words: `${p.name}: the card for the ${p.purpose} was declined`,
        detail: p.problem,
        href: `/board?date=${p.date}&visit=${p.visit_id}`,
      });

    if (only === null) needs.push(...stuckNeeds(context));
    if (may(actor, "money.see")) needs.push(...moneyNeeds(context));
    for (const s of sql<{ id: number; name: string; skill: string; valid_until: string }>(
      `SELECT t.id, t.name, s.name AS skill, ts.valid_until
        FROM technician_skills ts JOIN technicians t ON t.id = ts.technician_id
          JOIN skills s ON s.id = ts.skill_id
        WHERE t.active = 1 AND ts.valid_until < ?`,
    ).all(addDays(today, 42)))
      needs.push({
        kind: "expiring",
        words: `${s.name}: the certificate “${s.skill}” ends on ${dateWords(s.valid_until)}`,
        detail: "After that day nobody is offered this work by that person",
        href: `/setup/technicians?id=${s.id}`,
      });

    // As long as it is still the address that we have, and nothing has arrived there since.
    const bounced = sql<{ name: string; customer_id: number; recipient: string; other: string }>(
      `SELECT c.id AS customer_id, c.name, m.recipient, iif(m.channel = 'mail', c.phone, c.mail) AS other
        FROM messages m JOIN customers c ON c.id = m.customer_id
        WHERE m.state = 'bounced' AND m.recipient IN (c.mail, c.phone)
          AND NOT EXISTS (SELECT 1 FROM messages d WHERE d.recipient = m.recipient AND d.state IN ${messageStates.sql("arrived")} AND d.id > m.id)
        GROUP BY c.id ORDER BY max(m.id) DESC LIMIT 5`,
    ).all();
    for (const b of bounced)
      needs.push({
        kind: "bounced",
        words: `${b.recipient} of ${b.name} is not right: what we wrote has bounced`,
        detail: b.other ? `Ask them for another one: ${b.other}` : "Ask them for another one when you see them",
        href: `/customers/${b.customer_id}`,
      });

    const unconfirmed = sql<{ n: number; names: string | null }>(
      `SELECT count(*) AS n, group_concat(name, ', ') AS names FROM (
        SELECT c.name FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
          WHERE v.date = ? AND v.state = 'promised' AND v.confirmed_at IS NULL AND ${askedToConfirm("v")} ORDER BY v.window_from)`,
    ).get(addDays(today, 1))!;
    if (unconfirmed.n > 0)
      needs.push({
        kind: "unconfirmed",
        words:
          unconfirmed.n === 1
            ? `${unconfirmed.names} has not confirmed tomorrow’s visit`
            : `${unconfirmed.n} customers have not confirmed tomorrow’s visits`,
        detail:
          unconfirmed.n === 1
            ? "They were asked: call them"
            : `${unconfirmed.names!.split(", ").slice(0, 5).join(", ")}${unconfirmed.n > 5 ? " and others" : ""} were asked`,
        href: `/board?date=${addDays(today, 1)}`,
        n: unconfirmed.n,
      });

    // Whoever wrote of danger stands there until somebody has answered, whether it is put off or not.
    for (const { id, name, words } of sql<{ id: number; name: string; words: string }>(
      `SELECT t.id, coalesce(c.name, nullif(t.name, ''), nullif(t.phone, ''), t.mail) AS name, r.body AS words
        FROM threads t JOIN replies r ON r.id = (SELECT max(id) FROM replies
            WHERE thread_id = t.id AND received_at >= t.waiting_since AND understood LIKE '%"danger"%')
          LEFT JOIN customers c ON c.id = t.customer_id
        WHERE t.waiting_since IS NOT NULL ORDER BY r.received_at DESC LIMIT 12`,
    ).all())
      needs.push({
        kind: "danger",
        words: `${name} writes of danger: “${words.slice(0, 120)}”`,
        detail: "Call them now",
        href: `/messages?open=${id}`,
      });

    const waits = sql<{ n: number; oldest: number; name: string; words: string }>(
      `SELECT count(*) AS n, min(t.waiting_since) AS oldest, coalesce(c.name, nullif(t.name, ''), nullif(t.phone, ''), t.mail) AS name, t.last_words AS words
        FROM threads t LEFT JOIN customers c ON c.id = t.customer_id
        WHERE t.waiting_since IS NOT NULL AND (t.snoozed_until IS NULL OR t.snoozed_until <= ?)`,
    ).get(now)!;
    if (waits.n > 0)
      needs.push({
        kind: "reply",
        words:
          waits.n === 1
            ? `${waits.name} writes: “${waits.words.slice(0, 120)}”`
            : `${waits.n} conversations wait for an answer`,
        detail: waits.n === 1 ? "Waits for an answer" : `The longest: ${waits.name}, “${waits.words.slice(0, 80)}”`,
        href: "/messages",
      });

    if (may(actor, "board.change of all"))
      for (const { id, name, trouble } of openTroubles(context))
        needs.push({
          kind: "trouble",
          words: `${name} tells of trouble: “${trouble.slice(0, 120)}”`,
          detail: "Call or answer, and mark it as dealt with",
          href: `/messages?list=reviews&open=${id}`,
        });

    const technicians = sql<{
      id: number;
      name: string;
      done: number;
      all_visits: number;
      next: string | null;
      next_from: number | null;
      next_to: number | null;
      off: string | null;
    }>(
      `SELECT t.id, t.name,
          (SELECT count(DISTINCT coalesce(v.shared_id, -v.id)) FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.technician_id = t.id AND p.date = ?1 AND v.state IN ${visitStates.sql("over")}) AS done,
          (SELECT count(DISTINCT coalesce(v.shared_id, -v.id)) FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.technician_id = t.id AND p.date = ?1 AND v.state IN ${visitStates.sql("count")}) AS all_visits,
          n.name AS next, n.window_from AS next_from, n.window_to AS next_to,
          (SELECT reason FROM time_off o WHERE o.technician_id = t.id AND ?1 BETWEEN first_date AND last_date) AS off
        FROM technicians t
          LEFT JOIN (SELECT p.technician_id, c.name, v.window_from, v.window_to, min(p.arrives) FROM placements p JOIN visits v ON v.id = p.visit_id JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id WHERE p.date = ?1 AND v.state IN ${visitStates.sql("expect")} GROUP BY p.technician_id) n ON n.technician_id = t.id
        WHERE t.active = 1 AND (@only IS NULL OR t.id = @only) ORDER BY t.position`.replaceAll("?1", "@today"),
    ).all({ today, only });
    const booked = sql<{ n: number; minor: number }>(
      `SELECT count(*) AS n, coalesce(sum(total_minor), 0) AS minor
        FROM jobs WHERE booked_at > ? AND state <> 'cancelled'`,
    ).get(now - 7 * dayMs)!;
    return {
      /** Nothing has been booked yet, and this person can set the business up. */
      isFresh: may(actor, "setup.change") && sql("SELECT 1 FROM jobs").get() === undefined,
      // What needs a person is for those who see everybody's work.
      today,
      needs: only === null ? byUrgency(needs, today) : [],
      // Figures of everybody's work are for those who see it, and money for those who see money.
      booked: only === null ? { n: booked.n, minor: may(actor, "money.see") ? booked.minor : null } : null,
      currency: business.currency,
      technicians: technicians.map((t) => ({
        ...t,
        nextFrom: t.next_from === null ? null : clockOf(t.next_from),
        nextTo: t.next_to === null ? null : clockOf(t.next_to),
      })),
    };
  },
});
