import { seesOnly } from "@/core/people/permissions";
import { type Changed, changedRule } from "@/core/repeats/many";
import { datesOfRule, readRule, ruleText } from "@/core/repeats/recurrence";
import { recurrenceWords } from "@/core/repeats/rule-words";
import { addDays, type LocalDate } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import { DateText, Id, input, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { likePattern } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { seenCustomers } from "@/modules/customers/seen";
import { answersWithin, reasonsInWords } from "@/modules/placing/windows";
import { Type } from "@sinclair/typebox";
import { needsOf } from "../needs";
import { readRepeat } from "../repeats";
import type { RepeatRow } from "../terms";

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
});

/** What a change of many would do to some of them: from what to what, what it costs in driving, what stays promised, what finds no room. One that it does not concern is left out. */
export const repeatsProposal = defineView({
  name: "repeats-proposal",
  access: "board.change",
  about: { ids: "repeat", "change.technician.to": "shared" },
  input: input({ ids: Type.Array(Id, { minItems: 1, maxItems: 20 }), change: Change, from: DateText }),
  read(context, { ids, change, from }) {
    return ids.flatMap((id) => {
      const repeat = readRepeat(context, id);
      const changed = changedRule(readRule(repeat.rule), repeat.start_date, change, from);
      return changed === null ? [] : [proposalFor(context, repeat, changed, change, from)];
    });
  },
});

function proposalFor(
  context: ViewContext,
  repeat: RepeatRow,
  changed: Changed,
  change: (typeof Change)["static"],
  from: LocalDate,
) {
  const { sql } = context;
  const rule = readRule(repeat.rule);
  const { name } = sql<{ name: string }>("SELECT name FROM customers WHERE id = ?").get(repeat.customer_id)!;
  const technicianId = change.technician ? change.technician.to : repeat.technician_id;
  const of = (who: number | null) =>
    who === null
      ? "whoever is near"
      : sql<{ name: string }>("SELECT name FROM technicians WHERE id = ?").get(who)!.name.split(" ")[0]!;
  const said = (words: string, who: number | null) => `${words}, ${of(who)}`;
  const about = {
    id: repeat.id,
    customer: name,
    from: said(recurrenceWords(rule, repeat.start_date), repeat.technician_id),
  };
  if ("odd" in changed) return { ...about, to: null, odd: changed.odd, terms: null, driving: null, promised: 0 };
  // Terms count from its first new date, or from the wished day where that is later than the old one.
  const begins = changed.begins < from ? changed.begins : from;
  const { promised } = sql<{ promised: number }>(
    "SELECT count(*) AS promised FROM visits WHERE repeat_id = ? AND state = 'promised' AND repeat_date >= ?",
  ).get(repeat.id, begins)!;
  const [oldDate] = datesOfRule(rule, repeat.start_date, begins, addDays(begins, 3660), 1);
  const now = costAt(context, repeat, oldDate!, repeat.technician_id);
  const then = costAt(context, repeat, changed.begins, technicianId);
  return {
    ...about,
    to: said(recurrenceWords(changed.rule, changed.begins), technicianId),
    odd: then.offered ? null : `No room on ${changed.begins}: ${then.why}`,
    driving: now.offered && then.offered ? then.minutes - now.minutes : null,
    promised,
    terms: {
      from: begins > context.today ? begins : addDays(context.today, 1),
      rule: ruleText(changed.rule),
      fromMinute: repeat.from_minute,
      toMinute: repeat.to_minute,
      technicianId,
      onClosed: repeat.on_closed,
    },
  };
}

/** What a date would cost in driving, its own forecasts around it left out. */
function costAt(
  context: ViewContext,
  repeat: RepeatRow,
  date: LocalDate,
  technicianId: number | null,
): { offered: true; minutes: number } | { offered: false; why: string } {
  const zone = context.business.time_zone;
  const own = context
    .sql<{ id: number }>("SELECT id FROM visits WHERE repeat_id = ? AND state = 'forecast' AND date BETWEEN ? AND ?")
    .all(repeat.id, addDays(date, -7), addDays(date, 7))
    .map(({ id }) => id);
  const wanted = technicianId === null ? null : { technicianId, only: false };
  const [answer] = answersWithin(
    context,
    { ...needsOf(context, repeat).needs, wanted },
    [{ date, from: epochMinute(date, repeat.from_minute, zone), to: epochMinute(date, repeat.to_minute, zone) }],
    { strict: false, forecasts: "full", without: own },
  );
  return answer?.offered
    ? { offered: true, minutes: answer.technicians[0]?.extraDriving ?? 0 }
    : { offered: false, why: reasonsInWords(context, answer?.reasons ?? []).join("; ") };
}
