import { Refusal } from "@/core/problems";
import { SaveTechnician, SetTechnicianActive } from "@/schemas/setup";
import { defineOperation } from "../door";
import { takeOut } from "../placing";
import { refuseOverlaps, saveLimits, saveNamed, saveRow, skillNamed } from "./rows";

export const saveTechnician = defineOperation({
  name: "save-technician",
  access: "setup.change",
  input: SaveTechnician,
  run(context, technician) {
    const { sql, business } = context;
    refuseOverlaps(technician.hours);
    const base = { lng: business.lng, lat: business.lat, line: business.address };
    const start = technician.start ?? (technician.id === null ? base : undefined);
    const end = technician.end ?? start;
    const { pay, mostMinutes, hue, offered } = technician;
    const position =
      technician.id === null ? sql<{ n: number }>("SELECT count(*) AS n FROM technicians").get()!.n : null;
    const id = saveRow(context, "technicians", technician.id, {
      name: technician.name.trim(),
      phone: technician.phone,
      ...(start && { start_lng: start.lng, start_lat: start.lat, start_line: start.line ?? "" }),
      ...(end && { end_lng: end.lng, end_lat: end.lat, end_line: end.line ?? "" }),
      ...(position !== null && { position, active: 1, hue: position % 8 }),
      ...(hue !== undefined && { hue }),
      ...(technician.kind && { kind: technician.kind }),
      ...(technician.mail !== undefined && { mail: technician.mail }),
      ...(technician.photo !== undefined && { photo: technician.photo }),
      ...(offered !== undefined && { offered: offered ? 1 : 0 }),
      ...(mostMinutes !== undefined && { most_minutes: mostMinutes }),
      ...(pay && { pay_kind: pay.kind, pay_minor: pay.amountMinor, pay_hours: pay.hours, employer_bp: pay.employerBp }),
    });
    sql("DELETE FROM technician_skills WHERE technician_id = ?").run(id);
    for (const skill of technician.skills)
      sql(
        "INSERT INTO technician_skills VALUES (?, ?, ?, ?) ON CONFLICT DO UPDATE SET level = max(level, excluded.level)",
      ).run(id, skillNamed(context, skill.name), skill.level, skill.validUntil);
    sql("DELETE FROM working_spans WHERE technician_id = ?").run(id);
    for (const { weekday, opens, closes } of technician.hours)
      sql("INSERT INTO working_spans VALUES (?, ?, ?, ?)").run(id, weekday, opens, closes);
    if (technician.limits) saveLimits(context, "technician", id, technician.limits);
    if (technician.zones) saveNamed(context, "technician_zones", id, technician.zones);
    if (technician.services) saveNamed(context, "technician_services", id, technician.services);
    return { id };
  },
});

/**
 * Somebody leaves, or comes back. What they did or are doing stays as it was; what they were still to
 * do goes to the tray, and the answer says how much. Whoever signs in as a technician only cannot any more.
 */
export const setTechnicianActive = defineOperation({
  name: "set-technician-active",
  access: "setup.change",
  input: SetTechnicianActive,
  run(context, { id, active }) {
    const { sql, today, now } = context;
    if (sql("UPDATE technicians SET active = ? WHERE id = ?").run(active ? 1 : 0, id).changes === 0)
      throw new Refusal("not-found");
    if (active) return { freed: 0 };
    const ahead = sql<{ visit_id: number }>(
      "SELECT p.visit_id FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.technician_id = ? AND p.date >= ? AND v.state IN ('promised', 'held', 'forecast')",
    ).all(id, today);
    for (const { visit_id } of ahead) takeOut(context, visit_id);
    sql(
      "UPDATE sessions SET ended_at = ? WHERE ended_at IS NULL AND person_id IN (SELECT id FROM people WHERE technician_id = ? AND role = 'technician')",
    ).run(now, id);
    sql("UPDATE people SET active = 0 WHERE technician_id = ? AND role = 'technician'").run(id);
    return { freed: ahead.length };
  },
});
