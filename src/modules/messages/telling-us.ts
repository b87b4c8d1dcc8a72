import { hourMs } from "@/core/horizons";
import type { MergeFields } from "@/core/messages/fields";
import type { Occasion } from "@/core/messages/occasions";
import type { OperationContext } from "@/kernel/operation";
import { readFrontDoor } from "@/store/front-door";
import { timesOf, tellUs } from "./messaging";

interface News {
  /** What tells it from all else: it is told at most once. */
  key: string;
  /** What has happened. */
  what: string;
  /** What the customer says with it. */
  said?: string;
}

/** Tells everybody whom the owner has named of a booking, new or changed by its customer: once each. */
export function tellOffice(
  context: OperationContext,
  jobId: number,
  { key, what, said }: News = { key: `booking of job ${jobId}`, what: "New booking" },
): void {
  const { sql, business } = context;
  const job = sql<{ name: string; phone: string; line: string; total_minor: number; note: string }>(
    `SELECT c.name, c.phone, s.line, j.total_minor, j.note
      FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id WHERE j.id = ?`,
  ).get(jobId)!;
  const visits = sql<{ title: string; date: string; window_from: number; window_to: number }>(
    "SELECT title, date, window_from, window_to FROM visits WHERE job_id = ? ORDER BY window_from",
  ).all(jobId);
  tellEach(context, "new booking", key, toldOf(context, jobId), {
    what,
    who: `${job.name}, ${job.line}`,
    service: visits[0]!.title,
    ...timesOf(business.time_zone, visits),
    total: { minor: job.total_minor, currency: business.currency },
    more: job.phone,
    words: said ?? job.note,
  });
}

/** Tells all of them something, by mail and phone. */
export function tellAll(
  context: OperationContext,
  { key, what, who, more = "" }: { key: string; what: string; who: string; more?: string },
): void {
  tellEach(context, "office news", key, officeAddresses(context), { what, who, more });
}

/** Tells the same people of an occasion of its own. */
export const tellOfficeOf = (context: OperationContext, occasion: Occasion, key: string, fields: MergeFields): void =>
  tellEach(context, occasion, key, officeAddresses(context), fields);

interface Address {
  mail: string;
  phone: string;
}

function tellEach(
  context: OperationContext,
  occasion: Occasion,
  key: string,
  addresses: readonly Address[],
  fields: MergeFields,
): void {
  const told = new Set<string>();
  for (const { mail, phone } of addresses) {
    const address = mail || phone;
    if (!address || told.has(address)) continue;
    told.add(address);
    // What strangers send in is told one by one while there is little of it, and as one thing afterwards.
    const news =
      causedOutside(context) && newsOfHour(context, address) >= mostNews
        ? { ...manyNews, about: `more in hour ${Math.floor(context.now / hourMs)}, to ${address}` }
        : { occasion, about: `${key}, to ${address}`, fields };
    tellUs(context, { mail, phone }, news);
  }
}

/** News to one of us within an hour; what comes beyond is said once an hour. */
const mostNews = 6;
const manyNews = {
  occasion: "office news" as const,
  fields: { what: "More keeps coming in: look at Incoming and at the board", who: "many at once", more: "" },
};

const causedOutside = ({ actor }: OperationContext): boolean => actor.kind === "visitor" || actor.kind === "link";

const newsOfHour = ({ sql, now }: OperationContext, address: string): number =>
  sql<{ n: number }>(
    "SELECT count(*) AS n FROM messages WHERE recipient = ? AND written_at > ? AND kind IN ('new booking', 'office news')",
  ).get(address, now - hourMs)!.n;

/** Whoever is named at the front door, and the person who handles what comes in. */
function officeAddresses(context: OperationContext): Address[] {
  const { sql, business } = context;
  const named = readFrontDoor(context).tells.map(({ way, to }) => ({
    mail: way === "mail" ? to : "",
    phone: way === "text" ? to : "",
  }));
  const handles = sql<{ mail: string }>("SELECT mail FROM people WHERE id = ? AND active = 1")
    .all(business.incoming_person_id)
    .map(({ mail }) => ({ mail, phone: "" }));
  return [...named, ...handles];
}

/** Of a booking also whoever is named for its services, and for the technicians who come. */
function toldOf(context: OperationContext, jobId: number): Address[] {
  const more = context
    .sql<{ address: string }>(
      `SELECT s.tells AS address FROM job_items i JOIN services s ON s.id = i.service_id WHERE i.job_id = @jobId AND s.tells <> ''
        UNION SELECT t.tells FROM visits v JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id
          WHERE v.job_id = @jobId AND t.tells <> ''`,
    )
    .all({ jobId });
  return [...officeAddresses(context), ...more.map(({ address }) => ({ mail: address, phone: "" }))];
}
