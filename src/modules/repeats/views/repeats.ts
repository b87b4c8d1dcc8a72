import { may, seesOnly } from "@/core/people/permissions";
import { repeatWords } from "@/core/repeats/rule-words";
import { keptOf } from "@/core/repeats/strip";
import { addDays, addMonths, type LocalDate } from "@/core/time/dates";
import { windowWords } from "@/core/time/words";
import { visitStates } from "@/core/visits/states";
import { Id, input, Nothing, OneOf, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { seenCustomers } from "@/kernel/seen";
import { minutesThereAre } from "@/modules/placing/hours-there-are";
import { Type } from "@sinclair/typebox";
import { expiredCards, repeatsAtRisk, type Risk, riskWords } from "../at-risk";
import { stripsOf } from "../strips";
import type { RepeatRow } from "../terms";

const sorts = ["customer", "service", "next", "value", "state"] as const;
/** Which repeats a list holds. */
const shown = [
  "all",
  "needs a person",
  "no room",
  "asked",
  "price review",
  "card expired",
  "technician left",
  "ended",
] as const;
const coming = `FROM visits v WHERE v.repeat_id = r.id AND date >= @today AND v.state IN ${visitStates.sql("move")}`;
const withoutRoom = `v.state = 'forecast' AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)`;
const isShown: Record<(typeof shown)[number], string> = {
  all: "1",
  "needs a person": `r.id IN (SELECT id FROM ${repeatsAtRisk})`,
  "no room": `r.state = 'active' AND EXISTS (SELECT 1 ${coming} AND ${withoutRoom})`,
  asked: "r.state = 'active' AND EXISTS (SELECT 1 FROM repeat_asks a WHERE a.repeat_id = r.id AND a.state = 'asked')",
  "price review": "r.state = 'active' AND r.review_date IS NOT NULL",
  "card expired": `r.id IN (SELECT id FROM (${expiredCards}))`,
  "technician left": "r.state = 'active' AND r.technician_id IN (SELECT id FROM technicians WHERE active = 0)",
  ended: "r.state = 'ended'",
};
const joined = `FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN services s ON s.id = r.service_id
  JOIN sites t ON t.id = r.site_id LEFT JOIN technicians te ON te.id = r.technician_id`;

/** One page of the repeats, with the year behind and ahead of each; looked for by customer and service. */
export const repeats = defineView({
  name: "repeats",
  access: "customers.see",
  about: { serviceId: "shared", zoneId: "shared", technicianId: "shared" },
  input: input({
    ...pageInput(sorts),
    show: Type.Optional(OneOf(shown)),
    serviceId: Type.Optional(OrNull(Id)),
    zoneId: Type.Optional(OrNull(Id)),
    technicianId: Type.Optional(OrNull(Id)),
  }),
  read(context, { show = "all", serviceId = null, zoneId = null, technicianId = null, ...asked }) {
    const { sql, today, actor } = context;
    const params = {
      today,
      only: seesOnly(actor),
      search: likePattern(asked.search),
      serviceId,
      zoneId,
      technicianId,
    };
    const { rows: ids, count } = readPage(context, asked, {
      from: joined,
      where: `${seenCustomers} AND (@search IS NULL OR c.name LIKE @search ESCAPE '\\' OR s.name LIKE @search ESCAPE '\\')
        AND (@serviceId IS NULL OR r.service_id = @serviceId) AND (@zoneId IS NULL OR t.zone_id = @zoneId)
        AND (@technicianId IS NULL OR r.technician_id = @technicianId) AND @today IS NOT NULL AND ${isShown[show]}`,
      id: "r.id",
      order: {
        customer: "c.name COLLATE NOCASE",
        service: "s.name",
        next: `(SELECT min(date) ${coming})`,
        value: `iif(r.state = 'active', ${valueAYear}, 0)`,
        state: "r.state",
      },
      params,
    });
    const row = sql<
      RepeatRow & {
        customer: string;
        service: string;
        code: string;
        hue: number;
        technician: string | null;
        site: string;
        next: LocalDate | null;
        nextVisit: number | null;
        nextState: string | null;
        last: LocalDate | null;
        unplaced: number;
        value: number;
        asked: string | null;
      }
    >(
      `SELECT r.*, c.name AS customer, s.name AS service, s.code, s.hue, t.line AS site,
          te.name AS technician, (SELECT min(date) ${coming}) AS next,
          (SELECT id ${coming} ORDER BY date LIMIT 1) AS nextVisit,
          (SELECT v.state ${coming} ORDER BY date LIMIT 1) AS nextState,
          (SELECT max(date) FROM visits v WHERE v.repeat_id = r.id AND v.state = 'done') AS last,
          (SELECT count(*) ${coming} AND ${withoutRoom}) AS unplaced, ${valueAYear} AS value,
          (SELECT max(asked_on) FROM repeat_asks a WHERE a.repeat_id = r.id AND a.state = 'asked') AS asked
        ${joined} WHERE r.id = @id`,
    );
    const strip = stripsOf(context, ids);
    const risks = new Map(
      sql<{ id: number; why: Risk }>(
        `SELECT id, why FROM ${repeatsAtRisk} WHERE id IN (SELECT value FROM json_each(@ids)) AND @today IS NOT NULL`,
      )
        .all({ ids: JSON.stringify(ids), today })
        .map(({ id, why }) => [id, why]),
    );
    const money = may(actor, "money.see");
    return {
      count,
      rows: ids.map((id) => {
        const r = row.get({ id, today })!;
        const marks = strip(id);
        return {
          id,
          customer: r.customer,
          service: r.service,
          code: r.code,
          hue: r.hue,
          technician: r.technician,
          site: r.site,
          state: r.state,
          comes: r.comes,
          counted: r.counted,
          words: repeatWords(r),
          window: windowWords(r.from_minute, r.to_minute),
          next: r.next,
          nextVisit: r.nextVisit,
          nextState: r.nextState,
          last: r.last,
          unplaced: r.unplaced,
          asked: r.asked,
          needs: risks.has(id) ? riskWords[risks.get(id)!].waits : null,
          valueMinor: money && r.state === "active" ? r.value : null,
          kept: keptOf(marks.filter(({ date }) => date < today).map(({ mark }) => mark)),
          strip: marks,
        };
      }),
    };
  },
});

/** What a visit of it costs: as it was agreed, or as it is forecast. */
const valueOfVisit = `CASE WHEN v.job_id IS NULL THEN coalesce(v.forecast_minor, r.value_minor)
  ELSE (SELECT total_minor FROM jobs WHERE id = v.job_id) END`;

/** What the coming twelve months of a repeat are worth: by the visit, or what its months and years cost. */
const ofVisits = `coalesce((SELECT sum(${valueOfVisit}) ${coming} AND v.date < date(@today, '+1 year')), 0)`;
/** The months of the coming year whose price is that of a review, and what a price is after it. */
const reviewedMonths = `min(12, max(0, 12 - (strftime('%Y', r.review_date) - strftime('%Y', @today)) * 12
  - (strftime('%m', r.review_date) - strftime('%m', @today))))`;
const reviewedPrice = "CAST(round(r.price_minor * (10000 + r.review_bp) / 10000.0) AS INTEGER)";
const valueAYear = `${ofVisits} + CASE r.price_per
  WHEN 'month' THEN r.price_minor * 12 + coalesce((${reviewedPrice} - r.price_minor) * ${reviewedMonths}, 0)
  WHEN 'year' THEN coalesce(iif(r.review_date <= r.bill_from, ${reviewedPrice}, NULL), r.price_minor)
  ELSE 0 END`;

/** The coming twelve months of all repeats: hours and money forecast by month, against the hours there are; and how many need what. */
export const repeatsOutlook = defineView({
  name: "repeats-outlook",
  access: "customers.see",
  input: Nothing,
  read(context) {
    const { sql, today, actor, business } = context;
    const only = seesOnly(actor);
    const { active } = sql<{ active: number }>(
      `SELECT count(*) AS active FROM repeats r JOIN customers c ON c.id = r.customer_id
        WHERE r.state = 'active' AND ${seenCustomers} AND @today IS NOT NULL`,
    ).get({ only, today })!;
    const counts = Object.fromEntries(
      shown.map((show) => [
        show,
        sql<{ n: number }>(
          `SELECT count(*) AS n FROM repeats r JOIN customers c ON c.id = r.customer_id
            WHERE ${seenCustomers} AND @today IS NOT NULL AND ${isShown[show]}`,
        ).get({ only, today })!.n,
      ]),
    ) as Record<(typeof shown)[number], number>;
    // Figures of everybody's work are for those who see it.
    const months = only === null ? monthsAhead(context) : [];
    return {
      today,
      active,
      counts,
      currency: business.currency,
      months,
      valueMinor: may(actor, "money.see") ? months.reduce((sum, { minor }) => sum + (minor ?? 0), 0) : null,
      services: sql<{ id: number; name: string }>(
        "SELECT id, name FROM services s WHERE EXISTS (SELECT 1 FROM repeats WHERE service_id = s.id) ORDER BY name",
      ).all(),
      zones: sql<{ id: number; name: string }>("SELECT id, name FROM zones WHERE active = 1 ORDER BY name").all(),
      /** Whoever comes by now, and whoever has left while repeats still name them. */
      technicians: sql<{ id: number; name: string; active: 0 | 1 }>(
        `SELECT id, name, active FROM technicians t
          WHERE active = 1 OR EXISTS (SELECT 1 FROM repeats r WHERE r.technician_id = t.id AND r.state = 'active')
          ORDER BY active DESC, position, id`,
      )
        .all()
        .map(({ active, ...one }) => ({ ...one, hasLeft: active === 0 })),
    };
  },
});

function monthsAhead(context: ViewContext) {
  const { sql, today, actor } = context;
  const first = `${today.slice(0, 7)}-01`;
  const end = addMonths(first, 12);
  const forecast = new Map(
    sql<{ month: string; minutes: number; minor: number }>(
      `SELECT substr(v.date, 1, 7) AS month, sum((v.minutes + v.before_minutes + v.after_minutes) * v.crew) AS minutes,
          sum(iif(r.price_per IN ('catalogue', 'visit'), ${valueOfVisit}, 0)) AS minor
        FROM visits v JOIN repeats r ON r.id = v.repeat_id
        WHERE v.date >= ? AND v.date < ? AND v.state <> 'cancelled' GROUP BY 1`,
    )
      .all(first, end)
      .map((row) => [row.month, row]),
  );
  const paid = sql<{ minor: number }>(
    `SELECT coalesce(sum(iif(price_per = 'month', price_minor * 12, price_minor)), 0) AS minor
      FROM repeats WHERE state = 'active' AND price_per IN ('month', 'year')`,
  ).get()!.minor;
  const there = new Map<string, number>();
  for (const { date, minutes } of minutesThereAre(context, first, addDays(end, -1)))
    there.set(date.slice(0, 7), (there.get(date.slice(0, 7)) ?? 0) + minutes);
  return Array.from({ length: 12 }, (_, i) => {
    const month = addMonths(first, i).slice(0, 7);
    return {
      month,
      minutes: forecast.get(month)?.minutes ?? 0,
      thereAre: there.get(month) ?? 0,
      /** What is paid by the month or the year counts a twelfth of the year. */
      minor: may(actor, "money.see") ? (forecast.get(month)?.minor ?? 0) + Math.round(paid / 12) : null,
    };
  });
}
