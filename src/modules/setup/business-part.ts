import type { ViewContext } from "@/kernel/operation";
import { limitsBy } from "@/kernel/reading";
import { readPattern } from "@/modules/catalogue/window-patterns";
import { readOpening } from "@/modules/placing/opening-hours";
import { daysColumn, rolesColumn, spansColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { readFrontDoor } from "@/store/front-door";

/** Who the business is, when it is open, and by which rules one books. */
export function readBusinessPart(context: ViewContext) {
  const { sql, business: b, today, hogar } = context;
  const { listed, ...frontDoor } = readFrontDoor(context);
  const jobs = sql("SELECT 1 FROM jobs").get() !== undefined;
  return {
    today,
    currency: b.currency,
    /** In which customers are written to, where they have said nothing else. */
    language: b.language,
    timeZone: b.time_zone,
    pricesIncludeTax: b.prices_include_tax === 1,
    business: {
      name: b.name,
      phone: b.phone,
      mail: b.mail,
      mark: b.mark,
      place: { lng: b.lng, lat: b.lat, line: b.address },
      site: b.site,
      registration: b.registration,
      taxNumber: b.tax_number,
      currency: b.currency,
      timeZone: b.time_zone,
      weekStart: b.week_start,
      clockHours: b.clock_hours,
      pricesIncludeTax: b.prices_include_tax === 1,
      taxRates: sql<{ name: string; rateBp: number; zeroKind: Rows["tax_rates"]["zero_kind"]; words: string }>(
        "SELECT name, rate_bp AS rateBp, zero_kind AS zeroKind, words FROM tax_rates ORDER BY position",
      ).all(),
      terms: b.terms,
      quoteText: b.quote_text,
      invoiceText: b.invoice_text,
      billing: {
        invoicePrefix: b.invoice_prefix,
        creditPrefix: b.credit_prefix,
        bankAccount: b.bank_account,
        exemptWords: b.exempt_words,
        paymentFrom: b.payment_from,
        by: b.billing,
        lateFeeDays: b.late_fee_days,
        lateFeeMinor: b.late_fee_minor,
        lateFeeBp: b.late_fee_bp,
        returnFeeMinor: b.return_fee_minor,
        tips: b.tips === 1,
        partsMost: b.parts_most,
        partsFromMinor: b.parts_from_minor,
        partMonths: b.part_months,
        quoteFollowUps: daysColumn.read(b.quote_follow_ups),
        textBlocks: sql<Pick<Rows["text_blocks"], "paper" | "place" | "words"> & { serviceId: number | null }>(
          "SELECT paper, place, service_id AS serviceId, words FROM text_blocks ORDER BY id",
        ).all(),
      },
      paymentDays: b.payment_days,
      travelMarginMinutes: b.travel_margin_minutes,
      travelMarginPercent: b.travel_margin_percent,
      windingPercent: b.winding_percent,
      kmh: b.kmh,
      labourCostMinor: b.labour_cost_minor,
      keepChangesDays: b.keep_changes_days,
    },
    frontDoor,
    security: {
      unprovedEach: b.unproved_each,
      provedEach: b.proved_each,
      unprovedPercent: b.unproved_percent,
      unprovedADay: b.unproved_a_day,
      secondFactorRoles: rolesColumn.read(b.second_factor_roles),
    },
    /** What there is to send and to charge with. */
    outside: {
      mail: hogar.gateways.mail !== null,
      text: hogar.gateways.text !== null,
      cards: hogar.gateways.cards !== null,
    },
    listed,
    /** Once work is priced the currency stays. */
    currencyStays: jobs,
    opening: [...readOpening(context).hours],
    specialDays: sql<{
      id: number;
      name: string;
      first: string;
      last: string;
      yearly: number;
      spans: string;
      promised: number;
    }>(
      `SELECT id, name, first_date AS first, last_date AS last, yearly, spans,
          (SELECT count(*) FROM visits WHERE state = 'promised' AND date BETWEEN first_date AND last_date) AS promised
        FROM special_days ORDER BY yearly, first_date`,
    )
      .all()
      .map(({ yearly, spans, ...day }) => ({
        ...day,
        yearly: yearly === 1,
        spans: spansColumn.read(spans).map(([opens, closes]) => ({ opens, closes })),
      })),
    rules: {
      noticeMinutes: b.notice_minutes,
      horizonDays: b.horizon_days,
      holdMinutes: b.hold_minutes,
      windows: readPattern(context),
      capacity: b.capacity,
      forecastRoom: b.forecast_room,
      limits: limitsBy(context, "business")(0),
      outside: b.outside,
      moveHours: b.move_hours,
      cancelHours: b.cancel_hours,
      lateMoves: b.late_moves,
      onOurWayBp: b.on_our_way_bp,
      repeatMonths: b.repeat_months,
      promiseDays: b.promise_days,
      askDays: b.ask_days,
      askAgainDays: b.ask_again_days,
    },
  };
}
