import { localDate, epochMinute } from "@/core/time/local";
import { dayWords, windowIn } from "@/core/time/words";
import { Refusal } from "@/core/problems";
import { MoveVisit } from "@/schemas/booking";
import { toPlace, type ServiceRow } from "./booking";
import { defineOperation } from "./door";
import { tellCustomer } from "./messaging";
import { answersWithin, placeVisit, reasonsInWords } from "./placing";
import { loadPlanning } from "./planning";

export interface MovableVisit {
  id: number;
  state: string;
  job_id: number | null;
  service_id: number;
  zone_id: number | null;
  date: string;
  window_from: number;
  window_to: number;
  minutes: number;
  before_minutes: number;
  after_minutes: number;
  crew: number;
  lng: number;
  lat: number;
}

/** Moves a visit to other technicians, another window, or both. What cannot work is refused with the reason; a new window is told to the customer, and the old promise stays in the history. */
export const moveVisit = defineOperation({
  name: "move-visit",
  access: "board.change",
  input: MoveVisit,
  run(context, { visitId, technicianIds, date, fromMinute, toMinute }) {
    const { sql, now, business } = context;
    const zone = business.time_zone;
    const visit = sql<MovableVisit>("SELECT * FROM visits WHERE id = ?").get(visitId);
    if (!visit) throw new Refusal("not-found");
    if (!["promised", "forecast"].includes(visit.state)) throw new Refusal("visit-not-open");
    if (toMinute <= fromMinute) throw new Refusal("invalid-input", { fields: { "/toMinute": "A window ends after it begins." } });
    if (technicianIds.length !== visit.crew) throw new Refusal("invalid-input", { fields: { "/technicianIds": visit.crew === 1 ? "Choose one technician." : `Choose ${visit.crew} people.` } });

    const window = { date, from: epochMinute(date, fromMinute, zone), to: epochMinute(date, toMinute, zone) };
    if (window.to <= context.minute) throw new Refusal("cannot-be-kept", { sentence: "This window has passed. Choose one that lies ahead." });
    const service = sql<ServiceRow>("SELECT * FROM services WHERE id = ?").get(visit.service_id)!;
    const planning = loadPlanning(context, [date], visitId);
    const chosen = { ...planning, candidates: () => planning.candidates().filter((t) => technicianIds.includes(Number(t.id))) };
    const wanted = { ...toPlace(service, visit, visit.zone_id), minutes: visit.minutes, before: visit.before_minutes, after: visit.after_minutes, crew: visit.crew };
    const [answer] = answersWithin(context, chosen, wanted, [window], false);
    if (!answer?.offered) throw new Refusal("cannot-be-kept", { sentence: `This cannot be kept: ${reasonsInWords(context, answer?.reasons ?? []).join("; ") || "the technician is not available"}.` });

    const moved = visit.window_from !== window.from || visit.window_to !== window.to;
    sql("UPDATE visits SET date = ?, window_from = ?, window_to = ?, meet_at = ? WHERE id = ?").run(date, window.from, window.to, answer.meetAt, visitId);
    placeVisit(context, visitId, technicianIds);
    if (moved && visit.state === "promised") {
      sql("UPDATE promises SET ended_at = ? WHERE visit_id = ? AND ended_at IS NULL").run(now, visitId);
      sql("INSERT INTO promises (visit_id, made_at, window_from, window_to) VALUES (?, ?, ?, ?)").run(visitId, now, window.from, window.to);
      const old = `${dayWords(localDate(visit.window_from, zone))}, ${windowIn(visit.window_from, visit.window_to, zone)}`;
      tellCustomer(context, { jobId: visit.job_id!, occasion: "moved", about: `visit ${visitId} at ${now}`, fields: { old } });
    }
    return { told: moved && visit.state === "promised" };
  },
});
