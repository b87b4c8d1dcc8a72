import { type KeptRoom, perAddress, roomRefusal } from "@/core/people/hoarding";
import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { minutesIn } from "@/core/time/spans";
import { dayMs } from "@/core/horizons";
import { actorWords, type OperationContext, type ViewContext } from "@/kernel/operation";
import { loadPlanning } from "@/modules/placing/planning";

interface Contact {
  mail: string;
  phone: string;
}

/** Bookings that still lie ahead and of which nobody has shown anything. */
const unprovedJobs = "j.proof IN ('none', 'asked') AND j.state IN ('agreed', 'awaiting deposit')";

/** For queries on jobs `j`: those that have not been, from `@today` on. */
const isAhead =
  "j.state IN ('agreed', 'awaiting deposit') AND EXISTS (SELECT 1 FROM visits WHERE job_id = j.id AND date >= @today)";

/** Whether whoever acts is known: signed in, or by the link of a booking for which they have shown who they are. */
export function isKnown({ actor, sql }: OperationContext): boolean {
  if (actor.kind !== "link") return actor.kind !== "visitor";
  const { proof } = sql<{ proof: string }>("SELECT proof FROM jobs WHERE id = ?").get(actor.jobId)!;
  return proof === "known" || proof === "given";
}

/**
 * Refuses whoever keeps too much room already, or where unproved people keep their share of the day: counted here, in the
 * transaction that would keep more. Whoever is signed in is not counted; whoever is `proved` may keep what a customer may.
 */
export function mayKeepRoom(
  context: OperationContext,
  visit: { date: LocalDate; minutes: number | null },
  contact: Contact | null = null,
  proved = isKnown(context),
): void {
  const { business, actor } = context;
  if (actor.kind === "person" || actor.kind === "system") return;
  const kept = keptByThemselves(context, contact);
  if (kept >= business.proved_each)
    throw new Refusal("too-many-holds", {
      sentence: `You have ${kept} times with us already. Call us on ${business.phone}, and we find more.`,
      security: { kind: "room refused", who: contact?.mail ?? actorWords(actor), words: `keeps ${kept} times already` },
    });
  if (proved) return;
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

/** Bookings that somebody has made themselves, by their link, email, phone or browser, and that lie ahead or were made within a day; and what they keep just now. */
function keptByThemselves({ sql, now, today, actor, origin }: OperationContext, contact: Contact | null): number {
  const { kept } = sql<{ kept: number }>(
    `SELECT (SELECT count(*) FROM jobs j WHERE j.booked_by = 'front door' AND j.id IN (
          SELECT id FROM jobs WHERE customer_id = @customerId
          UNION SELECT id FROM jobs WHERE mail = @mail COLLATE NOCASE AND mail <> ''
          UNION SELECT id FROM jobs WHERE phone = @phone AND phone <> ''
          UNION SELECT id FROM jobs WHERE from_browser = @browser)
        AND (j.booked_at > @dayAgo OR (${isAhead})))
      + iif(@mail IS NULL, (SELECT count(*) FROM visits WHERE state = 'held' AND held_until >= @now AND first_visit_id IS NULL
          AND from_browser = @browser), 0) AS kept`,
  ).get({
    customerId: actor.kind === "link" ? actor.customerId : null,
    mail: contact?.mail ?? null,
    phone: contact?.phone ?? null,
    browser: origin.browser,
    dayAgo: now - dayMs,
    today,
    now,
  })!;
  return kept;
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
const unprovedMinutes = (sql: ViewContext["sql"], date: LocalDate, now: number): number =>
  sql<{ minutes: number }>(
    `SELECT coalesce(sum(minutes), 0) AS minutes FROM (
        SELECT max(v.minutes * v.crew) AS minutes
        FROM visits v LEFT JOIN jobs j ON j.id = v.job_id
        WHERE v.date = ? AND ((v.state = 'held' AND v.held_until >= ?)
          OR (v.state = 'promised' AND ${unprovedJobs}))
        GROUP BY coalesce(v.shared_id, -v.id))`,
  ).get(date, now)!.minutes;

function workableOn(context: ViewContext, date: LocalDate): number {
  const planning = loadPlanning(context, [date]);
  return planning.technicians.reduce((sum, t) => sum + minutesIn(planning.dayOf(t.id, date).hours), 0);
}

/** What is kept: from one network address, on one date, or by one customer; null is any. */
export interface KeptBy {
  address: string | null;
  date: LocalDate | null;
  customerId?: number | null;
}

/** Holds and bookings of unproved people, from one address or on one date; or what one customer has booked by themselves. */
export function unprovedRoom(
  { sql, now, today }: ViewContext,
  { address, date, customerId = null }: KeptBy,
): { holds: number[]; jobs: number[] } {
  const params = { address, date, now, today };
  const ids = (query: string) =>
    sql<{ id: number }>(query)
      .all(params)
      .map(({ id }) => id);
  if (customerId !== null)
    return {
      holds: [],
      jobs: sql<{ id: number }>(
        `SELECT j.id FROM jobs j WHERE j.customer_id = @customerId AND j.booked_by = 'front door' AND ${isAhead}`,
      )
        .all({ customerId, today })
        .map(({ id }) => id),
    };
  return {
    holds: ids(
      `SELECT id FROM visits WHERE state = 'held' AND held_until >= @now AND first_visit_id IS NULL AND @today IS NOT NULL
        AND (@address IS NULL OR from_address = @address) AND (@date IS NULL OR date = @date)`,
    ),
    jobs: ids(
      `SELECT j.id FROM jobs j WHERE ${unprovedJobs} AND (@address IS NULL OR j.from_address = @address) AND @now IS NOT NULL
        AND EXISTS (SELECT 1 FROM visits WHERE job_id = j.id AND date >= @today AND (@date IS NULL OR date = @date))`,
    ),
  };
}

export interface Hoarding extends KeptBy {
  /** Whose bookings they are, where somebody known has made them. */
  name?: string;
  /** Holds and bookings. */
  kept: number;
}

/** Where unproved people keep so much that a person should look: nearly all that one address may, or that a day lets them. */
export function hoarding(context: ViewContext): Hoarding[] {
  const { sql, now, today, business } = context;
  const most = business.unproved_each * perAddress;
  const byAddress = sql<{ address: string; kept: number }>(
    `SELECT address, count(*) AS kept FROM (
        SELECT from_address AS address FROM visits
        WHERE state = 'held' AND held_until >= @now AND first_visit_id IS NULL
        UNION ALL SELECT j.from_address FROM jobs j
        WHERE ${unprovedJobs} AND EXISTS (SELECT 1 FROM visits WHERE job_id = j.id AND date >= @today))
      WHERE address IS NOT NULL GROUP BY address HAVING count(*) >= @most ORDER BY kept DESC LIMIT 10`,
  ).all({ now, today, most });
  const byDate = sql<{ date: LocalDate; kept: number; minutes: number }>(
    `SELECT v.date, count(*) AS kept, sum(v.minutes * v.crew) AS minutes
      FROM visits v LEFT JOIN jobs j ON j.id = v.job_id
      WHERE v.date >= @today
        AND ((v.state = 'held' AND v.held_until >= @now) OR (v.state = 'promised' AND ${unprovedJobs}))
      GROUP BY v.date HAVING count(*) > @most ORDER BY v.date LIMIT 10`,
  ).all({ now, today, most });
  const byCustomer = sql<{ customerId: number; name: string; kept: number }>(
    `SELECT j.customer_id AS customerId, c.name, count(*) AS kept FROM jobs j JOIN customers c ON c.id = j.customer_id
      WHERE j.booked_by = 'front door' AND j.proof NOT IN ('none', 'asked') AND ${isAhead}
      GROUP BY j.customer_id HAVING count(*) >= @each ORDER BY kept DESC LIMIT 10`,
  ).all({ today, each: business.proved_each });
  return [
    ...byCustomer.map((by) => ({ ...by, address: null, date: null })),
    ...byAddress.map(({ address, kept }) => ({ address, date: null, kept })),
    ...byDate
      .filter(({ date, minutes }) => minutes > (workableOn(context, date) * business.unproved_percent) / 200)
      .map(({ date, kept }) => ({ address: null, date, kept })),
  ];
}
