import { dateWords } from "@/core/time/words";
import { type VisitState, visitStates } from "@/core/visits/states";
import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";

/** Work that goes on past midnight is not over yet: so long after its window, in minutes. */
const overAfter = 4 * 60;

/** Visits of which nobody has said how they ended, or to which somebody must come again: until they are settled, however long ago they were. */
const notClosed = ({ sql, today, minute }: ViewContext): NeedsPerson[] =>
  sql<{ id: number; date: string; state: VisitState; service: string; name: string; who: string | null }>(
    `SELECT v.id, v.date, v.state, v.title AS service, c.name,
        (SELECT group_concat(t.name, ', ') FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = v.id) AS who
      FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
      WHERE (v.state IN ${visitStates.sql("go again")} AND v.date <= @today)
        OR (v.state IN ${visitStates.sql("expect")} AND v.date < @today AND v.window_to < @ended AND j.state = 'agreed')
      ORDER BY v.date, v.window_from LIMIT 40`,
  )
    .all({ today, ended: minute - overAfter })
    .map((v) => {
      const missed = visitStates.allows("go again", v.state);
      return {
        kind: missed ? "nobody home" : "not closed",
        words: missed ? `Nobody was home at ${v.name}` : `Nobody has said how the visit at ${v.name} ended`,
        detail: [v.service, dateWords(v.date), v.who, missed ? "Promise another time, or cancel" : "Done, or not?"]
          .filter(Boolean)
          .join(" · "),
        href: `/board?date=${v.date}&visit=${v.id}`,
        date: v.date,
      };
    });

export const visitNeeds: readonly Needs[] = [{ may: "office.see", read: notClosed }];
