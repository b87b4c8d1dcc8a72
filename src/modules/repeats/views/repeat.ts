import { titleOf } from "@/core/catalogue/titles";
import { Refusal } from "@/core/problems";
import { patternsWords } from "@/core/repeats/patterns";
import { repeatWords } from "@/core/repeats/rule-words";
import type { LocalDate } from "@/core/time/dates";
import { Id, input } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { openPatterns, readJobPattern } from "@/modules/catalogue/job-patterns";
import { readVisit } from "@/modules/placing/visits";
import type { Rows } from "@/store/rows";
import { horizonOf } from "../dates";
import { type DateAhead, datesAhead, visitsOfRepeat } from "../dates-ahead";
import { nextForecast } from "../asking";
import { roomNow } from "../finding-room";
import { promiseDaysOf } from "../promising";
import { stripsOf } from "../strips";
import type { RepeatRow } from "../terms";
import { agreedTogether } from "../together";
import { patternsOf, priceTermsOf, reviewOf, workOf } from "../work";

/** One repeat: its terms, what becomes of each date of the coming twelve months, and what came of the last ones. */
export const repeatView = defineView({
  name: "repeat",
  access: "customers.see",
  about: { repeatId: "repeat" },
  input: input({ repeatId: Id }),
  read(context, { repeatId }) {
    const { sql, today, business } = context;
    const repeat = sql<
      RepeatRow & {
        customer: string;
        service: string;
        code: string;
        hue: number;
        site: string;
        technician: string | null;
      }
    >(
      `SELECT r.*, c.name AS customer, s.name AS service, s.code, s.hue, t.line AS site, te.name AS technician
        FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN services s ON s.id = r.service_id
          JOIN sites t ON t.id = r.site_id LEFT JOIN technicians te ON te.id = r.technician_id
        WHERE r.id = ?`,
    ).get(repeatId);
    if (!repeat) throw new Refusal("not-found");
    const visits = visitsOfRepeat(context, repeatId);
    const work = workOf(context, repeat, horizonOf(context));
    const patterns = openPatterns(context).map(({ id, name }) => ({ id, name }));
    const nameOf = (id: number) => readJobPattern(context, id).name;
    const otherWork = (date: LocalDate) => {
      const { patternId, needs, order } = work(date);
      if (patternId === repeat.pattern_id) return null;
      return {
        name: patternId === null ? repeat.service : nameOf(patternId),
        minutes: needs.minutes,
        minor: order.totalMinor,
      };
    };
    const technicianThen = new Map(
      sql<{ date: LocalDate; technician_id: number }>(
        "SELECT date, technician_id FROM repeat_exceptions WHERE repeat_id = ? AND technician_id IS NOT NULL",
      )
        .all(repeatId)
        .map(({ date, technician_id }) => [date, technician_id]),
    );
    const fixed = new Set(
      sql<{ date: LocalDate }>(
        "SELECT date FROM repeat_exceptions WHERE repeat_id = ? AND (to_date IS NOT NULL OR from_minute IS NOT NULL)",
      )
        .all(repeatId)
        .map(({ date }) => date),
    );
    const isFixed = (date: LocalDate): boolean => fixed.has(date);
    return {
      id: repeat.id,
      customer: { id: repeat.customer_id, name: repeat.customer },
      service: repeat.service,
      code: repeat.code,
      hue: repeat.hue,
      site: repeat.site,
      state: repeat.state,
      words: repeatWords(repeat),
      rule: repeat.rule,
      start: repeat.start_date,
      fromMinute: repeat.from_minute,
      toMinute: repeat.to_minute,
      technicianId: repeat.technician_id,
      technician: repeat.technician,
      onClosed: repeat.on_closed,
      comes: repeat.comes,
      leewayDays: repeat.leeway_days,
      counted: repeat.counted,
      /** Its own, and what counts. */
      promiseDays: repeat.promise_days,
      promisedAhead: promiseDaysOf(context, repeat),
      asks: repeat.asks,
      endReason: repeat.end_reason,
      currency: business.currency,
      /** What a visit costs today. */
      valueMinor: work(null).order.totalMinor,
      minutes: work(null).needs.minutes,
      /** What is done, by which patterns; and those that can be chosen. */
      work: patternsOf(repeat),
      workWords: patternsWords(patternsOf(repeat), nameOf, titleOf(work(null).items)),
      patterns,
      /** Other sites that were agreed together with it. */
      together: agreedTogether(context, repeat).map((one) => ({
        id: one.id,
        site: sql<{ line: string }>("SELECT line FROM sites WHERE id = ?").get(one.site_id)!.line,
      })),
      price: priceTermsOf(repeat),
      review: reviewOf(repeat),
      reviewTold: repeat.review_told_at !== null,
      /** What was asked and is not settled. */
      ask: openAskOf(context, repeatId),
      nextToAsk: repeat.comes === "ask" ? nextForecast(context, repeatId) : null,
      after: repeat.after_visit_id === null ? null : afterVisit(context, repeat.after_visit_id),
      strip: stripsOf(context, [repeatId])(repeatId),
      messages: sql<{ id: number; channel: string; subject: string; body: string; state: string }>(
        `SELECT id, channel, subject, body, state
          FROM messages
          WHERE repeat_id = @repeatId OR job_id IN (SELECT job_id FROM visits WHERE repeat_id = @repeatId AND date >= date(@today, '-60 days'))
          ORDER BY id DESC LIMIT 12`,
      ).all({ repeatId, today }),
      history: sql<{ at: number; actor: string; operation: string }>(
        `SELECT DISTINCT a.id, a.at, a.actor, a.operation
          FROM audit_changes ac JOIN audit a ON a.id = ac.audit_id
          WHERE ac.entity = 'repeats' AND ac.row_key = ? AND a.operation <> 'grow-repeat'
          ORDER BY a.id DESC LIMIT 15`,
      ).all(String(repeatId)),
      today,
      technicians: sql<{ id: number; name: string }>(
        "SELECT id, name FROM technicians WHERE active = 1 ORDER BY position, id",
      ).all(),
      before: sql<Rows["repeat_terms"]>("SELECT * FROM repeat_terms WHERE repeat_id = ? ORDER BY until_date DESC")
        .all(repeatId)
        .map((terms) => ({ words: repeatWords(terms), until: terms.until_date })),
      pauses: sql<Rows["repeat_pauses"]>(
        "SELECT * FROM repeat_pauses WHERE repeat_id = ? AND last_date >= ? ORDER BY first_date",
      )
        .all(repeatId, today)
        .map(({ id, first_date, last_date }) => ({ id, first: first_date, last: last_date })),
      agreed: sql<{ date: LocalDate }>("SELECT date FROM repeat_exceptions WHERE repeat_id = ?")
        .all(repeatId)
        .map(({ date }) => date),
      coming: withReasons(context, repeat, datesAhead(context, repeat, visits), isFixed).map((date) => ({
        ...date,
        otherWork: otherWork(date.date),
        technicianThen: technicianThen.get(date.date) ?? null,
      })),
      past: visits
        .filter(({ day, state }) => day <= today && state !== "forecast")
        .slice(-8)
        .reverse(),
      timeZone: business.time_zone,
    };
  },
});

const openAskOf = ({ sql }: ViewContext, repeatId: number) =>
  sql<{ date: LocalDate; state: "asked" | "for us"; times: number; asked_on: LocalDate | null; answer: string }>(
    `SELECT date, state, times, asked_on, answer
      FROM repeat_asks WHERE repeat_id = ? AND state IN ('asked', 'for us') ORDER BY date LIMIT 1`,
  ).get(repeatId) ?? null;

const afterVisit = ({ sql }: ViewContext, visitId: number) =>
  sql<{ id: number; date: LocalDate }>("SELECT id, date FROM visits WHERE id = ?").get(visitId) ?? null;

/** Of the dates that find no room, so many are said why. */
const mostReasons = 6;

function withReasons(
  context: ViewContext,
  repeat: RepeatRow,
  dates: readonly DateAhead[],
  isFixed: (date: LocalDate) => boolean,
): (DateAhead & { room: ReturnType<typeof roomNow> | null })[] {
  const roomless = dates.filter(({ state, technician }) => state === "forecast" && technician === null);
  const asked = new Set(roomless.slice(0, mostReasons).map(({ date }) => date));
  return dates.map((date) => ({
    ...date,
    room: asked.has(date.date) ? roomNow(context, repeat, readVisit(context, date.visitId!), isFixed(date.date)) : null,
  }));
}
