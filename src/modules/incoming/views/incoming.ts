import { answerWords } from "@/core/catalogue/questions";
import { type PricedLine, totalOf } from "@/core/money/amounts";
import { seesOnly } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { localOf } from "@/core/time/local";
import { windowIn } from "@/core/time/local-words";
import { dayShort } from "@/core/time/words";
import type { WindowAnswer } from "@/core/windows/offer";
import { suits, wishWords } from "@/core/windows/wishes";
import { DateText, Id, input, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { pageInput } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { questionsOf } from "@/modules/catalogue/catalogue";
import { answersOfJob } from "@/modules/catalogue/job-items";
import { peopleWhoMay } from "@/modules/people/people";
import { placingOf, type VisitRow } from "@/modules/placing/visits";
import { answersFor, bookableDates, namesOf } from "@/modules/placing/windows";
import { answersOfQuote, optionsOf, readQuote, wantedOfQuote, withOption } from "@/modules/quotes/quotes";
import { readRequest, wantedOf } from "@/modules/requests/requests";
import { photosColumn, wishColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { type BookingRow, bookingRows, incomingSorts, itemsOf, readIncoming, standingOf, whatOf } from "../entries";
import { IncomingEntry } from "../inputs";

/** One page of what waits, and who may be on it. */
export const incoming = defineView({
  name: "incoming",
  access: "customers.see",
  input: input(pageInput(incomingSorts)),
  read(context, asked) {
    const { actor, business } = context;
    const people = seesOnly(actor) === null ? peopleWhoMay(context, "board.change of all") : [];
    return {
      ...readIncoming(context, asked),
      people,
      meId: actor.kind === "person" ? actor.id : null,
      handles: people.find((p) => p.id === business.incoming_person_id)?.name ?? null,
      currency: business.currency,
      timeZone: business.time_zone,
    };
  },
});

/** One of them, with the best technicians and windows worked out. `serviceId` is what the office would do where no service was named; `option` which way of a quote they have named; `date` the only day that is asked for. */
export const incomingEntry = defineView({
  name: "incoming-entry",
  access: "board.change of all",
  input: Type.Composite(
    [
      IncomingEntry,
      input({
        serviceId: Type.Optional(Id),
        option: Type.Optional(Type.Integer({ minimum: 0, maximum: 2 })),
        date: Type.Optional(OrNull(DateText)),
      }),
    ],
    { additionalProperties: false },
  ),
  read(context, { kind, id, serviceId, option = 0, date = null }) {
    const dates = date === null ? bookableDates(context) : [date];
    switch (kind) {
      case "booking":
        return bookingEntry(context, id, dates);
      case "request":
        return requestEntry(context, id, dates, serviceId);
      case "quote":
        return quoteEntry(context, id, dates, option);
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
  /** What there is to choose from, where they have not chosen yet. */
  options: { name: string; totalMinor: number }[];
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
  options: [],
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
  const wish = request.wish ? wishColumn.read(request.wish) : null;
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
    photos: photosColumn.read(request.photos),
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

function quoteEntry(context: ViewContext, id: number, dates: readonly string[], option: number): EntryDetails {
  const sent = readQuote(context, id);
  const quote = withOption(sent, option);
  const options = sent.chosen === "" ? optionsOf(sent) : [];
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
    photos: photosColumn.read(quote.photos),
    words: [quote.note, quote.answer].filter(Boolean).join("\n"),
    lines: wanted.order.lines,
    options:
      options.length > 1 ? options.map(({ name, lines }) => ({ name, totalMinor: totalOf(lines).totalMinor })) : [],
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
