import { visitReminderAt } from "@/core/messages/moments";
import { Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { tellCustomer } from "../messaging";

/** Writes the reminder of a visit to a customer who agreed to reminders. */
export const remindOfVisit = defineOperation({
  name: "remind-of-visit",
  access: "system",
  input: input({ visitId: Id }),
  run(context, { visitId }) {
    const { sql, business } = context;
    const visit = sql<{ job_id: number; window_from: number; booked_at: number }>(
      `SELECT v.job_id, v.window_from, j.booked_at
        FROM visits v JOIN jobs j ON j.id = v.job_id WHERE v.id = ? AND v.reminded_of IS NULL`,
    ).get(visitId);
    if (!visit) return;
    sql("UPDATE visits SET reminded_of = window_from WHERE id = ?").run(visitId);
    const at = visitReminderAt(
      visit.window_from,
      business.reminder_hours,
      { from: business.message_from, to: business.message_to },
      business.time_zone,
    );
    // Whoever booked after the moment of the reminder has just been told.
    if (visit.booked_at / 60_000 < at)
      tellCustomer(context, {
        jobId: visit.job_id,
        visitId,
        occasion: "visit reminder",
        about: `visit ${visitId} at ${visit.window_from}`,
      });
  },
});
