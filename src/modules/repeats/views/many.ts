import { moneyWords, sum } from "@/core/money/amounts";
import { seesOnly } from "@/core/people/permissions";
import { reviewed } from "@/core/repeats/price";
import { type Changed, changedRule } from "@/core/repeats/many";
import { datesOfRule, readRule, type Recurrence, ruleText } from "@/core/repeats/recurrence";
import { recurrenceWords } from "@/core/repeats/rule-words";
import { addDays, type LocalDate } from "@/core/time/dates";
import { dateWords, dayWords, windowWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { EndMinute, DateText, Id, input, MinuteOfDay, Nothing, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { likePattern } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { seenCustomers } from "@/kernel/seen";
import { answersWithin, reasonsInWords } from "@/modules/placing/windows";
import { idsColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { datesOfRepeat, windowOn } from "../dates";
import { readRepeat } from "../repeats";
import type { RepeatRow } from "../terms";
import { needsOf } from "../work";

const Weekday = Type.Integer({ minimum: 0, maximum: 6 });
/** The active repeats of a list, as far as they are changed together. */
export const repeatIds = defineView({
  name: "repeat-ids",
  access: "board.change",
  about: { serviceId: "shared", zoneId: "shared", technicianId: "shared" },
  input: input({
    search: Type.String({ maxLength: 80 }),
    serviceId: OrNull(Id),
    zoneId: OrNull(Id),
    technicianId: OrNull(Id),
  }),
  read: ({ sql, actor, today }, { search, ...which }) =>
    sql<{ id: number }>(
      `SELECT r.id
        FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN services s ON s.id = r.service_id
          JOIN sites t ON t.id = r.site_id
        WHERE r.state = 'active' AND ${seenCustomers}
          AND (@search IS NULL OR c.name LIKE @search ESCAPE '\\' OR s.name LIKE @search ESCAPE '\\')
          AND (@serviceId IS NULL OR r.service_id = @serviceId) AND (@zoneId IS NULL OR t.zone_id = @zoneId)
          AND (@technicianId IS NULL OR r.technician_id = @technicianId)
        ORDER BY c.name COLLATE NOCASE, r.id`,
    )
      .all({ ...which, search: likePattern(search), only: seesOnly(actor), today })
      .map(({ id }) => id),
});

const Change = input({
  weekday: OrNull(input({ from: Weekday, to: Weekday })),
  until: OrNull(DateText),
  /** Somebody else from then on; `to` null is whoever is near. */
  technician: OrNull(input({ to: OrNull(Id) })),
  window: Type.Optional(OrNull(input({ fromMinute: MinuteOfDay, toMinute: EndMinute }))),
  /** Nobody comes from one day to another. */
  pause: Type.Optional(OrNull(input({ first: DateText, last: DateText }))),
  /** Another price from the day of the change on, in basis points of the one that was agreed. */
  priceBp: Type.Optional(OrNull(Type.Integer({ minimum: -10_000, maximum: 10_000 }))),
});

/** What a change would do to one repeat: `terms` as `change-repeat` takes them, null where these stay; `also`: what it does besides, in words. */
interface Proposal {
  id: number;
  customer: string;
  from: string;
  to: string | null;
  odd: string | null;
  driving: number | null;
  promised: number;
  terms: {
    from: LocalDate;
    rule: string;
    fromMinute: number;
    toMinute: number;
    technicianId: number | null;
    onClosed: RepeatRow["on_closed"];
  } | null;
  also: string[];
  /** Whether its price is one of those that change. */
  reviews: boolean;
}

/** What a change of many would do to some of them: from what to what, what it costs in driving, what stays promised, what finds no room. One that it does not concern is left out. */
export const repeatsProposal = defineView({
  name: "repeats-proposal",
  access: "board.change",
  about: { ids: "repeat", "change.technician.to": "shared" },
  input: input({ ids: Type.Array(Id, { minItems: 1, maxItems: 20 }), change: Change, from: DateText }),
  read(context, { ids, change, from }) {
    return ids.flatMap((id): Proposal[] => {
      const repeat = readRepeat(context, id);
      const changed = changedRule(readRule(repeat.rule), repeat.start_date, change, from);
      const more = besides(context, repeat, change, from);
      const isOfTerms = change.weekday ?? change.until ?? change.technician ?? change.window ?? null;
      if (isOfTerms && changed !== null) {
        const proposal = proposalFor(context, repeat, changed, change, from);
        return [{ ...proposal, ...more }];
      }
      return more.also.length ? [{ ...asBefore(context, repeat), ...more }] : [];
    });
  },
});

/** What a change does besides its terms: dates that are left out, and another price. */
function besides(
  context: ViewContext,
  repeat: RepeatRow,
  { pause, priceBp }: (typeof Change)["static"],
  from: LocalDate,
): { also: string[]; reviews: boolean } {
  const { sql, business } = context;
  const words: string[] = [];
  if (pause && pause.last >= pause.first) {
    const { comes } = needsOf(context, repeat);
    const dates = datesOfRepeat(context, repeat, comes, pause.first, pause.last).length;
    const { promised } = sql<{ promised: number }>(
      "SELECT count(*) AS promised FROM visits WHERE repeat_id = ? AND state = 'promised' AND repeat_date BETWEEN ? AND ?",
    ).get(repeat.id, pause.first, pause.last)!;
    if (dates > promised) words.push(`paused: ${counted(dates - promised, "date")} left out`);
    if (promised) words.push(`${counted(promised, "promised visit")} in the pause: to be told by hand`);
  }
  // What follows the catalogue has no price of its own to change.
  if (priceBp == null || repeat.price_minor === null) return { also: words, reviews: false };
  const price = (minor: number) => moneyWords(minor, business.currency);
  words.push(
    `${price(repeat.price_minor)} becomes ${price(reviewed(repeat.price_minor, { byBp: priceBp }))} from ${dateWords(from)}`,
  );
  return { also: words, reviews: true };
}

/** How a repeat stands whose terms are not changed. */
function asBefore(context: ViewContext, repeat: RepeatRow): Omit<Proposal, "also" | "reviews"> {
  const words = `${recurrenceWords(readRule(repeat.rule), repeat.start_date)}, ${nameOfWho(context, repeat.technician_id)}`;
  const customer = customerOf(context, repeat);
  return { id: repeat.id, customer, from: words, to: words, odd: null, terms: null, driving: null, promised: 0 };
}

const customerOf = ({ sql }: ViewContext, repeat: RepeatRow): string =>
  sql<{ name: string }>("SELECT name FROM customers WHERE id = ?").get(repeat.customer_id)!.name;

const nameOfWho = ({ sql }: ViewContext, who: number | null): string =>
  who === null
    ? "whoever is near"
    : sql<{ name: string }>("SELECT name FROM technicians WHERE id = ?").get(who)!.name.split(" ")[0]!;

function proposalFor(
  context: ViewContext,
  repeat: RepeatRow,
  changed: Changed,
  change: (typeof Change)["static"],
  from: LocalDate,
): Omit<Proposal, "also" | "reviews"> {
  const { sql } = context;
  const rule = readRule(repeat.rule);
  const name = customerOf(context, repeat);
  const technicianId = change.technician ? change.technician.to : repeat.technician_id;
  const window = change.window ?? { fromMinute: repeat.from_minute, toMinute: repeat.to_minute };
  const said = (words: string, who: number | null, { fromMinute, toMinute } = window) =>
    [words, change.window && windowWords(fromMinute, toMinute), nameOfWho(context, who)].filter(Boolean).join(", ");
  const about = {
    id: repeat.id,
    customer: name,
    from: said(recurrenceWords(rule, repeat.start_date), repeat.technician_id, {
      fromMinute: repeat.from_minute,
      toMinute: repeat.to_minute,
    }),
  };
  if ("odd" in changed) return { ...about, to: null, odd: changed.odd, terms: null, driving: null, promised: 0 };
  // Terms count from its first new date, or from the wished day where that is later than the old one.
  const begins = changed.begins < from ? changed.begins : from;
  const { promised } = sql<{ promised: number }>(
    "SELECT count(*) AS promised FROM visits WHERE repeat_id = ? AND state = 'promised' AND repeat_date >= ?",
  ).get(repeat.id, begins)!;
  const nextTen = (of: Recurrence, start: LocalDate) =>
    datesOfRule({ ...of, count: null }, start, begins, addDays(begins, 3660), datesLooked);
  const now = costOver(context, repeat, nextTen(rule, repeat.start_date), repeat.technician_id);
  const moved = { ...repeat, from_minute: window.fromMinute, to_minute: window.toMinute };
  const then = costOver(context, moved, nextTen(changed.rule, changed.begins), technicianId);
  return {
    ...about,
    to: said(recurrenceWords(changed.rule, changed.begins), technicianId),
    odd: then.odd,
    driving: now.driving !== null && then.driving !== null ? Math.round(then.driving - now.driving) : null,
    promised,
    terms: {
      from: begins > context.today ? begins : addDays(context.today, 1),
      rule: ruleText(changed.rule),
      ...window,
      technicianId,
      onClosed: repeat.on_closed,
    },
  };
}

/** So many of the next dates say what a change costs. */
const datesLooked = 10;

/** What dates would cost in driving, minutes a visit, as if its own forecasts were not there; `odd`: which of them find no room, and why. */
function costOver(
  context: ViewContext,
  repeat: RepeatRow,
  dates: readonly LocalDate[],
  technicianId: number | null,
): { driving: number | null; odd: string | null } {
  const own = context
    .sql<{ id: number }>("SELECT id FROM visits WHERE repeat_id = ? AND state = 'forecast'")
    .all(repeat.id)
    .map(({ id }) => id);
  const windows = dates.map((date) => {
    const [from, to] = windowOn(context, date, [repeat.from_minute, repeat.to_minute]);
    return { date, from, to };
  });
  const answers = answersWithin(
    context,
    { ...needsOf(context, repeat).needs, wanted: technicianId === null ? null : { technicianId, only: false } },
    windows,
    { strict: false, forecasts: "full", without: own },
  );
  const costs = answers.flatMap((answer) => (answer.offered ? [answer.technicians[0]?.extraDriving ?? 0] : []));
  const without = answers.filter((answer) => !answer.offered);
  const [first] = without;
  return {
    driving: costs.length ? sum(costs) / costs.length : null,
    odd:
      first && !first.offered
        ? `No room on ${dayWords(first.date)}${without.length > 1 ? ` and ${without.length - 1} more of the next ${answers.length} dates` : ""}: ${reasonsInWords(context, first.reasons).join("; ")}`
        : null,
  };
}

/** The last changes of many that can be taken back, the newest first: what they were, and which repeats still stand as they left them. */
export const repeatBatches = defineView({
  name: "repeat-batches",
  access: "board.change",
  input: Nothing,
  read: ({ sql }) =>
    sql<{ id: number; words: string; made_at: number; made_by: string; repeats: string }>(
      `SELECT b.id, b.words, b.made_at, b.made_by, json_group_array(r.id) AS repeats
        FROM repeat_batches b JOIN repeats r ON r.batch_id = b.id
        WHERE b.undone_at IS NULL AND r.before_change IS NOT NULL AND r.state = 'active'
        GROUP BY b.id ORDER BY b.id DESC LIMIT 5`,
    )
      .all()
      .map(({ made_at, made_by, repeats, ...batch }) => ({
        ...batch,
        madeAt: made_at,
        madeBy: made_by,
        repeatIds: idsColumn.read(repeats),
      })),
});
