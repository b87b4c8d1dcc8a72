import { type KeptRoom, roomRefusal } from "@/core/people/hoarding";
import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { minutesIn } from "@/core/time/spans";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { loadPlanning } from "@/modules/placing/planning";

interface Contact {
  mail: string;
  phone: string;
}

/** Bookings that still lie ahead and of which nobody has shown anything. */
const unprovedJobs = "j.proof IN ('none', 'asked') AND j.state IN ('agreed', 'awaiting deposit')";

/**
 * Refuses a visitor who keeps too much room already, or where unproved people keep their share of the day: counted here, in
 * the transaction that would keep more. Whoever is signed in, and whoever comes by a proved link, is not counted.
 */
export function mayKeepRoom(
  context: OperationContext,
  visit: { date: LocalDate; minutes: number | null },
  contact: Contact | null = null,
): void {
  const { actor, business } = context;
  if (actor.kind !== "visitor") return;
  const refusal = roomRefusal(
    keptRoom(context, visit.date, contact),
    { each: business.unproved_each, percentOfDay: business.unproved_percent },
    visit.minutes,
  );
  if (!refusal) return;
  throw new Refusal(refusal, {
    ...(contact &&
      refusal === "too-many-holds" && {
        sentence: `There are several bookings already that nobody has confirmed. Confirm one of them, or call us on ${business.phone}.`,
      }),
    security: {
      kind: "room refused",
      who: contact?.mail ?? "a visitor",
      words: refusal === "day-is-kept" ? `unproved people keep much of ${visit.date}` : "keeps several times already",
    },
  });
}

function keptRoom(context: OperationContext, date: LocalDate, contact: Contact | null): KeptRoom {
  const { sql, now, today, origin } = context;
  const { address, browser } = origin;
  const holds = sql<{ byBrowser: number; byAddress: number }>(
    `SELECT count(*) FILTER (WHERE from_browser = @browser) AS byBrowser,
        count(*) FILTER (WHERE from_address = @address) AS byAddress
      FROM visits WHERE state = 'held' AND held_until >= @now AND first_visit_id IS NULL`,
  ).get({ browser, address, now })!;
  const booked = sql<{ byBrowser: number; byAddress: number; byContact: number }>(
    `SELECT count(*) FILTER (WHERE from_browser = @browser) AS byBrowser,
        count(*) FILTER (WHERE from_address = @address) AS byAddress,
        count(*) FILTER (WHERE mail = @mail COLLATE NOCASE OR phone = @phone) AS byContact
      FROM jobs j WHERE ${unprovedJobs} AND EXISTS (SELECT 1 FROM visits WHERE job_id = j.id AND date >= @today)`,
  ).get({ browser, address, mail: contact?.mail ?? null, phone: contact?.phone ?? null, today })!;
  return {
    // What is booked comes out of a hold: whoever books is not asked about the holds they have.
    byBrowser: booked.byBrowser + (contact ? 0 : holds.byBrowser),
    byAddress: booked.byAddress + (contact ? 0 : holds.byAddress),
    byContact: booked.byContact,
    minutesOfDay: unprovedMinutes(sql, date, now),
    workable: workableOn(context, date),
  };
}

/** Minutes of work that unproved people keep on a date. */
export const unprovedMinutes = (sql: ViewContext["sql"], date: LocalDate, now: number): number =>
  sql<{ minutes: number }>(
    `SELECT coalesce(sum(v.minutes * v.crew), 0) AS minutes
      FROM visits v LEFT JOIN jobs j ON j.id = v.job_id
      WHERE v.date = ? AND ((v.state = 'held' AND v.held_until >= ?)
        OR (v.state = 'promised' AND ${unprovedJobs}))`,
  ).get(date, now)!.minutes;

function workableOn(context: OperationContext, date: LocalDate): number {
  const planning = loadPlanning(context, [date]);
  return planning.technicians.reduce((sum, t) => sum + minutesIn(planning.dayOf(t.id, date).hours), 0);
}
