import { agreeDaysAhead } from "@/core/horizons";
import { addDays } from "@/core/time/dates";
import { DateText, Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { agreeJob } from "@/modules/booking/agree";
import { priceItems, readItem } from "@/modules/catalogue/catalogue";
import { tellCustomer } from "@/modules/messages/messaging";
import type { ZoneRules } from "@/modules/place/zones";
import { itemsColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { beginRepeat, forecast, readRepeat, type RepeatRow, stopRepeat, takeUpRepeat } from "../repeats";

const MakeRepeat = input({
  visitId: Id,
  every: Type.Integer({ minimum: 1, maximum: 120 }),
  unit: OneOf(["day", "week", "month", "year"]),
  until: OrNull(DateText),
});
const OneRepeat = input({ repeatId: Id });

/** Makes a visit come back: the same service, site and window by a rule from its date on. */
export const makeRepeat = defineOperation({
  name: "make-repeat",
  access: "board.change",
  about: { visitId: "visit" },
  input: MakeRepeat,
  run(context, { visitId, every, unit, until }) {
    return beginRepeat(context, visitId, { every, unit, until });
  },
});

/** Ends a repeat: its forecasts go, its promised visits stay. */
export const endRepeat = defineOperation({
  name: "end-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneRepeat,
  run: (context, { repeatId }) => stopRepeat(context, readRepeat(context, repeatId).id),
});

/** Takes up a repeat that was ended. */
export const resumeRepeat = defineOperation({
  name: "resume-repeat",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneRepeat,
  run: (context, { repeatId }) => ({ forecasts: takeUpRepeat(context, repeatId) }),
});

/** Looks after one repeat: keeps its forecasts ahead, and turns those whose time has come into visits. */
export const growRepeat = defineOperation({
  name: "grow-repeat",
  access: "system",
  input: OneRepeat,
  run(context, { repeatId }) {
    const { sql, today } = context;
    const repeat = readRepeat(context, repeatId);
    if (repeat.state !== "active") return { agreed: 0 };
    // A forecast that found no room until its day had passed is history.
    sql(
      `DELETE
        FROM visits WHERE repeat_id = ? AND state = 'forecast' AND date < ?
          AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = visits.id)`,
    ).run(repeatId, today);
    forecast(context, repeat);
    const due = sql<{ id: number }>(
      `SELECT v.id FROM visits v WHERE v.repeat_id = ? AND v.state = 'forecast' AND v.date BETWEEN ? AND ?
       AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id) ORDER BY v.date`,
    ).all(repeatId, today, addDays(today, agreeDaysAhead));
    for (const { id } of due) agreeForecast(context, id, repeat);
    return { agreed: due.length };
  },
});

function agreeForecast(context: OperationContext, visitId: number, repeat: RepeatRow): void {
  const { sql } = context;
  const items = itemsColumn.read(repeat.items).map((item) => readItem(context, item));
  const zone =
    sql<ZoneRules>("SELECT z.* FROM sites s JOIN zones z ON z.id = s.zone_id WHERE s.id = ?").get(repeat.site_id) ??
    null;
  const jobId = agreeJob(context, {
    visitId,
    customerId: repeat.customer_id,
    siteId: repeat.site_id,
    items,
    order: priceItems(context, items, zone),
    note: "",
    depositMinor: 0,
    bookedBy: `repeat ${repeat.id}`,
  });
  tellCustomer(context, { jobId, occasion: "coming again", about: `visit ${visitId}` });
}
