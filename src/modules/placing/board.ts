import type { VisitState } from "@/core/visits/states";
export interface BoardVisit {
  id: number;
  state: VisitState;
  code: string;
  service: string;
  hue: number;
  customer: string;
  site: string;
  minutes: number;
  /** Minutes of the day. */
  windowFrom: number;
  windowTo: number;
  crew: number;
}

export interface BoardStop extends BoardVisit {
  driveFrom: number;
  /** Minutes, without a break in between. */
  driving: number;
  arrives: number;
  leaves: number;
}

export const visitColumns = `v.id, v.state, s.code, v.title AS service, s.hue, v.minutes, v.crew, v.date, v.window_from, v.window_to,
  coalesce(c.name, rc.name, 'A customer is booking') AS customer, CASE v.work_place WHEN 'ours' THEN 'At our place' ELSE coalesce(t.line, rt.line, '') END AS site`;
export const visitTables = `visits v JOIN services s ON s.id = v.service_id
  LEFT JOIN jobs j ON j.id = v.job_id LEFT JOIN customers c ON c.id = j.customer_id LEFT JOIN sites t ON t.id = j.site_id
  LEFT JOIN repeats r ON r.id = v.repeat_id LEFT JOIN customers rc ON rc.id = r.customer_id LEFT JOIN sites rt ON rt.id = r.site_id`;

export interface BoardRow {
  id: number;
  state: VisitState;
  code: string;
  service: string;
  hue: number;
  minutes: number;
  crew: number;
  date: string;
  window_from: number;
  window_to: number;
  customer: string;
  site: string;
}
