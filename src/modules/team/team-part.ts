import { groupBy } from "@/core/group";
import { loadedCost, type Pay } from "@/core/money/pay";
import type { Role } from "@/core/people/permissions";
import { localOf } from "@/core/time/local";
import type { ViewContext } from "@/kernel/operation";
import { hoursBy, limitsBy, namedBy } from "@/kernel/reading";
import { permissionsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";

type TechnicianRow = Rows["technicians"] & { promised: number };

/** Technicians with all that concerns their days, and the people who sign in. */
export function readTeam(context: ViewContext) {
  const { sql, business, today } = context;
  const [limitsOf, hoursOf, zonesOf, servicesOf] = [
    limitsBy(context, "technician"),
    hoursBy(context, "working_spans", "technician"),
    namedBy(context, "technician", "zone"),
    namedBy(context, "technician", "service"),
  ];
  const skills = groupBy(
    sql<{ technician_id: number; name: string; level: number; valid_until: string | null }>(
      "SELECT ts.*, s.name FROM technician_skills ts JOIN skills s ON s.id = ts.skill_id ORDER BY s.name",
    ).all(),
    (s) => s.technician_id,
  );
  const dayHours = groupBy(
    sql<{ technician_id: number; date: string; opens: number; closes: number }>(
      "SELECT * FROM day_hours WHERE date >= ? ORDER BY date, opens",
    ).all(today),
    (h) => h.technician_id,
  );
  const errands = groupBy(
    sql<{
      id: number;
      technician_id: number;
      date: string;
      begins: number;
      ends: number;
      title: string;
      place: string;
    }>("SELECT * FROM errands WHERE date >= ? ORDER BY begins").all(today),
    (e) => e.technician_id,
  );
  const timeOff = groupBy(
    sql<{
      id: number;
      technician_id: number;
      first_date: string;
      last_date: string;
      reason: string;
      from_minute: number | null;
      to_minute: number | null;
    }>("SELECT * FROM time_off WHERE last_date >= ? ORDER BY first_date").all(today),
    (o) => o.technician_id,
  );
  const minuteOf = (epoch: number) => localOf(epoch, business.time_zone).minute;

  const all = sql<TechnicianRow>(
    `SELECT t.*,
        (SELECT count(*) FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.technician_id = t.id AND p.date >= ? AND v.state = 'promised') AS promised
      FROM technicians t ORDER BY active DESC, position`,
  )
    .all(today)
    .map((t) => {
      const pay: Pay = { kind: t.pay_kind, amountMinor: t.pay_minor, hours: t.pay_hours, employerBp: t.employer_bp };
      return {
        id: t.id,
        name: t.name,
        phone: t.phone,
        mail: t.mail,
        tells: t.tells,
        kind: t.kind,
        photo: t.photo,
        hue: t.hue,
        active: t.active === 1,
        offered: t.offered === 1,
        mostMinutes: t.most_minutes,
        promised: t.promised,
        start: { lng: t.start_lng, lat: t.start_lat, line: t.start_line },
        end: { lng: t.end_lng, lat: t.end_lat, line: t.end_line },
        pay,
        costMinor: loadedCost(pay),
        skills: (skills.get(t.id) ?? []).map((s) => ({ name: s.name, level: s.level, validUntil: s.valid_until })),
        hours: hoursOf(t.id),
        limits: limitsOf(t.id),
        zones: zonesOf(t.id),
        services: servicesOf(t.id),
        dayHours: (dayHours.get(t.id) ?? []).map(({ date, opens, closes }) => ({ date, opens, closes })),
        errands: (errands.get(t.id) ?? []).map((e) => ({
          id: e.id,
          date: e.date,
          title: e.title,
          place: e.place,
          from: minuteOf(e.begins),
          to: minuteOf(e.ends),
        })),
        timeOff: timeOff.get(t.id) ?? [],
      };
    });
  return {
    technicians: all.filter((t) => t.active),
    formerTechnicians: all.filter((t) => !t.active),
    incomingPersonId: business.incoming_person_id,
    people: sql<{
      id: number;
      name: string;
      mail: string;
      role: Role;
      technician_id: number | null;
      active: number;
      given: string;
      taken: string;
      sessions: number;
    }>(
      `SELECT p.*,
          (SELECT count(*) FROM sessions s WHERE s.person_id = p.id AND s.ended_at IS NULL AND s.expires_at > unixepoch() * 1000) AS sessions
        FROM people p ORDER BY p.active DESC, p.id`,
    )
      .all()
      .map((p) => ({
        id: p.id,
        name: p.name,
        mail: p.mail,
        role: p.role,
        technicianId: p.technician_id,
        active: p.active === 1,
        given: permissionsColumn.read(p.given),
        taken: permissionsColumn.read(p.taken),
        sessions: p.sessions,
      })),
  };
}
