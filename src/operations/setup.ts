import { changePrice, roundingNamed } from "@/core/catalogue/prices";
import { questionProblems } from "@/core/catalogue/question-check";
import { effectsIn, type Question } from "@/core/catalogue/questions";
import { patternProblem } from "@/core/place/postcodes";
import { Refusal } from "@/core/problems";
import { clock } from "@/core/time/words";
import { ChangePrices, SaveExtra, SetPrices } from "@/schemas/catalogue";
import { CloseDay, SaveBookingRules, SaveBusiness, SaveService, SaveTechnician, SaveZone, type Limits } from "@/schemas/setup";
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
      ...(zone.windingPercent !== undefined && { winding_percent: zone.windingPercent }), ...(zone.kmh !== undefined && { kmh: zone.kmh }),
    });
    context.sql("DELETE FROM zone_postcodes WHERE zone_id = ?").run(id);
    for (const [i, pattern] of zone.postcodes.entries()) context.sql("INSERT INTO zone_postcodes VALUES (?, ?, ?)").run(id, i, pattern.trim());
    if (zone.technicians) saveTechniciansOf(context, "zone", id, zone.technicians);
    if (zone.limits) saveLimits(context, "zone", id, zone.limits);
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
    if (technician.limits) saveLimits(context, "technician", id, technician.limits);
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
    if (service.hours) refuseOverlaps(service.hours);
    if (service.windows) refuseOddWindows(service.windows);
    if (service.questions) refuseOddQuestions(context, service.questions);
    const id = saveRow(context, "services", service.id, {
      code: service.code.toUpperCase(), name: service.name.trim(), category: service.category.trim(), description: service.description, price_minor: service.priceMinor, tax_bp: service.taxBp,
      minutes: service.minutes, before_minutes: service.beforeMinutes, after_minutes: service.afterMinutes, crew: service.crew,
      deposit_kind: deposit.kind, deposit_value: deposit.kind === "percent" || deposit.kind === "fixed" ? deposit.value : 0, hue: hueOf(context, service.category.trim()), active: service.active ? 1 : 0,
      ...(service.days !== undefined && { days: service.days }), ...(service.noticeMinutes !== undefined && { notice_minutes: service.noticeMinutes }),
      ...(service.capacity !== undefined && { capacity: service.capacity }), ...(service.wish !== undefined && { wish: service.wish }),
      ...(service.questions && { questions: JSON.stringify(service.questions) }),
    });
    const { sql } = context;
    sql("DELETE FROM service_skills WHERE service_id = ?").run(id);
    for (const skill of service.skills) {
      const { name, level } = typeof skill === "string" ? { name: skill, level: 1 } : skill;
      sql("INSERT INTO service_skills (service_id, skill_id, level) VALUES (?, ?, ?) ON CONFLICT DO UPDATE SET level = max(level, excluded.level)").run(id, skillNamed(context, name), level);
    }
    if (service.windows !== undefined) saveOwnWindows(context, id, service.name.trim(), service.windows);
    if (service.hours) {
      sql("DELETE FROM service_hours WHERE service_id = ?").run(id);
      for (const { weekday, opens, closes } of service.hours) sql("INSERT INTO service_hours VALUES (?, ?, ?, ?)").run(id, weekday, opens, closes);
    }
    if (service.extras) {
      sql("DELETE FROM service_extras WHERE service_id = ?").run(id);
      for (const [i, extra] of service.extras.entries()) sql("INSERT INTO service_extras VALUES (?, ?, ?, ?)").run(id, extra.id, i, extra.most);
    }
    if (service.technicians) saveTechniciansOf(context, "service", id, service.technicians);
    if (service.limits) saveLimits(context, "service", id, service.limits);
    return { id };
  },
});

/** What the shape cannot tell: conditions that can never hold, skills and extras that are not there. */
function refuseOddQuestions({ sql }: OperationContext, questions: Question[]): void {
  const fields = Object.fromEntries(Object.entries(questionProblems(questions)).map(([at, sentence]) => [`/questions${at}`, sentence]));
  const known = (table: "skills" | "extras") => new Set(sql<{ id: number }>(`SELECT id FROM ${table}`).all().map((row) => String(row.id)));
  const [skills, extras] = [known("skills"), known("extras")];
  for (const [i, question] of questions.entries())
    for (const effect of effectsIn(question)) {
      if (effect.skills?.some((s) => !skills.has(s.skill))) fields[`/questions/${i}`] = "An answer asks for a skill that is not there any more.";
      if (effect.extras?.some((x) => !extras.has(x.id))) fields[`/questions/${i}`] = "An answer brings an extra that is not there any more.";
    }
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
}

export const saveExtra = defineOperation({
  name: "save-extra",
  access: "setup.change",
  input: SaveExtra,
  run: (context, extra) => ({
    id: saveRow(context, "extras", extra.id, { name: extra.name.trim(), unit: extra.unit.trim(), price_minor: extra.priceMinor, cost_minor: extra.costMinor, tax_bp: extra.taxBp, active: extra.active ? 1 : 0 }),
  }),
});

/** Changes the prices of many services at once. Answers what they were, so that it can be undone. */
export const changePrices = defineOperation({
  name: "change-prices",
  access: "setup.change",
  input: ChangePrices,
  run({ sql, business }, { serviceIds, basisPoints, rounding }) {
    const before = serviceIds.map((serviceId) => {
      const service = sql<{ price_minor: number }>("SELECT price_minor FROM services WHERE id = ?").get(serviceId);
      if (!service) throw new Refusal("not-found");
      return { serviceId, priceMinor: service.price_minor };
    });
    for (const { serviceId, priceMinor } of before) sql("UPDATE services SET price_minor = ? WHERE id = ?").run(changePrice(priceMinor, basisPoints, roundingNamed(rounding, business.currency)), serviceId);
    return { before };
  },
});

/** Puts prices to given amounts: the undo of a change of many. */
export const setPrices = defineOperation({
  name: "set-prices",
  access: "setup.change",
  input: SetPrices,
  run({ sql }, { prices }) {
    for (const { serviceId, priceMinor } of prices) if (sql("UPDATE services SET price_minor = ? WHERE id = ?").run(priceMinor, serviceId).changes === 0) throw new Refusal("not-found");
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
  run(context, rules) {
    const { sql } = context;
    refuseOddWindows(rules.windows);
    if (rules.capacity === "count" && rules.limits && rules.limits.window === null) throw new Refusal("invalid-input", { fields: { "/limits/window": "Capacity by count needs a number of visits per window." } });
    savePattern(context, businessPattern, rules.windows);
    sql("UPDATE business SET notice_minutes = ?, horizon_days = ?, hold_minutes = ?, capacity = coalesce(?, capacity), forecast_room = coalesce(?, forecast_room)")
      .run(rules.noticeMinutes, rules.horizonDays, rules.holdMinutes, rules.capacity ?? null, rules.forecastRoom ?? null);
    if (rules.limits) saveLimits(context, "business", 0, rules.limits);
  },
});

/** The pattern of every service that has none of its own. */
const businessPattern = 1;

function refuseOddWindows(parts: SaveBookingRules["windows"]): void {
  const fields: Record<string, string> = {};
  for (const [i, part] of parts.entries()) {
    if (part.to <= part.from) fields[`/windows/${i}`] = "A window ends after it begins.";
    else if (part.kind === "stepping" && part.length > part.to - part.from) fields[`/windows/${i}`] = "Not even one window of that length fits in here.";
    const twice = parts.some((o, k) => k < i && o.kind === part.kind && o.from === part.from && o.to === part.to && (o.weekdays & part.weekdays) !== 0);
    if (twice) fields[`/windows/${i}`] = "This window is there twice.";
  }
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
}

function savePattern({ sql }: OperationContext, id: number, parts: SaveBookingRules["windows"]): void {
  sql("DELETE FROM pattern_parts WHERE pattern_id = ?").run(id);
  for (const [i, part] of parts.entries())
    sql("INSERT INTO pattern_parts VALUES (?, ?, ?, ?, ?, ?, ?, ?)").run(id, i, part.kind, part.weekdays, part.from, part.to, "length" in part ? part.length : null, "step" in part ? part.step : null);
}

/** A service's own windows; null goes back to those of the business. */
function saveOwnWindows(context: OperationContext, serviceId: number, name: string, parts: SaveBookingRules["windows"] | null): void {
  const { sql } = context;
  const own = sql<{ pattern_id: number | null }>("SELECT pattern_id FROM services WHERE id = ?").get(serviceId)!.pattern_id;
  if (parts) {
    const id = own ?? sql<{ id: number }>("INSERT INTO patterns (name) VALUES (?) RETURNING id").get(`Windows of ${name} (${serviceId})`)!.id;
    savePattern(context, id, parts);
    sql("UPDATE services SET pattern_id = ? WHERE id = ?").run(id, serviceId);
  } else if (own !== null) {
    sql("UPDATE services SET pattern_id = NULL WHERE id = ?").run(serviceId);
    sql("DELETE FROM patterns WHERE id = ?").run(own);
  }
}

function saveLimits({ sql }: OperationContext, scope: "business" | "zone" | "service" | "technician", subjectId: number, limits: Limits): void {
  sql("DELETE FROM limits WHERE scope = ? AND subject_id = ?").run(scope, subjectId);
  for (const per of ["window", "day", "week"] as const)
    if (limits[per] !== null) sql("INSERT INTO limits VALUES (?, ?, ?, ?)").run(scope, subjectId, per, limits[per]);
}

function saveTechniciansOf({ sql }: OperationContext, of: "zone" | "service", id: number, technicians: readonly number[]): void {
  sql(`DELETE FROM ${of}_technicians WHERE ${of}_id = ?`).run(id);
  for (const technicianId of technicians) sql(`INSERT INTO ${of}_technicians VALUES (?, ?)`).run(id, technicianId);
}

export const saveBusiness = defineOperation({
  name: "save-business",
  access: "setup.change",
  input: SaveBusiness,
  run({ sql }, b) {
    if (b.messageTo <= b.messageFrom) throw new Refusal("invalid-input", { fields: { "/messageTo": "The hours end after they begin." } });
    sql(`UPDATE business SET name = ?, phone = ?, mail = ?, payment_days = ?, reminder_hours = ?, message_from = ?, message_to = ?, travel_margin_minutes = ?, travel_margin_percent = ?,
      winding_percent = coalesce(?, winding_percent), kmh = coalesce(?, kmh), labour_cost_minor = coalesce(?, labour_cost_minor)`)
      .run(b.name, b.phone, b.mail, b.paymentDays, b.reminderHours, b.messageFrom, b.messageTo, b.travelMarginMinutes, b.travelMarginPercent, b.windingPercent ?? null, b.kmh ?? null, b.labourCostMinor ?? null);
  },
});

export const closeDay = defineOperation({
  name: "close-day",
  access: "setup.change",
  input: CloseDay,
  run: ({ sql }, { date, reason }) => void sql("INSERT INTO closed_days VALUES (?, ?) ON CONFLICT DO UPDATE SET reason = excluded.reason").run(date, reason),
});

/** Inserts a row or changes the one of this id. A name that is taken is told as such. */
function saveRow({ sql }: OperationContext, table: "zones" | "technicians" | "services" | "extras", id: number | null, values: Record<string, string | number | null>): number {
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

/** The id of a skill, made where it is not there yet. */
export function skillNamed({ sql }: OperationContext, name: string): number {
  const tidy = name.trim();
  return sql<{ id: number }>("SELECT id FROM skills WHERE name = ?").get(tidy)?.id ?? sql<{ id: number }>("INSERT INTO skills (name) VALUES (?) RETURNING id").get(tidy)!.id;
}
