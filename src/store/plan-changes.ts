import type Database from "better-sqlite3";

/**
 * Numbers every change to somebody's day, so that prepared days can be kept in memory and each
 * process learns, within the transaction it reads in, which of them are out of date. Temporary
 * triggers, as for the audit: every connection that writes is opened by openStore.
 */
const watched: {
  table: string;
  events: ("INSERT" | "UPDATE" | "DELETE")[];
  of?: string;
  technician: string;
  date: string;
  from?: string;
}[] = [
  { table: "placements", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "ROW.date" },
  {
    table: "visits",
    events: ["UPDATE"],
    of: "state, zone_id, window_from, window_to, minutes, before_minutes, after_minutes, meet_at, lng, lat, started_at, ended_at",
    technician: "technician_id",
    date: "date",
    from: "placements WHERE visit_id = ROW.id",
  },
  { table: "errands", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "ROW.date" },
  { table: "day_hours", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "ROW.date" },
  { table: "working_spans", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "''" },
  { table: "time_off", events: ["INSERT", "UPDATE", "DELETE"], technician: "ROW.technician_id", date: "''" },
  { table: "technicians", events: ["UPDATE"], technician: "ROW.id", date: "''" },
  { table: "technician_skills", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "''" },
  { table: "technician_zones", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "''" },
  { table: "technician_services", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "''" },
  { table: "zone_technicians", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "''" },
  { table: "service_technicians", events: ["INSERT", "DELETE"], technician: "ROW.technician_id", date: "''" },
  { table: "zones", events: ["UPDATE"], of: "winding_percent, kmh, extra_minutes", technician: "0", date: "''" },
  {
    table: "business",
    events: ["UPDATE"],
    of: "travel_margin_minutes, travel_margin_percent, winding_percent, kmh, time_zone, forecast_room",
    technician: "0",
    date: "''",
  },
];

/** What repeats are laid out by, beside somebody's days: kept under a technician who is nobody. */
export const repeatsRules = -1;
const all = ["INSERT", "UPDATE", "DELETE"] as const;
for (const [table, of] of [
  ["opening_hours", undefined],
  ["special_days", undefined],
  ["service_hours", undefined],
  ["zones", "weekdays, serve_from, serve_to, serve_past, active, surcharge_minor, smallest_order_minor"],
  ["services", "price_minor, tax_bp, minutes, before_minutes, after_minutes, crew, questions, promise_days"],
  ["extras", "price_minor, tax_bp"],
  ["job_patterns", "items, minutes, crew"],
  ["business", "repeat_months, promise_days, ask_days, ask_again_days, prices_include_tax"],
] as const)
  watched.push({ table, events: of ? ["UPDATE"] : [...all], of, technician: String(repeatsRules), date: "''" });

export function installPlanChanges(db: Database.Database): void {
  for (const [n, { table, events, of, technician, date, from }] of watched.entries())
    for (const event of events) {
      const row = event === "DELETE" ? "OLD" : "NEW";
      const say = (text: string) => text.replaceAll("ROW", row);
      db.exec(`CREATE TEMP TRIGGER plan_changes_${table}_${event}_${n} AFTER ${event} ${of ? `OF ${of}` : ""} ON main.${table} BEGIN
        INSERT INTO plan_changes SELECT ${say(technician)}, ${say(date)}, (SELECT coalesce(max(version), 0) + 1 FROM plan_changes) ${from ? `FROM ${say(from)}` : "WHERE true"}
        ON CONFLICT DO UPDATE SET version = excluded.version;
      END;`);
    }
}

export interface PlanChange {
  /** 0: everybody. */
  technician_id: number;
  /** '': every day. */
  date: string;
  version: number;
}
