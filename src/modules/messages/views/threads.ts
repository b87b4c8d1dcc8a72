import type { Meaning } from "@/core/messages/answers";
import { moneyWords } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { seesOnly } from "@/core/people/permissions";
import { localDate, localOf } from "@/core/time/local";
import { momentIn, windowIn } from "@/core/time/local-words";
import { dayWords } from "@/core/time/words";
import { visitStates } from "@/core/visits/states";
import { Id, input, OneOf } from "@/kernel/inputs";
import { phoneDigits } from "@/core/customers/search-words";
import type { ViewContext } from "@/kernel/operation";
import { likePattern } from "@/kernel/paging";
import { seenCustomers } from "@/kernel/seen";
import { defineView } from "@/kernel/view";
import { peopleWhoMay } from "@/modules/people/people";
import { addressAt } from "@/modules/place/addresses";
import { meaningsColumn, photosColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { languageOf } from "../messaging";
import { quickAnswers } from "../settings";
import { reachOf, whyNotWords } from "../reach";
import { whoIsIn } from "../threads";

/** Which conversations are shown: those that wait, those of mine, of nobody known, put off, or all. */
const shows = {
  waiting: "t.waiting_since IS NOT NULL AND (t.snoozed_until IS NULL OR t.snoozed_until <= @now)",
  mine: "t.handler_id = @me AND t.waiting_since IS NOT NULL",
  unknown: "t.customer_id IS NULL",
  snoozed: "t.snoozed_until > @now",
  all: "1",
} as const;

const atOnce = 60;

/** Conversations, those that wait longest first, else the newest first. */
export const threads = defineView({
  name: "threads",
  access: "contacts.see",
  input: input({
    show: OneOf(["waiting", "mine", "unknown", "snoozed", "all"]),
    search: Type.String({ maxLength: 80 }),
    /** So many more than are shown to begin with. */
    more: Type.Integer({ minimum: 0, maximum: 10_000 }),
  }),
  read(context, { show, search, more }) {
    const { sql, now, actor } = context;
    const me = actor.kind === "person" ? actor.id : null;
    const pattern = likePattern(search);
    const rows = sql<{
      id: number;
      customerId: number | null;
      name: string;
      words: string;
      at: number;
      by: "them" | "us";
      waitingSince: number | null;
      unread: 0 | 1;
      handler: string | null;
      snoozedUntil: number | null;
    }>(
      `SELECT t.id, t.customer_id AS customerId, coalesce(c.name, nullif(t.name, ''), nullif(t.phone, ''), t.mail) AS name,
          t.last_words AS words, t.last_at AS at, t.last_by AS by, t.waiting_since AS waitingSince, t.unread, p.name AS handler,
          t.snoozed_until AS snoozedUntil
        FROM threads t LEFT JOIN customers c ON c.id = t.customer_id LEFT JOIN people p ON p.id = t.handler_id
        WHERE ${shows[show]} AND ${seenThreads} AND c.merged_into IS NULL AND (@pattern IS NULL OR c.name LIKE @pattern ESCAPE '\\' OR t.name LIKE @pattern ESCAPE '\\'
          OR t.phone LIKE @pattern ESCAPE '\\' OR (@digits IS NOT NULL AND coalesce(c.phone, t.phone) LIKE '%' || @digits || '%')
          OR t.last_words LIKE @pattern ESCAPE '\\')
        ORDER BY ${show === "waiting" || show === "mine" ? "t.waiting_since" : "t.last_at DESC"}, t.id LIMIT @most`,
    ).all({
      now,
      me,
      pattern,
      digits: phoneDigits(search),
      most: atOnce + more + 1,
      only: seesOnly(actor),
      today: context.today,
    });
    return {
      rows: rows.slice(0, atOnce + more),
      hasMore: rows.length > atOnce + more,
      ...counts(context, me),
      now,
    };
  },
});

/** Conversations with customers whom this person sees; with somebody unknown, for whoever sees everybody. */
const seenThreads = `(@only IS NULL OR c.id IS NOT NULL) AND ${seenCustomers}`;

const counts = ({ sql, now, today, actor }: ViewContext, me: number | null) =>
  sql<{ waiting: number; mine: number; unread: number; oldest: number | null }>(
    `SELECT count(*) FILTER (WHERE ${shows.waiting}) AS waiting, count(*) FILTER (WHERE ${shows.mine}) AS mine,
        count(*) FILTER (WHERE unread = 1) AS unread, min(waiting_since) FILTER (WHERE ${shows.waiting}) AS oldest
      FROM threads t LEFT JOIN customers c ON c.id = t.customer_id
      WHERE (t.waiting_since IS NOT NULL OR t.unread = 1) AND ${seenThreads}`,
  ).get({ now, me, today, only: seesOnly(actor) })!;

/** An entry of a conversation: what one of the two has written, a note for inside, or what happened meanwhile. */
export type ThreadEntry =
  | {
      kind: "theirs";
      key: string;
      at: number;
      channel: string;
      subject: string;
      words: string;
      understood: Meaning[];
      /** Whose message it says that it answers, where that is somebody else's. */
      claims: { customerId: number; name: string } | null;
      photos: string[];
      recording: string | null;
      seconds: number | null;
    }
  | {
      kind: "ours";
      key: string;
      at: number;
      channel: Rows["messages"]["channel"];
      occasion: string;
      subject: string;
      words: string;
      state: Rows["messages"]["state"];
      problem: string;
      parts: number;
      writtenBy: string | null;
      photos: string[];
    }
  | { kind: "note"; key: string; at: number; words: string; writtenBy: string }
  | { kind: "happened"; key: string; at: number; words: string };

const entriesAtOnce = 60;

/** One conversation: what was said on every channel in both directions, with what happened between the lines; the promise beside it. */
export const thread = defineView({
  name: "thread",
  access: "contacts.see",
  about: { threadId: "thread" },
  input: input({
    threadId: Id,
    /** So many times more of it than the newest. */
    more: Type.Optional(Type.Integer({ minimum: 0, maximum: 100 })),
  }),
  read(context, { threadId, more = 0 }) {
    const { sql, business } = context;
    const row = sql<Rows["threads"]>("SELECT * FROM threads WHERE id = ?").get(threadId);
    const who = whoIsIn(context, threadId);
    if (!row || !who) throw new Refusal("not-found");
    const reach = reachOf(context, who);
    const most = entriesAtOnce * (1 + more);
    const all = entriesOf(context, row, most + 1);
    return {
      id: row.id,
      who: { ...who, isKnown: row.customer_id !== null },
      waitingSince: row.waiting_since,
      snoozedUntil: row.snoozed_until,
      handlerId: row.handler_id,
      handlers: peopleWhoMay(context, "board.change of all"),
      unread: row.unread === 1,
      entries: all.slice(-most).map((entry) => ({ ...entry, when: momentIn(entry.at, business.time_zone) })),
      hasMore: all.length > most,
      /** Words to begin with, in their language. */
      starters: quickAnswers(context).flatMap(({ name, words }) => {
        const said = words[languageOf(business, who.language)];
        return said ? [{ name, words: said }] : [];
      }),
      /** On which they may be written to. */
      channels: (["text", "mail", "voice"] as const).filter((channel) =>
        reach.some((way) => way.channel === channel && (way.whyNot === null || way.whyNot === "bounced")),
      ),
      /** Ways on which they are not reached, with why; `open`: it may be tried all the same. */
      notReached: reach.flatMap(({ channel, whyNot }) =>
        whyNot && whyNot !== "no address" && whyNot !== "not connected"
          ? [{ channel, open: whyNot === "bounced", words: whyNotWords[whyNot] }]
          : [],
      ),
      stopped: sql<{ channel: string; since: number }>(
        "SELECT channel, since FROM stops WHERE address IN (?, ?) AND address <> ''",
      ).all(who.mail, who.phone),
      beside: row.customer_id === null ? null : besideOf(context, row.customer_id),
      partMilli: business.text_part_milli,
      currency: business.currency,
      now: context.now,
      me: context.actor.kind === "person" ? context.actor.id : null,
    };
  },
});

/** So many of the newest entries, oldest first. */
function entriesOf(context: ViewContext, row: Rows["threads"], most: number): ThreadEntry[] {
  const { sql } = context;
  const at = { threadId: row.id, customerId: row.customer_id, most };
  const theirs = sql<Rows["replies"]>(
    "SELECT * FROM replies WHERE (customer_id = @customerId OR thread_id = @threadId) ORDER BY received_at DESC, id DESC LIMIT @most",
  )
    .all(at)
    .map((r): ThreadEntry => ({
      kind: "theirs",
      key: `r${r.id}`,
      at: r.received_at,
      channel: r.channel,
      subject: r.subject,
      words: r.body,
      understood: meaningsColumn.read(r.understood),
      claims: claimOf(context, r),
      photos: photosColumn.read(r.photos),
      recording: r.recording,
      seconds: r.seconds,
    }));
  const ours = sql<Rows["messages"]>(
    `SELECT * FROM messages WHERE (customer_id = @customerId OR thread_id = @threadId) 
      ORDER BY written_at DESC, id DESC LIMIT @most`,
  )
    .all(at)
    .map((m): ThreadEntry => ({
      kind: "ours",
      key: `m${m.id}`,
      at: m.written_at,
      channel: m.channel,
      occasion: m.kind,
      subject: m.subject,
      words: m.body,
      state: m.state,
      problem: m.problem,
      parts: m.parts,
      writtenBy: m.written_by,
      photos: photosColumn.read(m.photos),
    }));
  const notes =
    context.actor.kind === "person" && context.actor.permissions.includes("notes.see")
      ? sql<Rows["notes"]>("SELECT * FROM notes WHERE thread_id = @threadId ORDER BY at DESC LIMIT @most")
          .all(at)
          .map((n): ThreadEntry => ({
            kind: "note",
            key: `n${n.id}`,
            at: n.at,
            words: n.words,
            writtenBy: n.written_by,
          }))
      : [];
  return [...theirs, ...ours, ...notes, ...happened(context, row.customer_id, most)]
    .sort((a, b) => a.at - b.at)
    .slice(-most);
}

/** The customer whose message an answer claims to answer, where it came from an address that is not theirs. */
const claimOf = (
  { sql }: ViewContext,
  { answers_id: answersId, customer_id: customerId }: Rows["replies"],
): { customerId: number; name: string } | null =>
  answersId === null
    ? null
    : (sql<{ customerId: number; name: string }>(
        `SELECT c.id AS customerId, c.name FROM messages m JOIN customers c ON c.id = m.customer_id
          WHERE m.id = ? AND m.customer_id IS NOT ?`,
      ).get(answersId, customerId) ?? null);

/** What happened with a customer meanwhile, in a line each. */
function happened(context: ViewContext, customerId: number | null, most: number): ThreadEntry[] {
  if (customerId === null) return [];
  const { sql, business } = context;
  const zone = business.time_zone;
  const rows = sql<{
    key: string;
    at: number;
    what: "booked" | "moved" | "done" | "no access" | "paid";
    words: string;
    a: number;
    b: number;
  }>(
    `SELECT * FROM (
      SELECT 'j' || j.id AS key, j.booked_at AS at, 'booked' AS what,
          j.booked_by || char(10) || coalesce((SELECT title FROM visits WHERE job_id = j.id ORDER BY window_from LIMIT 1), '') AS words, 0 AS a, 0 AS b
        FROM jobs j WHERE j.customer_id = @customerId
      UNION ALL SELECT 'p' || v.id || ' ' || p.made_at, p.made_at, 'moved', v.title, p.window_from, p.window_to
        FROM jobs j JOIN visits v ON v.job_id = j.id JOIN promises p ON p.visit_id = v.id
        WHERE j.customer_id = @customerId AND EXISTS (SELECT 1 FROM promises e WHERE e.visit_id = v.id AND e.made_at < p.made_at)
      UNION ALL SELECT 'v' || v.id, v.ended_at, v.state, v.title, 0, 0
        FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.customer_id = @customerId AND v.ended_at IS NOT NULL AND v.state IN ('done', 'no access')
      UNION ALL SELECT 'm' || id, settled_at, 'paid', method, amount_minor, 0
        FROM payments WHERE customer_id = @customerId AND state = 'received' AND settled_at IS NOT NULL)
      ORDER BY at DESC LIMIT @most`,
  ).all({ customerId, most });
  const said = ({ what, words, a, b }: (typeof rows)[number]): string => {
    switch (what) {
      case "booked": {
        const [by = "", title = ""] = words.split("\n");
        return `${bookedBy(by)}: ${title}`;
      }
      case "moved":
        return `moved to ${dayWords(localDate(a, zone))}, ${windowIn(a, b, zone)}: ${words}`;
      case "done":
        return `done: ${words}`;
      case "no access":
        return `nobody home: ${words}`;
      case "paid":
        return `paid ${moneyWords(a, business.currency)}`;
    }
  };
  return rows.map((row): ThreadEntry => ({ kind: "happened", key: row.key, at: row.at, words: said(row) }));
}

const bookedBy = (by: string): string => {
  const [, person] = /^person \d+ (.+)$/.exec(by) ?? [];
  if (person) return `booked by ${person}`;
  return by === "front door" ? "booked at the front door" : by.startsWith("repeat") ? "booked by its repeat" : "booked";
};

/** What stands beside a conversation: the next promise, where, and how things are with this customer. */
function besideOf(context: ViewContext, customerId: number) {
  const { sql, business, minute, today } = context;
  const next = sql<{
    id: number;
    title: string;
    date: string;
    window_from: number;
    window_to: number;
    confirmed: 0 | 1;
    technician: string | null;
    line: string | null;
    zone: string | null;
  }>(
    `SELECT v.id, v.title, v.date, v.window_from, v.window_to, v.confirmed_at IS NOT NULL AS confirmed,
        (SELECT t.name FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = v.id ORDER BY t.position LIMIT 1) AS technician,
        s.line, z.name AS zone
      FROM jobs j JOIN visits v ON v.job_id = j.id JOIN sites s ON s.id = j.site_id LEFT JOIN zones z ON z.id = v.zone_id
      WHERE j.customer_id = ? AND v.state IN ${visitStates.sql("expect")} AND v.window_to > ? ORDER BY v.window_from LIMIT 1`,
  ).get(customerId, minute);
  const { visits, since, owes, inside } = sql<{ visits: number; since: number; owes: number; inside: string }>(
    `SELECT (SELECT count(*) FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.customer_id = c.id AND v.state = 'done') AS visits,
        c.since_at AS since, c.inside_note AS inside,
        (SELECT coalesce(sum(open_minor), 0) FROM invoice_balances WHERE customer_id = c.id) AS owes
      FROM customers c WHERE c.id = ?`,
  ).get(customerId)!;
  const repeat = sql<{ date: string }>(
    `SELECT min(v.date) AS date FROM repeats r JOIN visits v ON v.repeat_id = r.id
      WHERE r.customer_id = ? AND r.state = 'active' AND v.state = 'forecast' AND v.date >= ?`,
  ).get(customerId, today);
  const site = sql<{ line: string; postcode: string }>(
    "SELECT line, postcode FROM sites WHERE customer_id = ? AND archived_at IS NULL ORDER BY id LIMIT 1",
  ).get(customerId);
  const zone = business.time_zone;
  return {
    next: next
      ? {
          visitId: next.id,
          title: next.title,
          date: next.date,
          from: localOf(next.window_from, zone).minute,
          to: localOf(next.window_to, zone).minute,
          isConfirmed: next.confirmed === 1,
          technician: next.technician,
          line: next.line,
          zone: next.zone,
        }
      : null,
    visits,
    since: localDate(Math.floor(since / 60_000), zone),
    owesMinor: owes,
    comesAgain: repeat?.date ?? null,
    /** The address at which the next visit would be booked; null where it is no longer found. */
    addressId: site ? (addressAt(context, site)?.id ?? null) : null,
    inside,
  };
}

/** What the team has said of a visit among themselves. */
export const visitNotes = defineView({
  name: "visit-notes",
  access: "notes.see",
  about: { visitId: "visit" },
  input: input({ visitId: Id }),
  read: ({ sql, business }, { visitId }) => ({
    notes: sql<{ id: number; words: string; writtenBy: string; at: number }>(
      "SELECT id, words, written_by AS writtenBy, at FROM notes WHERE visit_id = ? ORDER BY at, id LIMIT 200",
    )
      .all(visitId)
      .map(({ at, ...note }) => ({ ...note, when: momentIn(at, business.time_zone) })),
  }),
});
