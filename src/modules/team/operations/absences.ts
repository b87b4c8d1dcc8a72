import { Refusal } from "@/core/problems";
import { withoutCall } from "@/core/routes/calls";
import { prepareDay } from "@/core/routes/insertion";
import { asLateAsItIs } from "@/core/routes/lateness";
import type { Travel } from "@/core/routes/timing";
import type { LocalDate } from "@/core/time/dates";
import { epochMinute } from "@/core/time/local";
import { windowIn } from "@/core/time/local-words";
import { intersectSpans, minutesIn, type Span } from "@/core/time/spans";
import { DateText, EndMinute, Id, input, MinuteOfDay, Name, OrNull } from "@/kernel/inputs";
import { refuseOddSpans } from "@/kernel/odd-spans";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { takeOut, toPutIn, type ToPutIn, visitsAt, withStop, writeDay } from "@/modules/placing/days";
import { type DayPlan, loadPlanning, spanOf } from "@/modules/placing/planning";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";

/** Whole days, or the same hours of each day. */
const RecordTimeOff = input({
  technicianId: Id,
  firstDate: DateText,
  lastDate: DateText,
  reason: Name,
  fromMinute: Type.Optional(MinuteOfDay),
  toMinute: Type.Optional(MinuteOfDay),
});
/** Hours of one date in place of the week's; null goes back to the week's. */
const SetDayHours = input({
  technicianId: Id,
  date: DateText,
  spans: OrNull(Type.Array(input({ opens: MinuteOfDay, closes: EndMinute }), { minItems: 1, maxItems: 6 })),
});
/** A blocked time, with or without a place to be at. */
const RecordErrand = input({
  technicianId: Id,
  date: DateText,
  fromMinute: MinuteOfDay,
  toMinute: EndMinute,
  title: Name,
  addressId: OrNull(Type.String({ maxLength: 40 })),
});
const RemoveErrand = input({ id: Id });
const RemoveTimeOff = input({ id: Id });

/**
 * What takes a technician's time: time off, errands, other hours on one date. Visits that can no
 * longer be kept lose their technician and wait in the tray; each operation tells how many.
 */
export const recordTimeOff = defineOperation({
  name: "record-time-off",
  access: "board.change",
  about: { technicianId: "technician" },
  input: RecordTimeOff,
  run(context, { technicianId, firstDate, lastDate, reason, fromMinute, toMinute }) {
    const { sql, today } = context;
    if (lastDate < firstDate)
      throw new Refusal("invalid-input", { fields: { "/lastDate": "The last day is not before the first." } });
    if ((fromMinute === undefined) !== (toMinute === undefined) || (fromMinute ?? 0) >= (toMinute ?? 1))
      throw new Refusal("invalid-input", { fields: { "/toMinute": "The hours end after they begin." } });
    mustKnow(context, technicianId);
    const dates = sql<{ date: string }>(
      "SELECT DISTINCT date FROM placements WHERE technician_id = ? AND date BETWEEN ? AND ? AND date >= ?",
    )
      .all(technicianId, firstDate, lastDate, today)
      .map((d) => d.date);
    return changingDays(context, technicianId, dates, () => ({
      id: insertRow(sql, "time_off", {
        technician_id: technicianId,
        first_date: firstDate,
        last_date: lastDate,
        reason,
        from_minute: fromMinute ?? null,
        to_minute: toMinute ?? null,
      }),
    }));
  },
});

export const removeTimeOff = defineOperation({
  name: "remove-time-off",
  access: "board.change",
  about: { id: "time off" },
  input: RemoveTimeOff,
  run: ({ sql }, { id }) => void sql("DELETE FROM time_off WHERE id = ?").run(id),
});

/** A blocked time of a technician; with an address, the way there and back is driven. */
export const recordErrand = defineOperation({
  name: "record-errand",
  access: "board.change",
  about: { technicianId: "technician" },
  input: RecordErrand,
  run(context, { technicianId, date, fromMinute, toMinute, title, addressId }) {
    const { sql, hogar, business } = context;
    if (toMinute <= fromMinute)
      throw new Refusal("invalid-input", { fields: { "/toMinute": "An errand ends after it begins." } });
    mustKnow(context, technicianId);
    const address = addressId === null ? null : hogar.gateways.places.find(addressId);
    if (addressId !== null && !address)
      throw new Refusal("invalid-input", { fields: { "/addressId": "Choose an address from the list." } });
    const begins = epochMinute(date, fromMinute, business.time_zone);
    const ends = epochMinute(date, toMinute, business.time_zone);
    if (address) mustBeNowhereElse(context, { technicianId, begins, ends });
    return changingDays(context, technicianId, [date], () => ({
      id: insertRow(sql, "errands", {
        technician_id: technicianId,
        date,
        begins,
        ends,
        title: title.trim(),
        place: address?.line ?? "",
        lng: address?.lng ?? null,
        lat: address?.lat ?? null,
      }),
    }));
  },
});

/** Nobody is on two errands at two places at once. */
function mustBeNowhereElse(
  { sql, business }: OperationContext,
  { technicianId, begins, ends }: { technicianId: number; begins: number; ends: number },
): void {
  const other = sql<{ title: string; begins: number; ends: number }>(
    "SELECT title, begins, ends FROM errands WHERE technician_id = ? AND begins < ? AND ends > ? AND lng IS NOT NULL",
  ).get(technicianId, ends, begins);
  if (other)
    throw new Refusal("cannot-be-kept", {
      sentence: `“${other.title}” takes them elsewhere then, ${windowIn(other.begins, other.ends, business.time_zone)}. Choose another time, or remove it first.`,
    });
}

export const removeErrand = defineOperation({
  name: "remove-errand",
  access: "board.change",
  about: { id: "errand" },
  input: RemoveErrand,
  run: ({ sql }, { id }) => void sql("DELETE FROM errands WHERE id = ?").run(id),
});

export const setDayHours = defineOperation({
  name: "set-day-hours",
  access: "board.change",
  about: { technicianId: "technician" },
  input: SetDayHours,
  run(context, { technicianId, date, spans }) {
    mustKnow(context, technicianId);
    refuseOddSpans(spans ?? []);
    return changingDays(context, technicianId, [date], () => {
      context.sql("DELETE FROM day_hours WHERE technician_id = ? AND date = ?").run(technicianId, date);
      for (const { opens, closes } of spans ?? [])
        insertRow(context.sql, "day_hours", { technician_id: technicianId, date, opens, closes });
      return {};
    });
  },
});

function mustKnow({ sql }: OperationContext, technicianId: number): void {
  if (!sql("SELECT 1 FROM technicians WHERE id = ? AND active = 1").get(technicianId)) throw new Refusal("not-found");
}

/**
 * Makes a change to a technician's days and puts their visits back in: in the order they had where
 * that still works, otherwise one by one. What no longer fits is taken out, with the whole of its
 * crew. What was late before the change may stay as late as it was.
 */
function changingDays<R extends object>(
  context: OperationContext,
  technicianId: number,
  dates: readonly LocalDate[],
  change: () => R | undefined,
): R & { freed: number } {
  const before = loadPlanning(context, dates);
  const stops = new Map(dates.map((date) => [date, before.dayOf(technicianId, date).day.stops]));
  const result = change()!;
  const planning = loadPlanning(context, dates);
  let freed = 0;
  for (const date of dates) {
    const latest = new Map(stops.get(date)!.map((stop) => [stop.visitId, stop.latest]));
    const { promised, hours, errands } = planning.dayOf(technicianId, date);
    const day = {
      ...promised,
      stops: promised.stops.map((stop) => ({
        ...stop,
        latest: Math.max(stop.latest, stop.visitId === null ? stop.latest : (latest.get(stop.visitId) ?? stop.latest)),
      })),
    };
    const callsStand = day.calls.every((call) => stands(spanOf(call), hours, errands));
    const { kept, out } =
      callsStand && prepareDay(day, planning.travel) ? { kept: day, out: [] } : rebuilt(day, hours, planning.travel);
    const freedVisits = out.flatMap(visitsAt);
    for (const id of freedVisits) takeOut(context, id);
    writeDay(context, technicianId, date, kept, planning);
    freed += freedVisits.length;
  }
  return { ...result, freed };
}

/** Whether a call can be made when it was to be: within the hours, and not while somebody is on an errand. */
const stands = (call: Span, hours: readonly Span[], errands: readonly { begins: number; ends: number }[]): boolean =>
  minutesIn(intersectSpans([call], hours)) === call[1] - call[0] &&
  errands.every(({ begins, ends }) => ends <= call[0] || begins >= call[1]);

/** The day with the visits that fit around its errands, and those that do not. */
function rebuilt(day: DayPlan, hours: readonly Span[], travel: Travel): { kept: DayPlan; out: ToPutIn[] } {
  // An errand stands, even where its way home is after hours.
  const empty = {
    ...day,
    spans: day.calls.reduce((spans, call) => withoutCall(spans, spanOf(call), hours), day.spans),
    stops: day.stops.filter((s) => s.visitId === null),
  };
  let kept: DayPlan = { ...asLateAsItIs(empty, travel), calls: [] };
  const out: ToPutIn[] = [];
  for (const stop of toPutIn(day).filter((s) => s.visitId !== null)) {
    const grown = withStop(kept, stop, travel);
    if (grown) kept = grown;
    else out.push(stop);
  }
  return { kept, out };
}
