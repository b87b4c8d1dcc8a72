import { allOccasions, kindOf } from "@/core/messages/occasions";
import { messageStates } from "@/core/messages/states";
import { addDays, datesFrom, weekdayOf } from "@/core/time/dates";
import { mondayOf } from "@/core/windows/limits";
import { epochMinute } from "@/core/time/local";
import { momentIn } from "@/core/time/local-words";
import { input, OneOf, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { ChannelName } from "../inputs";

const sorts = ["at", "to", "occasion", "channel", "state"] as const;
const LogInput = {
  ...pageInput(sorts),
  channel: OrNull(ChannelName),
  state: OrNull(OneOf(messageStates.states)),
};

/** What an occasion is called on a screen. */
const nameOf = (kind: string): string => {
  const occasion = allOccasions.find((one) => one === kind);
  return occasion ? kindOf(occasion).name : kind === "by hand" ? "Written by hand" : kind === "test" ? "Test" : kind;
};

/** Every message that was written, with what became of it: searched and paged by the database. */
export const messageLog = defineView({
  name: "message-log",
  access: "contacts.see of all",
  input: input(LogInput),
  read(context, { search, channel, state, ...page }) {
    const { rows: ids, count } = readPage(context, page, {
      from: "FROM messages m LEFT JOIN customers c ON c.id = m.customer_id",
      where: `(@channel IS NULL OR m.channel = @channel) AND (@state IS NULL OR m.state = @state) AND (@pattern IS NULL
        OR c.name LIKE @pattern ESCAPE '\\' OR m.recipient LIKE @pattern ESCAPE '\\' OR m.subject LIKE @pattern ESCAPE '\\' OR m.body LIKE @pattern ESCAPE '\\')`,
      id: "m.id",
      order: {
        at: "m.written_at",
        to: "coalesce(c.name, m.recipient)",
        occasion: "m.kind",
        channel: "m.channel",
        state: "m.state",
      },
      params: { channel, state, pattern: likePattern(search) },
    });
    const read = context.sql<Rows["messages"] & { name: string | null }>(
      "SELECT m.*, c.name FROM messages m LEFT JOIN customers c ON c.id = m.customer_id WHERE m.id = ?",
    );
    return {
      count,
      rows: ids.map((id) => {
        const m = read.get(id)!;
        return {
          id: m.id,
          at: momentIn(m.written_at, context.business.time_zone),
          customerId: m.customer_id,
          to: m.name ?? m.recipient,
          recipient: m.recipient,
          occasion: nameOf(m.kind),
          channel: m.channel,
          state: m.state,
          problem: m.problem,
          subject: m.subject,
          body: m.body,
          parts: m.parts,
        };
      }),
    };
  },
});

/** Reminders against what became of their visits, and what arrived, by channel and week. */
export const messageFigures = defineView({
  name: "message-figures",
  access: "contacts.see of all",
  input: input({ days: Type.Integer({ minimum: 1, maximum: 366 }) }),
  read(context, { days }) {
    const { sql, business, today } = context;
    const [since, until] = [atStartOf(context, addDays(today, -days)), atStartOf(context, addDays(today, 1))];
    const weeks = sql<{
      week: string;
      channel: Rows["messages"]["channel"];
      sent: number;
      arrived: number;
      lost: number;
      parts: number;
    }>(
      `SELECT w.value ->> 'week' AS week, channel,
          count(*) FILTER (WHERE sent_at IS NOT NULL) AS sent, count(*) FILTER (WHERE state IN ${messageStates.sql("arrived")}) AS arrived,
          count(*) FILTER (WHERE state IN ${messageStates.sql("lost")}) AS lost, sum(parts) AS parts
        FROM json_each(@weeks) w JOIN messages ON written_at >= w.value ->> 'from' AND written_at < w.value ->> 'until'
        GROUP BY 1, channel ORDER BY 1, channel`,
    ).all({ weeks: JSON.stringify(weeksOf(context, addDays(today, -days), today)) });
    const reminders = sql<{
      channel: Rows["messages"]["channel"];
      visits: number;
      confirmed: number;
      moved: number;
      missed: number;
      cancelled: number;
    }>(
      `SELECT channel, count(*) AS visits, count(*) FILTER (WHERE confirmed) AS confirmed, count(*) FILTER (WHERE moved) AS moved,
          count(*) FILTER (WHERE state = 'no access') AS missed, count(*) FILTER (WHERE state = 'cancelled') AS cancelled
        FROM (SELECT DISTINCT m.channel, v.id, v.state, v.confirmed_at IS NOT NULL AS confirmed, v.window_from <> m.window_from AS moved
          FROM messages m JOIN visits v ON v.id = m.visit_id
          WHERE m.kind IN ('visit reminder', 'please confirm') AND m.sent_at IS NOT NULL AND m.written_at >= ? AND m.written_at < ?)
        GROUP BY channel ORDER BY channel`,
    ).all(since, until);
    return { weeks, reminders, partMilli: business.text_part_milli, currency: business.currency };
  },
});

/** The weeks that hold some days, from Monday on, as the business's clock has them (epoch milliseconds); the first and the last are cut off. */
const weeksOf = (context: ViewContext, first: string, last: string): { week: string; from: number; until: number }[] =>
  datesFrom(first, last)
    .filter((date) => date === first || weekdayOf(date) === 0)
    .map((date) => ({ week: mondayOf(date), date }))
    .map(({ week, date }, i, all) => ({
      week,
      from: atStartOf(context, date),
      until: atStartOf(context, all[i + 1]?.date ?? addDays(last, 1)),
    }));

const atStartOf = ({ business }: ViewContext, date: string): number =>
  epochMinute(date, 0, business.time_zone) * 60_000;
