import { Nothing } from "@/schemas/money";
import { groupBy } from "@/core/group";
import type { Role } from "@/core/people/permissions";
import { readPattern } from "@/operations/placing";
import { localOf } from "@/core/time/local";
import type { Question } from "@/core/catalogue/questions";
import { defineView } from "./view";

/** The whole set-up, as the forms need it. */
export const setup = defineView({
  name: "setup",
  access: "setup.change",
  input: Nothing,
  read(context) {
    const { sql, business: b, today } = context;
    const limits = sql<{ scope: string; subject_id: number; per: "window" | "day" | "week"; most: number }>("SELECT * FROM limits").all();
    const limitsOf = (scope: string, id: number) => {
      const most = (per: string) => limits.find((l) => l.scope === scope && l.subject_id === id && l.per === per)?.most ?? null;
      return { window: most("window"), day: most("day"), week: most("week") };
    };
    const techniciansOf = (of: "zone" | "service") => groupBy(sql<{ id: number; technician_id: number }>(`SELECT ${of}_id AS id, technician_id FROM ${of}_technicians`).all(), (row) => row.id);
    const [zoneTechnicians, serviceTechnicians] = [techniciansOf("zone"), techniciansOf("service")];
    const serviceExtras = groupBy(sql<{ service_id: number; extra_id: number; most: number }>("SELECT * FROM service_extras ORDER BY service_id, position").all(), (x) => x.service_id);
    const serviceHours = groupBy(sql<{ service_id: number; weekday: number; opens: number; closes: number }>("SELECT * FROM service_hours ORDER BY weekday, opens").all(), (h) => h.service_id);
    const postcodes = groupBy(sql<{ zone_id: number; pattern: string }>("SELECT zone_id, pattern FROM zone_postcodes ORDER BY zone_id, position").all(), (p) => p.zone_id);
    const promisedBy = (column: string) => new Map(sql<{ id: number; n: number }>(`SELECT ${column} AS id, count(*) AS n FROM visits WHERE state = 'promised' GROUP BY 1`).all().map((r) => [r.id, r.n]));
    const [byZone, byService] = [promisedBy("zone_id"), promisedBy("service_id")];
    const skillsOf = groupBy(sql<{ technician_id: number; name: string; level: number; valid_until: string | null }>("SELECT ts.*, s.name FROM technician_skills ts JOIN skills s ON s.id = ts.skill_id ORDER BY s.name").all(), (s) => s.technician_id);
    const hoursOf = groupBy(sql<{ technician_id: number; weekday: number; opens: number; closes: number }>("SELECT * FROM working_spans ORDER BY weekday, opens").all(), (h) => h.technician_id);
    const needs = groupBy(sql<{ service_id: number; name: string; level: number }>("SELECT ss.service_id, s.name, ss.level FROM service_skills ss JOIN skills s ON s.id = ss.skill_id ORDER BY s.name").all(), (s) => s.service_id);
    return {
      currency: b.currency,
      today,
      business: { name: b.name, phone: b.phone, mail: b.mail, paymentDays: b.payment_days, reminderHours: b.reminder_hours, messageFrom: b.message_from, messageTo: b.message_to, travelMarginMinutes: b.travel_margin_minutes, travelMarginPercent: b.travel_margin_percent, windingPercent: b.winding_percent, kmh: b.kmh, labourCostMinor: b.labour_cost_minor },
      rules: {
        noticeMinutes: b.notice_minutes, horizonDays: b.horizon_days, holdMinutes: b.hold_minutes,
        windows: readPattern(context), capacity: b.capacity, forecastRoom: b.forecast_room, limits: limitsOf("business", 0),
      },
      skills: sql<{ name: string }>("SELECT name FROM skills ORDER BY name").all().map((s) => s.name),
      skillIds: sql<{ id: number; name: string }>("SELECT id, name FROM skills ORDER BY name").all(),
      extras: sql<{ id: number; name: string; unit: string; price_minor: number; cost_minor: number; tax_bp: number; active: number }>("SELECT * FROM extras ORDER BY active DESC, name").all()
        .map((x) => ({ id: x.id, name: x.name, unit: x.unit, priceMinor: x.price_minor, costMinor: x.cost_minor, taxBp: x.tax_bp, active: x.active === 1 })),
      pricesIncludeTax: b.prices_include_tax === 1,
      zones: sql<{ id: number; name: string; weekdays: number; serve_from: number; serve_to: number; notice_minutes: number; surcharge_minor: number; smallest_order_minor: number; winding_percent: number | null; kmh: number | null }>("SELECT * FROM zones WHERE active = 1 ORDER BY id").all().map((z) => ({
        id: z.id, name: z.name, postcodes: (postcodes.get(z.id) ?? []).map((p) => p.pattern), weekdays: z.weekdays, serveFrom: z.serve_from, serveTo: z.serve_to, noticeMinutes: z.notice_minutes, surchargeMinor: z.surcharge_minor, smallestOrderMinor: z.smallest_order_minor, technicians: (zoneTechnicians.get(z.id) ?? []).map((t) => t.technician_id), limits: limitsOf("zone", z.id), windingPercent: z.winding_percent, kmh: z.kmh, promised: byZone.get(z.id) ?? 0,
      })),
      technicians: sql<{ id: number; name: string; phone: string }>("SELECT id, name, phone FROM technicians WHERE active = 1 ORDER BY position").all().map((t) => ({
        ...t,
        skills: (skillsOf.get(t.id) ?? []).map((s) => ({ name: s.name, level: s.level, validUntil: s.valid_until })),
        hours: (hoursOf.get(t.id) ?? []).map(({ weekday, opens, closes }) => ({ weekday, opens, closes })),
        limits: limitsOf("technician", t.id),
        dayHours: sql<{ date: string; opens: number; closes: number }>("SELECT date, opens, closes FROM day_hours WHERE technician_id = ? AND date >= ? ORDER BY date, opens").all(t.id, today),
        errands: sql<{ id: number; date: string; begins: number; ends: number; title: string; place: string }>("SELECT * FROM errands WHERE technician_id = ? AND date >= ? ORDER BY begins").all(t.id, today)
          .map((e) => ({ id: e.id, date: e.date, title: e.title, place: e.place, from: localOf(e.begins, b.time_zone).minute, to: localOf(e.ends, b.time_zone).minute })),
        timeOff: sql<{ id: number; first_date: string; last_date: string; reason: string; from_minute: number | null; to_minute: number | null }>("SELECT * FROM time_off WHERE technician_id = ? AND last_date >= ? ORDER BY first_date").all(t.id, today),
      })),
      services: sql<{ id: number; code: string; name: string; category: string; description: string; price_minor: number; tax_bp: number; minutes: number; before_minutes: number; after_minutes: number; crew: number; deposit_kind: "none" | "percent" | "fixed" | "full"; deposit_value: number; hue: number; active: number; days: number; notice_minutes: number; capacity: "route" | "count" | "open" | "ask" | null; wish: "none" | "preferred" | "only"; pattern_id: number | null; questions: string }>("SELECT * FROM services ORDER BY category, name").all().map((s) => ({
        id: s.id, code: s.code, name: s.name, category: s.category, description: s.description, priceMinor: s.price_minor, taxBp: s.tax_bp, minutes: s.minutes, beforeMinutes: s.before_minutes, afterMinutes: s.after_minutes, crew: s.crew, hue: s.hue, active: s.active === 1,
        skills: (needs.get(s.id) ?? []).map((n) => ({ name: n.name, level: n.level })), deposit: { kind: s.deposit_kind, value: s.deposit_value }, days: s.days, noticeMinutes: s.notice_minutes, capacity: s.capacity, wish: s.wish,
        windows: s.pattern_id === null ? null : readPattern(context, s.id), hours: (serviceHours.get(s.id) ?? []).map(({ weekday, opens, closes }) => ({ weekday, opens, closes })),
        technicians: (serviceTechnicians.get(s.id) ?? []).map((t) => t.technician_id), limits: limitsOf("service", s.id),
        questions: JSON.parse(s.questions) as Question[], extras: (serviceExtras.get(s.id) ?? []).map((x) => ({ id: x.extra_id, most: x.most })), promised: byService.get(s.id) ?? 0,
      })),
      people: sql<{ id: number; name: string; mail: string; role: Role; technician_id: number | null; active: number; sessions: number }>(
        "SELECT p.*, (SELECT count(*) FROM sessions s WHERE s.person_id = p.id AND s.ended_at IS NULL AND s.expires_at > unixepoch() * 1000) AS sessions FROM people p ORDER BY p.id",
      ).all().map((p) => ({ id: p.id, name: p.name, mail: p.mail, role: p.role, technicianId: p.technician_id, active: p.active === 1, sessions: p.sessions })),
    };
  },
});

export type SetupData = ReturnType<(typeof setup)["read"]>;
