import { Refusal } from "@/core/problems";
import { localOf } from "@/core/time/local";
import type { LocalDate } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import { DateText, Id, input, OrNull, windowChosen } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { tellAll } from "@/modules/messages/telling-us";
import { agreeDateOf, endPauseOf, pauseOf } from "@/modules/repeats/agreeing";
import { laidOut, readRepeat } from "@/modules/repeats/repeats";
import type { RepeatRow } from "@/modules/repeats/terms";
import { ownRepeat } from "../own-work";
import { offersForDate, refuseLateChange } from "../own-dates";

/** A date that is not promised yet: in another window, left out (null), or as it was agreed. */
const ChangeDate = input({ date: DateText, window: OrNull(input(windowChosen)) });
const OneDate = input({ date: DateText });
const Pause = input({ first: DateText, last: DateText });
const EndPause = input({ pauseId: Id });

/** A customer moves one date of their repeat into a window that can be kept, or leaves it out; the office is told. */
export const changeDateByLink = defineOperation({
  name: "change-date-by-link",
  access: "link",
  input: ChangeDate,
  run(context, { date, window }) {
    const repeat = mine(context);
    refuseWhatStands(context, repeat, date);
    if (window === null) {
      agreeDateOf(context, repeat, date, { skip: true });
      return tell(context, repeat, `leaves ${dayWords(date)} out`);
    }
    const offer = offersForDate(context, repeat, date).find(
      (one) => one.offered && one.from === window.from && one.to === window.to,
    );
    if (!offer)
      throw new Refusal("window-gone", {
        sentence: "Somebody was faster: this window has just been taken. Choose another one.",
      });
    const zone = context.business.time_zone;
    agreeDateOf(context, repeat, date, {
      to: offer.date,
      window: { fromMinute: localOf(offer.from, zone).minute, toMinute: localOf(offer.to, zone).minute },
    });
    tell(context, repeat, `moves ${dayWords(date)} to ${dayWords(offer.date)}`);
  },
});

/** Takes back what was agreed for a date: it is as the rule says again. */
export const restoreDateByLink = defineOperation({
  name: "restore-date-by-link",
  access: "link",
  input: OneDate,
  run(context, { date }) {
    const repeat = mine(context);
    refuseWhatStands(context, repeat, date);
    agreeDateOf(context, repeat, date, {});
    tell(context, repeat, `wants ${dayWords(date)} as agreed at first`);
  },
});

/** Nobody comes for a while, at the customer's wish; what is promised stays. */
export const pauseByLink = defineOperation({
  name: "pause-by-link",
  access: "link",
  input: Pause,
  run(context, { first, last }) {
    const repeat = mine(context);
    refuseManyPauses(context, repeat.id);
    const { promised } = pauseOf(context, repeat.id, first, last);
    tell(context, repeat, `pauses from ${dayWords(first)} to ${dayWords(last)}`);
    return { promised };
  },
});

export const endPauseByLink = defineOperation({
  name: "end-pause-by-link",
  access: "link",
  // Of their own repeat alone: that is looked for.
  about: { pauseId: "shared" },
  input: EndPause,
  run(context, { pauseId }) {
    const repeat = mine(context);
    endPauseOf(context, repeat.id, pauseId);
    laidOut(context, repeat.id);
    tell(context, repeat, "ends a pause");
  },
});

/** So many pauses ahead are made by oneself; whoever wants more is better spoken with. */
const mostPauses = 6;

function refuseManyPauses({ sql, today, business }: OperationContext, repeatId: number): void {
  const { n } = sql<{ n: number }>(
    "SELECT count(*) AS n FROM repeat_pauses WHERE repeat_id = ? AND last_date >= ?",
  ).get(repeatId, today)!;
  if (n >= mostPauses)
    throw new Refusal("invalid-input", {
      fields: { "/first": `There are ${n} pauses already. Call us on ${business.phone}, and we find what suits you.` },
    });
}

function mine(context: OperationContext): RepeatRow {
  const own = ownRepeat(context);
  if (!own) throw new Refusal("not-found");
  if (own.state !== "active")
    throw new Refusal("visit-not-open", {
      sentence: `This does not come again any more. Call us on ${context.business.phone} if it should.`,
    });
  return readRepeat(context, own.id);
}

/** A date that is promised is moved as a visit; one that comes soon, by the office. */
function refuseWhatStands(context: OperationContext, repeat: RepeatRow, date: LocalDate): void {
  const visit = context
    .sql<{ state: string }>("SELECT state FROM visits WHERE repeat_id = ? AND repeat_date = ?")
    .get(repeat.id, date);
  if (visit && visit.state !== "forecast")
    throw new Refusal("visit-not-open", {
      sentence: `We have promised you ${dayWords(date)} by now: move or cancel that visit itself, on this page or with a call.`,
    });
  refuseLateChange(context, repeat, date);
}

function tell(context: OperationContext, repeat: RepeatRow, what: string): void {
  const { name, line, service } = context
    .sql<{ name: string; line: string; service: string }>(
      `SELECT c.name, t.line, s.name AS service
        FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN sites t ON t.id = r.site_id
          JOIN services s ON s.id = r.service_id
        WHERE r.id = ?`,
    )
    .get(repeat.id)!;
  const said = `${name} ${what}: ${service}`;
  tellAll(context, {
    key: `repeat ${repeat.id}, ${what}, at ${context.now}`,
    what: said,
    who: line,
  });
}
