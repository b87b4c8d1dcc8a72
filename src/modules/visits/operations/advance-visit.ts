import { missing, tick, type TickedItem } from "@/core/catalogue/checklist";
import type { JobStanding } from "@/core/jobs/states";
import { Refusal } from "@/core/problems";
import { stepRefusal, type VisitState, visitStates } from "@/core/visits/states";
import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { tellCustomer } from "@/modules/messages/messaging";
import { issueInvoice } from "@/modules/money/invoicing";
import { tickedColumn } from "@/store/columns";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";

const AdvanceVisit = input({
  visitId: Id,
  to: OneOf(["on the way", "on site", "done", "no access"]),
  ticked: Type.Optional(Type.Array(Type.String({ maxLength: 40 }), { maxItems: 60 })),
});

/** As it was, where nothing is said of it. */
const tickedList = (list: TickedItem[], ticked: readonly string[] | undefined): TickedItem[] =>
  ticked ? tick(list, ticked) : list;

/** A technician (or the office) says where a visit stands. Done brings the invoice. */
export const advanceVisit = defineOperation({
  name: "advance-visit",
  access: "field.work",
  about: { visitId: "visit" },
  input: AdvanceVisit,
  run(context, { visitId, to, ticked }) {
    const { sql, now, today } = context;
    const visit = sql<{
      state: VisitState;
      date: string;
      job_id: number;
      started_at: number | null;
      checklist: string;
    }>("SELECT state, date, job_id, started_at, checklist FROM visits WHERE id = ?").get(visitId);
    if (!visit) throw new Refusal("not-found");
    // Repeating a step changes nothing: a phone may send it twice.
    if (visit.state === to) return;
    const job = sql<JobStanding>("SELECT state, approval FROM jobs WHERE id = ?").get(visit.job_id);
    const refusal = job ? stepRefusal(to, visit, job, today) : "visit-not-open";
    if (refusal) throw new Refusal(refusal);
    const list = tickedList(tickedColumn.read(visit.checklist), ticked);
    const left = to === "done" ? missing(list) : [];
    if (left.length)
      throw new Refusal("checklist-open", {
        sentence: `Required first: ${left.map((item) => item.words).join("; ")}.`,
      });
    sql("UPDATE visits SET checklist = ? WHERE id = ?").run(JSON.stringify(list), visitId);
    const over = visitStates.allows("over", to);
    sql("UPDATE visits SET state = ?, started_at = ?, ended_at = ? WHERE id = ?").run(
      to,
      to === "on site" ? now : visit.started_at,
      over ? now : null,
      visitId,
    );

    if (to === "on the way") {
      const { name } = sql<{ name: string }>(
        `SELECT t.name
          FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = ?
          ORDER BY t.position LIMIT 1`,
      ).get(visitId) ?? { name: "Somebody" };
      tellCustomer(context, {
        jobId: visit.job_id,
        occasion: "on the way",
        about: `visit ${visitId}`,
        answer: true,
        fields: { technician: name },
      });
    }
    if (over) settlePlacements(visit.started_at ?? now);
    if (
      to === "done" &&
      !sql(`SELECT 1 FROM visits WHERE job_id = ? AND state NOT IN ${visitStates.sql("closed")}`).get(visit.job_id)
    ) {
      sql("UPDATE jobs SET state = 'done' WHERE id = ?").run(visit.job_id);
      issueInvoice(context, visit.job_id);
    }

    /** From a plan to what happened. */
    function settlePlacements(startedMs: number): void {
      const arrives = Math.floor(startedMs / 60_000);
      const leaves = Math.max(Math.ceil(now / 60_000), arrives + 1);
      const placed = sql<{ technician_id: number; date: string; drive_from: number; driving: number }>(
        "SELECT technician_id, date, drive_from, driving FROM placements WHERE visit_id = ?",
      ).all(visitId);
      sql("DELETE FROM placements WHERE visit_id = ?").run(visitId);
      for (const p of placed)
        insertRow(sql, "placements", {
          visit_id: visitId,
          technician_id: p.technician_id,
          date: p.date,
          drive_from: Math.min(p.drive_from, arrives),
          driving: p.driving,
          arrives,
          leaves,
          settled: 1,
        });
    }
  },
});
