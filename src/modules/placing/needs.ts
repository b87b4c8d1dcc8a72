import { addDays } from "@/core/time/dates";
import { dateWords } from "@/core/time/words";
import { lateBy } from "@/core/visits/lateness";
import { type VisitState, visitStates } from "@/core/visits/states";
import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";
import { unkeptPromises } from "./unkept";

/** So many days ahead a visit without a technician is told of. */
const daysAhead = 14;

const unplaced = ({ sql, today }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; date: string; service: string; name: string }>(
    `SELECT v.id, v.date, v.title AS service, coalesce(c.name, rc.name) AS name
      FROM visits v JOIN services s ON s.id = v.service_id LEFT JOIN jobs j ON j.id = v.job_id
        LEFT JOIN customers c ON c.id = j.customer_id LEFT JOIN repeats r ON r.id = v.repeat_id
        LEFT JOIN customers rc ON rc.id = r.customer_id
      WHERE v.date BETWEEN ? AND ? AND v.state IN ${visitStates.sql("await")}
        AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)
      GROUP BY coalesce(v.shared_id, -v.id) ORDER BY v.date LIMIT 30`,
  )
    .all(today, addDays(today, daysAhead))
    .map(({ id, date, service, name }) => ({
      kind: "unplaced",
      words: `${name} has no technician yet`,
      detail: service,
      href: `/board?date=${date}&visit=${id}`,
      date,
    }));

/** Visits of today that will miss their window, or have missed it. */
const late = ({ sql, today, minute }: ViewContext): NeedsPerson[] =>
  sql<{
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
  )
    .all(today)
    .map((v) => ({ ...v, late: lateBy({ state: v.state, windowTo: v.window_to, arrives: v.arrives }, minute) }))
    .filter(({ late }) => late > 0)
    .map((v) => ({
      kind: "late",
      words: `${v.technician} ${minute > v.window_to ? "is" : "will be"} ${v.late} min past the window at ${v.name}`,
      detail: "Tell the customer, or place it anew",
      href: `/board?date=${v.date}&visit=${v.id}`,
      date: v.date,
    }));

/** So many are named one by one. */
const mostShown = 12;

/** Promises that a change of set-up has touched, until each is settled. */
function unkept(context: ViewContext): NeedsPerson[] {
  const { n, first } = unkeptPromises(context, mostShown);
  const named = first.map(({ visitId, date, window, customer, title, technician, why, isPersonal }): NeedsPerson => ({
    kind: "unkept",
    words: `${customer} was promised ${dateWords(date)}, ${window}, and that cannot be kept as you are set up now`,
    detail: [title, technician, why].filter(Boolean).join(" · "),
    href: `/board?date=${date}&visit=${visitId}`,
    date,
    unkept: { visitId, mayGoToOthers: isPersonal },
  }));
  return n > first.length
    ? [
        ...named,
        {
          kind: "unkept",
          words: `${n - first.length} more promises cannot be kept as you are set up now`,
          detail: "They are named here as those before them are settled",
          href: `/board?date=${first.at(-1)!.date}`,
          date: first.at(-1)!.date,
          n: n - first.length,
        },
      ]
    : named;
}

export const placingNeeds: readonly Needs[] = [unplaced, unkept, late].map((read) => ({ may: "office.see", read }));
