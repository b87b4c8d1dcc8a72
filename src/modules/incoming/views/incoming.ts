import { seesOnly } from "@/core/people/permissions";
import { answerWords } from "@/core/catalogue/questions";
import type { PricedLine } from "@/core/money/amounts";
import { localOf } from "@/core/time/local";
import { dateWords, dayShort, windowIn } from "@/core/time/words";
import type { WindowAnswer } from "@/core/windows/offers";
import { isOver, suits, wishWords, type Wish } from "@/core/windows/wishes";
import { Refusal } from "@/core/problems";
import { answersOfJob, questionsOf, titleOf, readItem, type Item } from "@/operations/catalogue";
import type { ViewContext } from "@/operations/door";
import { answersFor, bookableDates, namesOf } from "@/operations/placing";
import { peopleWhoMay } from "@/operations/people";
import { answersOfQuote, ranOut, readQuote, wantedOfQuote, type QuoteRow } from "@/operations/quotes";
import { readRequest, wantedOf, type RequestRow } from "@/operations/requests";
import { placingOf, type VisitRow } from "@/operations/visits";
import { IncomingEntry } from "@/schemas/booking";
import { Id, input, LocalDate, OrNull } from "@/schemas/common";
import { Nothing } from "@/schemas/money";
import { Type } from "@sinclair/typebox";
import { defineView } from "./view";

interface BookingRow {
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
const bookingRows = `SELECT j.id, j.booked_at, j.approval, j.state, j.total_minor, j.note, c.name, c.phone, c.mail, s.line, s.postcode, h.name AS handler, j.handler_id, v.id AS visit, v.title, v.date, v.window_from, v.window_to
  FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id JOIN visits v ON v.job_id = j.id AND v.first_visit_id IS NULL LEFT JOIN people h ON h.id = j.handler_id
  WHERE j.approval <> 'given' AND j.state IN ('agreed', 'awaiting deposit')`;

/** Everything that waits, the longest first: bookings to confirm, requests, quotes. `forUs` where a person of the office is next, and not the customer. */
export const incoming = defineView({
  name: "incoming",
  access: "customers.see",
  input: Nothing,
  read(context) {
    const { sql, actor, business, today } = context;
    // What waits is nobody's work yet: whoever sees only their own visits sees none of it.
    if (seesOnly(actor) !== null)
      return {
        entries: [],
        people: [],
        meId: null,
        handles: null,
        currency: business.currency,
        timeZone: business.time_zone,
      };
    const bookings = sql<BookingRow>(`${bookingRows} ORDER BY j.id`)
      .all()
      .map((b) => ({
        key: `booking ${b.id}`,
        kind: "booking" as const,
        id: b.id,
        at: b.booked_at,
        name: b.name,
        what: b.title,
        where: `${b.line}, ${b.postcode}`,
        handler: b.handler,
        handlerId: b.handler_id,
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
    const requests = sql<RequestRow & { handler: string | null }>(
      "SELECT r.*, h.name AS handler FROM requests r LEFT JOIN people h ON h.id = r.handler_id WHERE outcome = 'open' ORDER BY r.id",
    )
      .all()
      .map((r) => ({
        key: `request ${r.id}`,
        kind: "request" as const,
        id: r.id,
        at: r.made_at,
        name: r.name,
        what: whatOf(context, r),
        where: r.address,
        handler: r.handler,
        handlerId: r.handler_id,
        totalMinor: null as number | null,
        forUs: true,
        waits: r.wish && isOver(JSON.parse(r.wish) as Wish, today) ? "no window came in time" : r.about,
        when: r.wish ? wishWords(JSON.parse(r.wish) as Wish) : r.wishes,
      }));
    const quotes = sql<QuoteRow & { handler: string | null }>(
      "SELECT q.*, h.name AS handler FROM quotes q LEFT JOIN people h ON h.id = q.handler_id WHERE state IN ('sent', 'accepted', 'declined') ORDER BY q.id",
    )
      .all()
      .map((q) => ({
        key: `quote ${q.id}`,
        kind: "quote" as const,
        id: q.id,
        at: q.answered_at ?? q.made_at,
        name: q.name,
        what: whatOf(context, q),
        where: `${q.line}, ${q.postcode}`,
        handler: q.handler,
        handlerId: q.handler_id,
        totalMinor: q.total_minor as number | null,
        forUs: standingOf(q, today).standing !== "out",
        waits: standingOf(q, today).waits,
        when: q.answer || `quote ${q.id}, until ${dateWords(q.valid_until)}`,
      }));
    const people = peopleWhoMay(context, "shared.change");
    return {
      entries: [...bookings, ...requests, ...quotes].sort((a, b) => a.at - b.at),
      people,
      meId: actor.kind === "person" ? actor.id : null,
      handles: people.find((p) => p.id === business.incoming_person_id)?.name ?? null,
      currency: business.currency,
      timeZone: business.time_zone,
    };
  },
});

/** Where a quote stands: with the customer, accepted, or ended by their no or by its day; and that in words. */
function standingOf(quote: QuoteRow, today: string): { standing: "out" | "accepted" | "over"; waits: string } {
  if (quote.state === "accepted") return { standing: "accepted", waits: "accepted, to be booked" };
  if (quote.state === "declined") return { standing: "over", waits: "they said no" };
  return ranOut(quote, today)
    ? { standing: "over", waits: "the quote has run out" }
    : { standing: "out", waits: "for the customer’s answer" };
}

const whatOf = (context: ViewContext, request: Pick<RequestRow, "items">): string =>
  titleOf(itemsOf(context, request)) || "a visit";

/** What was asked for, of services that are still there. */
const itemsOf = (context: ViewContext, request: Pick<RequestRow, "items">) =>
  (JSON.parse(request.items) as Item[]).map((item) => readItem(context, item));

/** One of them, with the best technicians and windows worked out. `serviceId` is what the office would do where no service was named; `date` the only day that is asked for. */
export const incomingEntry = defineView({
  name: "incoming-entry",
  access: "shared.change",
  input: Type.Composite(
    [IncomingEntry, input({ serviceId: Type.Optional(Id), date: Type.Optional(OrNull(LocalDate)) })],
    { additionalProperties: false },
  ),
  read(context, { kind, id, serviceId, date = null }) {
    const dates = date === null ? bookableDates(context) : [date];
    switch (kind) {
      case "booking":
        return bookingEntry(context, id, dates);
      case "request":
        return requestEntry(context, id, dates, serviceId);
      case "quote":
        return quoteEntry(context, id, dates);
    }
  },
});

interface EntryDetails extends ReturnType<typeof who> {
  kind: "booking" | "request" | "quote";
  id: number;
  waits: string;
  what: string;
  totalMinor: number | null;
  minutes: number | null;
  answers: { question: string; words: string; photos: string[] }[];
  photos: string[];
  /** What they say, in their words. */
  words: string;
  wish: string | null;
  /** The window they have chosen. */
  chosen: { visit: number; date: string; words: string; technicians: string[] } | null;
  windows: (ReturnType<typeof best>[number] & { suits?: boolean })[];
  /** What is missing before windows can be worked out. */
  needs: "place" | "service" | null;
  services: { id: number; name: string }[];
  /** What was quoted, and where the quote stands. */
  lines: PricedLine[];
  standing: ReturnType<typeof standingOf>["standing"] | null;
}
const nothingElse = {
  answers: [],
  photos: [],
  wish: null,
  chosen: null,
  needs: null,
  services: [],
  lines: [],
  standing: null,
};

function bookingEntry(context: ViewContext, id: number, dates: readonly string[]): EntryDetails {
  const { sql, business } = context;
  const job = sql<BookingRow>(`${bookingRows} AND j.id = ?`).get(id);
  if (!job) throw new Refusal("not-found", { sentence: "This does not wait any more: somebody has dealt with it." });
  const days = sql<VisitRow>("SELECT * FROM visits WHERE job_id = ? AND state = 'promised' ORDER BY window_from").all(
    id,
  );
  const technicians = sql<{ name: string }>(
    "SELECT t.name FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = ?",
  )
    .all(job.visit)
    .map((t) => t.name);
  const others = days.length
    ? answersFor(context, placingOf(days[0]!, days.length), dates, {
        office: true,
        without: days.map((d) => d.id),
      }).filter((a) => a.from !== job.window_from)
    : [];
  return {
    ...nothingElse,
    ...who(job),
    kind: "booking",
    id,
    waits: job.approval,
    what: job.title,
    totalMinor: job.total_minor,
    minutes: days[0]?.minutes ?? null,
    words: job.note,
    answers: answersOfJob(context, id).map(({ question, words, photos = [] }) => ({ question, words, photos })),
    chosen: {
      visit: job.visit,
      date: job.date,
      words: windowIn(job.window_from, job.window_to, business.time_zone),
      technicians,
    },
    windows: best(context, others, (a) => Math.abs(a.from - job.window_from)).sort((a, b) => a.from - b.from),
  };
}

function requestEntry(
  context: ViewContext,
  id: number,
  dates: readonly string[],
  serviceId: number | undefined,
): EntryDetails {
  const { sql, business } = context;
  const request = readRequest(context, id);
  const items = itemsOf(context, request);
  const wanted = wantedOf(context, request, { office: true, ...(serviceId !== undefined && { serviceId }) });
  const wish = request.wish ? (JSON.parse(request.wish) as Wish) : null;
  const meets = (a: Pick<WindowAnswer, "date" | "from" | "to">) => {
    const from = localOf(a.from, business.time_zone).minute;
    return wish !== null && suits(wish, { date: a.date, from, to: from + a.to - a.from });
  };
  // Where the booking rules say no, such as outside all zones, a person may still say yes.
  const strict = wanted ? answersFor(context, wanted.visit, dates, { office: true }) : [];
  const answers =
    wanted && !strict.some((a) => a.offered) ? answersFor(context, wanted.visit, dates, { strict: false }) : strict;
  return {
    ...nothingElse,
    ...who({ ...request, line: request.address, postcode: "" }),
    kind: "request",
    id,
    waits: request.about,
    what: wanted?.visit.title ?? whatOf(context, request),
    totalMinor: wanted?.order.totalMinor ?? null,
    minutes: wanted?.visit.minutes ?? null,
    answers: items.flatMap(({ service, answers: given }) =>
      questionsOf(service).flatMap((q) =>
        given[q.id] === undefined
          ? []
          : [
              {
                question: q.words,
                words: answerWords(q, given[q.id]),
                photos: q.kind === "photo" ? (given[q.id] as string[]) : [],
              },
            ],
      ),
    ),
    photos: JSON.parse(request.photos) as string[],
    words: request.wishes,
    wish: wish && wishWords(wish),
    windows: best(context, answers, (a) => (meets(a) ? 0 : 1e9) + a.from - context.minute).map((w) => ({
      ...w,
      ...(wish && { suits: meets(w) }),
    })),
    needs: request.address_id === null ? "place" : items.length === 0 ? "service" : null,
    services: items.length
      ? []
      : sql<{ id: number; name: string }>(
          "SELECT id, name FROM services WHERE active = 1 ORDER BY category, name",
        ).all(),
  };
}

function quoteEntry(context: ViewContext, id: number, dates: readonly string[]): EntryDetails {
  const quote = readQuote(context, id);
  const wanted = wantedOfQuote(context, quote);
  return {
    ...nothingElse,
    ...who(quote),
    kind: "quote",
    id,
    ...standingOf(quote, context.today),
    what: wanted.visit.title,
    totalMinor: quote.total_minor,
    minutes: quote.minutes,
    photos: JSON.parse(quote.photos) as string[],
    words: [quote.note, quote.answer].filter(Boolean).join("\n"),
    lines: wanted.order.lines,
    windows: best(context, answersOfQuote(context, wanted, dates), (a) => a.from),
  };
}

const who = ({
  name,
  phone,
  mail,
  line,
  postcode,
  handler_id,
}: Pick<BookingRow, "name" | "phone" | "mail" | "line" | "postcode" | "handler_id">) => ({
  name,
  phone,
  mail,
  where: [line, postcode].filter(Boolean).join(", "),
  handlerId: handler_id,
});

/** The six best of what is offered, with who would come. */
function best(context: ViewContext, answers: readonly WindowAnswer[], worse: (answer: WindowAnswer) => number) {
  const names = namesOf(context);
  return answers
    .flatMap((a) => (a.offered ? [a] : []))
    .sort((a, b) => worse(a) - worse(b) || a.from - b.from)
    .slice(0, 6)
    .map((a) => ({
      date: a.date,
      from: a.from,
      to: a.to,
      words: `${dayShort(a.date)}, ${windowIn(a.from, a.to, context.business.time_zone)}`,
      technicians: a.technicians
        .slice(0, Math.max(1, a.meetAt === null ? 1 : a.technicians.length))
        .map((t) => names.technician(t.id)),
      extraDriving: a.technicians[0]?.extraDriving ?? 0,
    }));
}
