import type { MergeFields } from "@/core/messages/fields";
import type { Occasion } from "@/core/messages/occasions";
import { addDays, type LocalDate, weekdayOf } from "@/core/time/dates";
import { epochMinute, localOf } from "@/core/time/local";
import { windowIn } from "@/core/time/local-words";
import { dayChanges } from "@/core/visits/day-changes";
import { visitStates } from "@/core/visits/states";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { tellUs } from "@/modules/messages/messaging";
import { settingsOf } from "@/modules/messages/settings";
import { stopsColumn } from "@/store/columns";
import { counted } from "@/core/words";

/** A stop of a technician's day, as they are told of it. */
interface Stop {
  id: number;
  title: string;
  site: string;
  customer: string;
  window_from: number;
  window_to: number;
}

const isOn = (context: ViewContext, occasion: Occasion): boolean => settingsOf(context, occasion).on;

interface Technician {
  id: number;
  name: string;
  mail: string;
  phone: string;
}

const technicians = ({ sql }: ViewContext): Technician[] =>
  sql<Technician>(
    `SELECT t.id, t.name, coalesce(nullif(t.mail, ''), p.mail, '') AS mail, t.phone FROM technicians t
      LEFT JOIN people p ON p.technician_id = t.id AND p.active = 1 WHERE t.active = 1 GROUP BY t.id ORDER BY t.id`,
  ).all();

const stopsOf = (
  { sql }: ViewContext,
  technicianId: number,
  date: LocalDate,
  states = visitStates.sql("expect"),
): Stop[] =>
  sql<Stop>(
    `SELECT v.id, v.title, coalesce(s.line, '') AS site, coalesce(c.name, '') AS customer, v.window_from, v.window_to
      FROM placements p JOIN visits v ON v.id = p.visit_id LEFT JOIN jobs j ON j.id = v.job_id
        LEFT JOIN sites s ON s.id = j.site_id LEFT JOIN customers c ON c.id = j.customer_id
      WHERE p.technician_id = ? AND p.date = ? AND v.state IN ${states} AND v.job_id IS NOT NULL ORDER BY p.arrives`,
  ).all(technicianId, date);

const fieldsOf = (zone: string, stop: Stop): Record<string, string> => ({
  window: windowIn(stop.window_from, stop.window_to, zone),
  service: stop.title,
  site: stop.site,
  who: stop.customer,
});

/** Lists, changes and summaries that have fallen due for our own people, each once. */
export function tellTeam(context: OperationContext): void {
  const { business, minute, today } = context;
  const { minute: now } = localOf(minute, business.time_zone);
  const tomorrow = addDays(today, 1);
  const isEvening = now >= business.evening_at;
  for (const technician of technicians(context)) {
    if (isEvening) tellDay(context, technician, tomorrow, "day ahead");
    if (now >= business.morning_at) tellDay(context, technician, today, "day begins");
    for (const date of isEvening ? [today, tomorrow] : [today]) tellChanges(context, technician, date);
    tellSoon(context, technician);
  }
  context.sql("DELETE FROM told_days WHERE date < ?").run(today);
  if (isEvening) tellSummary(context, "daily summary", today);
  if (isEvening && weekdayOf(today) === sunday) tellSummary(context, "weekly summary", addDays(today, -6));
}

const sunday = 6;

/** A whole day to whoever works it, once; nothing where nothing is on it. */
function tellDay(
  context: OperationContext,
  technician: Technician,
  date: LocalDate,
  occasion: "day ahead" | "day begins",
): void {
  if (!isOn(context, occasion)) return;
  const zone = context.business.time_zone;
  const stops = stopsOf(context, technician.id, date);
  const left = occasion === "day begins" ? stopsOf(context, technician.id, addDays(date, -1)) : [];
  if (stops.length + left.length === 0) return;
  tellUs(context, technician, {
    occasion,
    about: `technician ${technician.id} on ${date}`,
    fields: {
      technician: technician.name,
      day: { days: [date] },
      stops: stops.map((stop) => fieldsOf(zone, stop)),
      left_over: left.map((stop) => fieldsOf(zone, stop)),
    },
  });
}

/** So long a day is left alone after its last message: several changes are one. */
const quietMs = 10 * 60_000;

/** What is another on a day than its technician knows. */
function tellChanges(context: OperationContext, technician: Technician, date: LocalDate): void {
  const { sql, now, business } = context;
  const stops = stopsOf(context, technician.id, date, visitStates.sql("count"));
  const key = stops.map(({ id, window_from }) => ({ id, window_from }));
  const known = sql<{ stops: string; told_at: number }>(
    "SELECT stops, told_at FROM told_days WHERE technician_id = ? AND date = ?",
  ).get(technician.id, date);
  const put = () =>
    sql(
      `INSERT INTO told_days (technician_id, date, stops, told_at) VALUES (?, ?, ?, ?)
        ON CONFLICT (technician_id, date) DO UPDATE SET stops = excluded.stops, told_at = excluded.told_at`,
    ).run(technician.id, date, JSON.stringify(key), now);
  if (!known) return void put();
  const before = stopsColumn.read(known.stops);
  const changes = dayChanges(before, stops);
  if (!changes || now - known.told_at < quietMs) return;
  const { fresh, moved, gone } = changes;
  put();
  if (!isOn(context, "day changed")) return;
  const words = (stop: Stop) =>
    `${windowIn(stop.window_from, stop.window_to, business.time_zone)} ${stop.customer}, ${stop.site}`;
  const what = [
    ...fresh.map((stop) => `new: ${words(stop)}`),
    ...moved.map((stop) => `another time: ${words(stop)}`),
    ...(gone > 0 ? [gone === 1 ? "one visit is gone" : `${gone} visits are gone`] : []),
  ].join("; ");
  tellUs(context, technician, {
    occasion: "day changed",
    about: `technician ${technician.id} on ${date} at ${now}`,
    fields: { technician: technician.name, day: { days: [date] }, what },
  });
}

/** So many minutes before a window opens. */
const soonMinutes = 60;

function tellSoon(context: OperationContext, technician: Technician): void {
  if (!isOn(context, "visit soon")) return;
  const { minute, business, today } = context;
  for (const stop of stopsOf(context, technician.id, today, "('promised')"))
    if (stop.window_from > minute && stop.window_from - minute <= soonMinutes)
      tellUs(context, technician, {
        occasion: "visit soon",
        about: `visit ${stop.id} at ${stop.window_from}`,
        fields: { ...fieldsOf(business.time_zone, stop), where: stop.site, day: { days: [today] } },
      });
}

/** How a day or a week went, to the owners. */
function tellSummary(context: OperationContext, occasion: "daily summary" | "weekly summary", since: LocalDate): void {
  if (!isOn(context, occasion)) return;
  const { sql, business, today } = context;
  const { currency } = business;
  const startOf = (date: LocalDate) => epochMinute(date, 0, business.time_zone) * 60_000;
  const figures = sql<{
    done: number;
    missed: number;
    booked: number;
    value: number;
    received: number;
    tomorrow: number;
    waits: number;
    unplaced: number;
  }>(
    `SELECT (SELECT count(*) FROM visits WHERE state = 'done' AND date BETWEEN @since AND @today) AS done,
        (SELECT count(*) FROM visits WHERE state = 'no access' AND date BETWEEN @since AND @today) AS missed,
        (SELECT count(*) FROM jobs WHERE state <> 'cancelled' AND booked_at >= @from AND booked_at < @until) AS booked,
        (SELECT coalesce(sum(total_minor), 0) FROM jobs WHERE state <> 'cancelled' AND booked_at >= @from AND booked_at < @until) AS value,
        (SELECT coalesce(sum(amount_minor), 0) FROM payments WHERE state = 'received' AND settled_at >= @from AND settled_at < @until) AS received,
        (SELECT count(*) FROM visits WHERE state = 'promised' AND date = date(@today, '+1 day')) AS tomorrow,
        (SELECT count(*) FROM threads WHERE waiting_since IS NOT NULL) AS waits,
        (SELECT count(*) FROM visits v WHERE state = 'promised' AND date BETWEEN @today AND date(@today, '+3 days')
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)) AS unplaced`,
  ).get({ since, today, from: startOf(since), until: startOf(addDays(today, 1)) })!;
  const fields: MergeFields = {
    day: { days: [today] },
    figures: [
      { name: "Visits done", value: String(figures.done) },
      { name: "Nobody home", value: String(figures.missed) },
      { name: "Booked", value: String(figures.booked) },
      { name: "Worth", value: { minor: figures.value, currency } },
      { name: "Received", value: { minor: figures.received, currency } },
      { name: "Tomorrow", value: String(figures.tomorrow) },
    ],
    needs: [
      ...(figures.unplaced
        ? [{ what: `${counted(figures.unplaced, "visit")} in the next days still without a technician` }]
        : []),
      ...(figures.waits ? [{ what: `${counted(figures.waits, "conversation")} waiting for an answer` }] : []),
    ],
  };
  for (const { id, mail } of sql<{ id: number; mail: string }>(
    "SELECT id, mail FROM people WHERE role = 'owner' AND active = 1",
  ).all())
    tellUs(context, { mail, phone: "" }, { occasion, about: `person ${id} on ${today}`, fields });
}
