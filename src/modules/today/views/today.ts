import { dayMs } from "@/core/horizons";
import { may, seesOnly } from "@/core/people/permissions";
import { localOf } from "@/core/time/local";
import { byUrgency } from "@/core/today/urgency";
import { visitStates } from "@/core/visits/states";
import { Nothing } from "@/kernel/inputs";
import type { Needs } from "@/kernel/module";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";

/** The first screen: what needs a person now, and how the day goes. */
export const todayOf = (needs: readonly Needs[]) =>
  defineView({
    name: "today",
    access: "office.see",
    input: Nothing,
    read(context) {
      const { sql, actor, today, business } = context;
      const seesAll = seesOnly(actor) === null;
      return {
        /** Nothing has been booked yet, and this person can set the business up. */
        isFresh: may(actor, "setup.change") && sql("SELECT 1 FROM jobs").get() === undefined,
        today,
        // What needs a person is for those who see everybody's work, and so are the figures of all of it.
        needs: seesAll ? needsOf(context, needs) : [],
        booked: seesAll ? bookedOf(context) : null,
        currency: business.currency,
        technicians: technicianDays(context),
      };
    },
  });

const needsOf = (context: ViewContext, needs: readonly Needs[]) =>
  byUrgency(
    needs.filter((one) => may(context.actor, one.may)).flatMap((one) => one.read(context)),
    context.today,
  );

/** What was booked within a week; its worth is for those who see money. */
function bookedOf({ sql, now, actor }: ViewContext) {
  const { n, minor } = sql<{ n: number; minor: number }>(
    `SELECT count(*) AS n, coalesce(sum(total_minor), 0) AS minor
      FROM jobs WHERE booked_at > ? AND state <> 'cancelled'`,
  ).get(now - 7 * dayMs)!;
  return { n, minor: may(actor, "money.see") ? minor : null };
}

/** How far everybody is today, and where they go next. */
function technicianDays({ sql, today, actor, business }: ViewContext) {
  const clockOf = (epoch: number) => localOf(epoch, business.time_zone).minute;
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
  ).all({ today, only: seesOnly(actor) });
  return technicians.map((t) => ({
    ...t,
    nextFrom: t.next_from === null ? null : clockOf(t.next_from),
    nextTo: t.next_to === null ? null : clockOf(t.next_to),
  }));
}
