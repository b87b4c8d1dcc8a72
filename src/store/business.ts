import type { Store } from "./database";

export interface BusinessRow {
  name: string;
  phone: string;
  mail: string;
  currency: string;
  prices_include_tax: number;
  time_zone: string;
  lng: number;
  lat: number;
  notice_minutes: number;
  horizon_days: number;
  hold_minutes: number;
  deposit_minutes: number;
  travel_margin_minutes: number;
  travel_margin_percent: number;
  payment_days: number;
  message_from: number;
  message_to: number;
  reminder_hours: number;
  demo_offset_ms: number | null;
  capacity: "route" | "count" | "open" | "ask";
  forecast_room: "full" | "half" | "none";
  winding_percent: number;
  kmh: number;
  labour_cost_minor: number;
  address: string;
  site: string;
  registration: string;
  tax_number: string;
  mark: string | null;
  week_start: number;
  clock_hours: 12 | 24;
  terms: string;
  quote_text: string;
  invoice_text: string;
  outside: "refuse" | "request";
  incoming_person_id: number | null;
  move_hours: number;
  cancel_hours: number;
  on_our_way_bp: number;
  keep_changes_days: number;
}

/** The business this installation serves; undefined before it is set up. */
export const readBusiness = ({ sql }: Pick<Store, "sql">): BusinessRow | undefined =>
  sql<BusinessRow>("SELECT * FROM business WHERE id = 1").get();
