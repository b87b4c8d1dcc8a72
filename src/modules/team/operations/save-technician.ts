import { Refusal } from "@/core/problems";
import { visitStates } from "@/core/visits/states";
import { DateText, Id, ImageToken, input, Limits, Mail, Money, Name, OneOf, OrNull, Phone } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { refuseOverlaps, saveLimits, saveNamed, saveRow } from "@/kernel/rows";
import { PlaceSchema } from "@/modules/business/inputs";
import { Hours, Hue } from "@/modules/catalogue/inputs";
import { takeOut } from "@/modules/placing/days";
import { insertRow } from "@/store/insert";
import { type Static, Type } from "@sinclair/typebox";
import { letTechnicianIn, shutTechnicianOut } from "@/modules/people/technicians";
import { skillNamed } from "@/modules/catalogue/skills";

const MailOrNothing = Type.Union([Mail, Type.Literal("")]);

export const SaveTechnician = input({
  id: OrNull(Id),
  name: Name,
  phone: Phone,
  skills: Type.Array(
    input({ name: Name, level: Type.Integer({ minimum: 1, maximum: 3 }), validUntil: OrNull(DateText) }),
    { maxItems: 40 },
  ),
  hours: Hours,
  start: Type.Optional(PlaceSchema),
  end: Type.Optional(PlaceSchema),
  limits: Type.Optional(Limits),
  /** A subcontractor works by link, without signing in. */
  kind: Type.Optional(OneOf(["employee", "subcontractor"])),
  mail: Type.Optional(MailOrNothing),
  /** Who else is told of bookings with this person. */
  tells: Type.Optional(MailOrNothing),
  photo: Type.Optional(ImageToken),
  hue: Type.Optional(Hue),
  /** Empty: everywhere, everything. */
  zones: Type.Optional(Type.Array(Id, { maxItems: 500, uniqueItems: true })),
  services: Type.Optional(Type.Array(Id, { maxItems: 1000, uniqueItems: true })),
  /** Whether customers may be offered this person. */
  offered: Type.Optional(Type.Boolean()),
  mostMinutes: Type.Optional(OrNull(Type.Integer({ minimum: 15, maximum: 1440 }))),
  pay: Type.Optional(
    input({
      kind: OneOf(["none", "hourly", "salary"]),
      amountMinor: Money,
      hours: Type.Integer({ minimum: 1, maximum: 400 }),
      employerBp: Type.Integer({ minimum: 0, maximum: 30_000 }),
    }),
  ),
});
/** Somebody leaves, or comes back. */
const SetTechnicianActive = input({ id: Id, active: Type.Boolean() });
export type SaveTechnician = Static<typeof SaveTechnician>;

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
      ...(technician.tells !== undefined && { tells: technician.tells }),
      ...(technician.photo !== undefined && { photo: technician.photo }),
      ...(offered !== undefined && { offered: offered ? 1 : 0 }),
      ...(mostMinutes !== undefined && { most_minutes: mostMinutes }),
      ...(pay && { pay_kind: pay.kind, pay_minor: pay.amountMinor, pay_hours: pay.hours, employer_bp: pay.employerBp }),
    });
    sql("DELETE FROM technician_skills WHERE technician_id = ?").run(id);
    for (const skill of technician.skills)
      insertRow(
        sql,
        "technician_skills",
        {
          technician_id: id,
          skill_id: skillNamed(context, skill.name),
          level: skill.level,
          valid_until: skill.validUntil,
        },
        "ON CONFLICT DO UPDATE SET level = max(level, excluded.level)",
      );
    sql("DELETE FROM working_spans WHERE technician_id = ?").run(id);
    for (const { weekday, opens, closes } of technician.hours)
      insertRow(sql, "working_spans", { technician_id: id, weekday, opens, closes });
    if (technician.limits) saveLimits(context, "technician", id, technician.limits);
    if (technician.zones) saveNamed(context, "technician_zones", id, technician.zones);
    if (technician.services) saveNamed(context, "technician_services", id, technician.services);
    return { id };
  },
});

/**
 * Somebody leaves, or comes back. What they did or are doing stays as it was; what they were still to
 * do goes to the tray, and the answer says how much. Whoever signs in as a technician only cannot
 * any more, and can again once they are back.
 */
export const setTechnicianActive = defineOperation({
  name: "set-technician-active",
  access: "setup.change",
  input: SetTechnicianActive,
  run(context, { id, active }) {
    const { sql, today } = context;
    if (sql("UPDATE technicians SET active = ? WHERE id = ?").run(active ? 1 : 0, id).changes === 0)
      throw new Refusal("not-found");
    if (active) {
      letTechnicianIn(context, id);
      return { freed: 0 };
    }
    const ahead = sql<{ visit_id: number }>(
      `SELECT p.visit_id
        FROM placements p JOIN visits v ON v.id = p.visit_id
        WHERE p.technician_id = ? AND p.date >= ? AND v.state IN ${visitStates.sql("plan")}`,
    ).all(id, today);
    for (const { visit_id } of ahead) takeOut(context, visit_id);
    shutTechnicianOut(context, id);
    return { freed: ahead.length };
  },
});
