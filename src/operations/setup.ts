import { patternProblem } from "@/core/place/postcodes";
import { Refusal } from "@/core/problems";
import { clock } from "@/core/time/words";
import { CloseDay, RecordTimeOff, RemoveTimeOff, SaveBookingRules, SaveBusiness, SaveService, SaveTechnician, SaveZone } from "@/schemas/setup";
import { sqliteCode } from "@/store/database";
import { defineOperation, type OperationContext } from "./door";

/** Set-up. Nothing here changes what was already promised or priced: visits and jobs carry their own copy. */
export const saveZone = defineOperation({
  name: "save-zone",
  access: "setup.change",
  input: SaveZone,
  run(context, zone) {
    const fields: Record<string, string> = {};
    for (const [i, pattern] of zone.postcodes.entries()) {
      const problem = patternProblem(pattern);
      if (problem) fields[`/postcodes/${i}`] = fields["/postcodes"] ??= problem;
    }
    if (zone.serveTo <= zone.serveFrom) fields["/serveTo"] = "The zone is served from an earlier to a later time.";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    const id = saveRow(context, "zones", zone.id, {
      name: zone.name.trim(), weekdays: zone.weekdays, serve_from: zone.serveFrom, serve_to: zone.serveTo, notice_minutes: zone.noticeMinutes,
      surcharge_minor: zone.surchargeMinor, smallest_order_minor: zone.smallestOrderMinor, active: 1,
    });
    context.sql("DELETE FROM zone_postcodes WHERE zone_id = ?").run(id);
    for (const [i, pattern] of zone.postcodes.entries()) context.sql("INSERT INTO zone_postcodes VALUES (?, ?, ?)").run(id, i, pattern.trim());
    return { id };
  },
});

export const saveTechnician = defineOperation({
  name: "save-technician",
  access: "setup.change",
  input: SaveTechnician,
  run(context, technician) {
    const { sql, business } = context;
    refuseOverlaps(technician.hours);
    const base = { lng: business.lng, lat: business.lat };
    const places = technician.id === null || technician.start ? { start: technician.start ?? base, end: technician.end ?? technician.start ?? base } : null;
    const id = saveRow(context, "technicians", technician.id, {
      name: technician.name.trim(), phone: technician.phone,
      ...(places && { start_lng: places.start.lng, start_lat: places.start.lat, end_lng: places.end.lng, end_lat: places.end.lat }),
      ...(technician.id === null && { position: sql<{ n: number }>("SELECT count(*) AS n FROM technicians").get()!.n, active: 1 }),
    });
    sql("DELETE FROM technician_skills WHERE technician_id = ?").run(id);
    for (const skill of technician.skills)
      sql("INSERT INTO technician_skills VALUES (?, ?, ?, ?) ON CONFLICT DO UPDATE SET level = max(level, excluded.level)").run(id, skillNamed(context, skill.name), skill.level, skill.validUntil);
    sql("DELETE FROM working_spans WHERE technician_id = ?").run(id);
    for (const { weekday, opens, closes } of technician.hours) sql("INSERT INTO working_spans VALUES (?, ?, ?, ?)").run(id, weekday, opens, closes);
    return { id };
  },
});

function refuseOverlaps(hours: readonly { weekday: number; opens: number; closes: number }[]): void {
  const fields: Record<string, string> = {};
  for (const [i, span] of hours.entries()) {
    if (span.closes <= span.opens) fields[`/hours/${i}`] = "A span ends after it begins.";
    const other = hours.find((o, k) => k < i && o.weekday === span.weekday && o.opens < span.closes && span.opens < o.closes);
    if (other) fields[`/hours/${i}`] = `This overlaps ${clock(other.opens)} to ${clock(other.closes)} of the same day.`;
  }
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
}

export const saveService = defineOperation({
  name: "save-service",
  access: "setup.change",
  input: SaveService,
  run(context, service) {
    const { deposit } = service;
    if (deposit.kind === "fixed" && deposit.value > service.priceMinor) throw new Refusal("invalid-input", { fields: { "/deposit/value": "The deposit is larger than the price." } });
    if (deposit.kind === "percent" && deposit.value > 10_000) throw new Refusal("invalid-input", { fields: { "/deposit/value": "Enter at most 100%." } });
    const id = saveRow(context, "services", service.id, {
      code: service.code.toUpperCase(), name: service.name.trim(), category: service.category.trim(), description: service.description, price_minor: service.priceMinor, tax_bp: service.taxBp,
      minutes: service.minutes, before_minutes: service.beforeMinutes, after_minutes: service.afterMinutes, crew: service.crew,
      deposit_kind: deposit.kind, deposit_value: deposit.kind === "percent" || deposit.kind === "fixed" ? deposit.value : 0, hue: hueOf(context, service.category.trim()), active: service.active ? 1 : 0,
    });
    context.sql("DELETE FROM service_skills WHERE service_id = ?").run(id);
    for (const name of new Set(service.skills)) context.sql("INSERT INTO service_skills VALUES (?, ?) ON CONFLICT DO NOTHING").run(id, skillNamed(context, name));
    return { id };
  },
});

/** Services of a category share its hue; a new category takes the next of eight. */
function hueOf({ sql }: OperationContext, category: string): number {
  const known = sql<{ hue: number }>("SELECT hue FROM services WHERE category = ? LIMIT 1").get(category);
  return known?.hue ?? sql<{ n: number }>("SELECT count(DISTINCT category) AS n FROM services").get()!.n % 8;
}

export const saveBookingRules = defineOperation({
  name: "save-booking-rules",
  access: "setup.change",
  input: SaveBookingRules,
  run({ sql }, rules) {
    const fields: Record<string, string> = {};
    for (const [i, window] of rules.windows.entries()) {
      if (window.to <= window.from) fields[`/windows/${i}`] = "A window ends after it begins.";
      if (rules.windows.some((o, k) => k < i && o.from === window.from && o.to === window.to && (o.weekdays & window.weekdays) !== 0)) fields[`/windows/${i}`] = "This window is there twice.";
    }
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    sql("DELETE FROM windows").run();
    for (const window of rules.windows) sql("INSERT INTO windows (weekdays, from_minute, to_minute) VALUES (?, ?, ?)").run(window.weekdays, window.from, window.to);
    sql("UPDATE business SET notice_minutes = ?, horizon_days = ?, hold_minutes = ?").run(rules.noticeMinutes, rules.horizonDays, rules.holdMinutes);
  },
});

export const saveBusiness = defineOperation({
  name: "save-business",
  access: "setup.change",
  input: SaveBusiness,
  run({ sql }, b) {
    if (b.messageTo <= b.messageFrom) throw new Refusal("invalid-input", { fields: { "/messageTo": "The hours end after they begin." } });
    sql(`UPDATE business SET name = ?, phone = ?, mail = ?, payment_days = ?, reminder_hours = ?, message_from = ?, message_to = ?, travel_margin_minutes = ?, travel_margin_percent = ?`)
      .run(b.name, b.phone, b.mail, b.paymentDays, b.reminderHours, b.messageFrom, b.messageTo, b.travelMarginMinutes, b.travelMarginPercent);
  },
});

/** A technician is ill or away. Promised visits of those days lose their technician and wait in the tray. */
export const recordTimeOff = defineOperation({
  name: "record-time-off",
  access: "board.change",
  input: RecordTimeOff,
  run({ sql }, { technicianId, firstDate, lastDate, reason }) {
    if (lastDate < firstDate) throw new Refusal("invalid-input", { fields: { "/lastDate": "The last day is not before the first." } });
    if (!sql("SELECT 1 FROM technicians WHERE id = ?").get(technicianId)) throw new Refusal("not-found");
    const { id } = sql<{ id: number }>("INSERT INTO time_off (technician_id, first_date, last_date, reason) VALUES (?, ?, ?, ?) RETURNING id").get(technicianId, firstDate, lastDate, reason)!;
    const freed = sql<{ visit_id: number }>(
      `SELECT p.visit_id FROM placements p JOIN visits v ON v.id = p.visit_id WHERE p.technician_id = ? AND p.date BETWEEN ? AND ? AND v.state IN ('promised', 'forecast')`,
    ).all(technicianId, firstDate, lastDate);
    // A crew goes together: who is left of it is free too.
    for (const { visit_id } of freed) sql("DELETE FROM placements WHERE visit_id = ?").run(visit_id);
    return { id, freed: freed.length };
  },
});

export const removeTimeOff = defineOperation({
  name: "remove-time-off",
  access: "board.change",
  input: RemoveTimeOff,
  run: ({ sql }, { id }) => void sql("DELETE FROM time_off WHERE id = ?").run(id),
});

export const closeDay = defineOperation({
  name: "close-day",
  access: "setup.change",
  input: CloseDay,
  run: ({ sql }, { date, reason }) => void sql("INSERT INTO closed_days VALUES (?, ?) ON CONFLICT DO UPDATE SET reason = excluded.reason").run(date, reason),
});

/** Inserts a row or changes the one of this id. A name that is taken is told as such. */
function saveRow({ sql }: OperationContext, table: "zones" | "technicians" | "services", id: number | null, values: Record<string, string | number>): number {
  const columns = Object.keys(values);
  try {
    if (id === null)
      return sql<{ id: number }>(`INSERT INTO ${table} (${columns.join(", ")}) VALUES (${columns.map(() => "?").join(", ")}) RETURNING id`).get(...Object.values(values))!.id;
    if (sql(`UPDATE ${table} SET ${columns.map((c) => `${c} = ?`).join(", ")} WHERE id = ?`).run(...Object.values(values), id).changes === 0) throw new Refusal("not-found");
    return id;
  } catch (error) {
    if (sqliteCode(error) === "SQLITE_CONSTRAINT_UNIQUE") {
      const column = /\.(\w+)$/.exec((error as Error).message)?.[1] ?? "name";
      throw new Refusal("name-taken", { fields: { [`/${column}`]: "There is one of this already. Choose another." } });
    }
    throw error;
  }
}

function skillNamed({ sql }: OperationContext, name: string): number {
  const tidy = name.trim();
  return sql<{ id: number }>("SELECT id FROM skills WHERE name = ?").get(tidy)?.id ?? sql<{ id: number }>("INSERT INTO skills (name) VALUES (?) RETURNING id").get(tidy)!.id;
}
