import { titleOf } from "@/core/catalogue/titles";
import { quoteStates } from "@/core/catalogue/quote-states";
import { quoteStanding } from "@/core/catalogue/quotes";
import { jobStates } from "@/core/jobs/states";
import { seesOnly } from "@/core/people/permissions";
import { windowIn } from "@/core/time/local-words";
import { dateWords, dayShort } from "@/core/time/words";
import { isOver, wishWords } from "@/core/windows/wishes";
import type { ViewContext } from "@/kernel/operation";
import { likePattern, type PageAsked, readPage } from "@/kernel/paging";
import { readItem } from "@/modules/catalogue/catalogue";
import type { QuoteRow } from "@/modules/quotes/quotes";
import { repeatsAtRisk, type Risk, riskWords } from "@/modules/repeats/at-risk";
import { type RequestRow } from "@/modules/requests/requests";
import { itemsColumn, wishColumn } from "@/store/columns";

export interface BookingRow {
  id: number;
  booked_at: number;
  approval: "waiting" | "proposed";
  state: string;
  total_minor: number;
  name: string;
  phone: string;
  mail: string;
  line: string;
  postcode: string;
  note: string;
  handler: string | null;
  handler_id: number | null;
  visit: number;
  title: string;
  date: string;
  window_from: number;
  window_to: number;
}
export const bookingRows = `SELECT j.id, j.booked_at, j.approval, j.state, j.total_minor, j.note, c.name, c.phone, c.mail, s.line,
    s.postcode, h.name AS handler, j.handler_id, v.id AS visit, v.title, v.date, v.window_from, v.window_to
  FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id
    JOIN visits v ON v.job_id = j.id AND v.first_visit_id IS NULL LEFT JOIN people h ON h.id = j.handler_id
  WHERE j.approval <> 'given' AND j.state IN ${jobStates.sql("stand")}`;

/** All that waits, as one list. `for_us` where a person of the office is next, and not the customer. */
const waiting = `(
  SELECT 'booking' AS kind, j.id, j.booked_at AS at, c.name, c.phone, c.mail, s.line || ', ' || s.postcode AS place, j.approval = 'waiting' AS for_us, j.handler_id, j.total_minor
    FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id WHERE j.approval <> 'given' AND j.state IN ${jobStates.sql("stand")}
  UNION ALL SELECT 'request', id, made_at, name, phone, mail, address, 1, handler_id, NULL FROM requests WHERE outcome = 'open'
  UNION ALL SELECT 'quote', id, coalesce(answered_at, made_at), name, phone, mail, line || ', ' || postcode, state <> 'sent' OR valid_until < @today, handler_id, total_minor
    FROM quotes WHERE state IN ${quoteStates.sql("open")}
  UNION ALL SELECT 'repeat', r.id, min(risk.at), c.name, c.phone, c.mail, s.line || ', ' || s.postcode, 1, r.handler_id, NULL
    FROM ${repeatsAtRisk} risk JOIN repeats r ON r.id = risk.id JOIN customers c ON c.id = r.customer_id JOIN sites s ON s.id = r.site_id
    GROUP BY r.id) w`;

export const incomingSorts = ["at", "name", "waits", "handler", "totalMinor"] as const;

/** One page of what waits. What waits is nobody's work yet: whoever sees only their own visits sees none of it. */
export function readIncoming(context: ViewContext, asked: PageAsked, forUsOnly = false) {
  const { sql, actor, today } = context;
  const params = { today, all: seesOnly(actor) === null ? 1 : 0, search: likePattern(asked.search) };
  const { rows: keys, count } = readPage<string>(context, asked, {
    from: `FROM ${waiting} LEFT JOIN people h ON h.id = w.handler_id`,
    where: `@all = 1 AND (@search IS NULL OR w.name LIKE @search ESCAPE '\\' OR w.phone LIKE @search ESCAPE '\\' OR w.mail LIKE @search ESCAPE '\\' OR w.place LIKE @search ESCAPE '\\')
      AND @today IS NOT NULL ${forUsOnly ? "AND w.for_us = 1" : ""}`,
    id: "w.kind || ' ' || w.id",
    order: {
      at: "w.at",
      name: "w.name COLLATE NOCASE",
      waits: "w.for_us",
      handler: "h.name COLLATE NOCASE",
      totalMinor: "w.total_minor",
    },
    params,
  });
  const ids = (kind: string) =>
    JSON.stringify(keys.filter((key) => key.startsWith(kind)).map((key) => Number(key.split(" ")[1])));
  const entries = new Map(
    [
      ...readBookings(context, ids("booking")),
      ...readRequests(context, ids("request")),
      ...readQuotes(context, ids("quote")),
      ...readRepeats(context, ids("repeat")),
    ].map((entry) => [entry.key, entry]),
  );
  const counts = sql<{ forUs: number; away: number }>(
    `SELECT coalesce(sum(for_us), 0) AS forUs, coalesce(sum(NOT for_us), 0) AS away
      FROM ${waiting} WHERE @all = 1 AND @today IS NOT NULL`,
  ).get({ today, all: params.all })!;
  return { rows: keys.map((key) => entries.get(key)!), count, ...counts };
}

const readBookings = ({ sql, business }: ViewContext, ids: string) =>
  sql<BookingRow>(`${bookingRows} AND j.id IN (SELECT value FROM json_each(?))`)
    .all(ids)
    .map((b) => ({
      key: `booking ${b.id}`,
      kind: "booking" as const,
      id: b.id,
      at: b.booked_at,
      name: b.name,
      what: b.title,
      handler: b.handler,
      totalMinor: b.total_minor as number | null,
      forUs: b.approval === "waiting",
      waits:
        b.approval === "proposed"
          ? "for the customer’s answer"
          : b.state === "awaiting deposit"
            ? "for the deposit, then for us"
            : "to be confirmed",
      when: `${dayShort(b.date)}, ${windowIn(b.window_from, b.window_to, business.time_zone)}`,
    }));

const readRequests = (context: ViewContext, ids: string) => {
  const titles = titlesOf(context);
  return context
    .sql<RequestRow & { handler: string | null }>(
      `SELECT r.*, h.name AS handler
        FROM requests r LEFT JOIN people h ON h.id = r.handler_id WHERE r.id IN (SELECT value FROM json_each(?))`,
    )
    .all(ids)
    .map((r) => ({
      key: `request ${r.id}`,
      kind: "request" as const,
      id: r.id,
      at: r.made_at,
      name: r.name,
      what: titles(r),
      handler: r.handler,
      totalMinor: null as number | null,
      forUs: true,
      waits: r.wish && isOver(wishColumn.read(r.wish), context.today) ? "no window came in time" : r.about,
      when: r.wish ? wishWords(wishColumn.read(r.wish)) : r.wishes,
    }));
};

const readQuotes = (context: ViewContext, ids: string) => {
  const titles = titlesOf(context);
  return context
    .sql<QuoteRow & { handler: string | null }>(
      `SELECT q.*, h.name AS handler
        FROM quotes q LEFT JOIN people h ON h.id = q.handler_id WHERE q.id IN (SELECT value FROM json_each(?))`,
    )
    .all(ids)
    .map((q) => ({
      key: `quote ${q.id}`,
      kind: "quote" as const,
      id: q.id,
      at: q.answered_at ?? q.made_at,
      name: q.name,
      what: titles(q),
      handler: q.handler,
      totalMinor: q.total_minor as number | null,
      forUs: standingOf(q, context.today).standing !== "out",
      waits: standingOf(q, context.today).waits,
      when: q.answer || `quote ${q.id}, until ${dateWords(q.valid_until)}`,
    }));
};

/** Repeats that need a person; they are settled on their own page. */
const readRepeats = ({ sql, today }: ViewContext, ids: string) =>
  sql<{
    id: number;
    at: number;
    why: Risk;
    date: string;
    name: string;
    service: string;
    handler: string | null;
    answer: string | null;
  }>(
    `SELECT r.id, min(risk.at) AS at, risk.why, risk.date, c.name, s.name AS service, h.name AS handler,
        (SELECT answer FROM repeat_asks a WHERE a.repeat_id = r.id AND a.date = risk.date) AS answer
      FROM ${repeatsAtRisk} risk JOIN repeats r ON r.id = risk.id JOIN customers c ON c.id = r.customer_id
        JOIN services s ON s.id = r.service_id LEFT JOIN people h ON h.id = r.handler_id
      WHERE r.id IN (SELECT value FROM json_each(@ids)) GROUP BY r.id`,
  )
    .all({ ids, today })
    .map((r) => ({
      key: `repeat ${r.id}`,
      kind: "repeat" as const,
      id: r.id,
      at: r.at,
      name: r.name,
      what: r.service,
      handler: r.handler,
      totalMinor: null as number | null,
      forUs: true,
      waits: riskWords[r.why].waits,
      /** The one thing to do about it. */
      next: riskWords[r.why].next,
      when: [dayShort(r.date), r.answer && `“${r.answer}”`].filter(Boolean).join(", "),
    }));

/** What is asked for in many of them, by the names of the services read once. */
function titlesOf({ sql }: ViewContext): (of: Pick<RequestRow, "items">) => string {
  const services = new Map(
    sql<{ id: number; name: string; seats: number }>("SELECT id, name, seats FROM services")
      .all()
      .map((service) => [service.id, service]),
  );
  return ({ items }) =>
    titleOf(
      itemsColumn.read(items).flatMap(({ serviceId, quantity }) => {
        const service = services.get(serviceId);
        return service ? [{ service, quantity }] : [];
      }),
    ) || "a visit";
}

export const standingOf = ({ state, valid_until }: QuoteRow, today: string) =>
  quoteStanding({ state, validUntil: valid_until }, today);

export const whatOf = (context: ViewContext, request: Pick<RequestRow, "items">): string =>
  titleOf(itemsOf(context, request)) || "a visit";

/** What was asked for, of services that are still there. */
export const itemsOf = (context: ViewContext, request: Pick<RequestRow, "items">) =>
  itemsColumn.read(request.items).map((item) => readItem(context, item));
