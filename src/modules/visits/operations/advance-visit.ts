import { missing, tick, type TickedItem } from "@/core/catalogue/checklist";
import { Refusal } from "@/core/problems";
import { AdvanceVisit } from "@/schemas/booking";
import { defineOperation } from "./door";
import { issueInvoice } from "./invoicing";
import { tellCustomer } from "./messaging";
import { mustSee } from "./visits";

/** Which step may follow which. Repeating a step changes nothing: a phone may send it twice. */
const follows: Record<string, readonly string[]> = {
  "on the way": ["promised"],
  "on site": ["on the way", "promised"],
  done: ["on site"],
  "no access": ["on the way", "on site"],
};

/** As it was, where nothing is said of it. */
const tickedList = (list: TickedItem[], ticked: readonly string[] | undefined): TickedItem[] =>
  ticked ? tick(list, ticked) : list;

/** A technician (or the office) says where a visit stands. Done brings the invoice. */
export const advanceVisit = defineOperation({
  name: "advance-visit",
  access: "field.work",
  input: AdvanceVisit,
  run(context, { visitId, to, ticked }) {
    const { sql, now } = context;
    const visit = sql<{ state: string; job_id: number; started_at: number | null; checklist: string }>(
      "SELECT state, job_id, started_at, checklist FROM visits WHERE id = ?",
    ).get(visitId);
    if (!visit) throw new Refusal("not-found");
    mustSee(context, visitId);
    if (visit.state === to) return;
    if (!follows[to]!.includes(visit.state)) throw new Refusal("wrong-order");
    const list = tickedList(JSON.parse(visit.checklist) as TickedItem[], ticked);
    const left = to === "done" ? missing(list) : [];
    if (left.length)
      throw new Refusal("checklist-open", { sentence: `Tick first: ${left.map((item) => item.words).join("; ")}.` });
    sql("UPDATE visits SET checklist = ? WHERE id = ?").run(JSON.stringify(list), visitId);
    const over = to === "done" || to === "no access";
    sql("UPDATE visits SET state = ?, started_at = ?, ended_at = ? WHERE id = ?").run(
      to,
      to === "on site" ? now : visit.started_at,
      over ? now : null,
      visitId,
    );

    if (to === "on the way") {
      const { name } = sql<{ name: string }>(
        "SELECT t.name FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = ? ORDER BY t.position LIMIT 1",
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
      !sql("SELECT 1 FROM visits WHERE job_id = ? AND state NOT IN ('done', 'cancelled')").get(visit.job_id)
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
        sql(
          "INSERT INTO placements (visit_id, technician_id, date, drive_from, driving, arrives, leaves, settled) VALUES (?, ?, ?, ?, ?, ?, ?, 1)",
        ).run(visitId, p.technician_id, p.date, Math.min(p.drive_from, arrives), p.driving, arrives, leaves);
    }
  },
});
