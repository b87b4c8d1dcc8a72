import { addDays, addMonths, daysBetween } from "@/core/time/dates";
import type { Hogar } from "@/kernel/hogar";
import { sealedToken } from "@/kernel/links";
import { mustPerform, viewContext } from "@/kernel/operation";
import { recordKeptCard } from "@/modules/money/operations/cards";
import { answerAsked } from "@/modules/repeats/operations/asks";
import { agreeRepeatDate, pauseRepeat } from "@/modules/repeats/operations/changes";
import { setRepeatPrice, setRepeatWays } from "@/modules/repeats/operations/ways";
import { endRepeat, promiseDate } from "@/modules/repeats/operations/repeats";
import { setAgain } from "@/modules/repeats/operations/set-again";
import { worker } from "@/kernel/scheduled";
import { runDue } from "@/worker/loop";
import { office } from "./set-up";

/** Repeats of every kind: flexible ones, some counted from the last visit, prices of their own, pauses, dates left out, and customers who are asked whether it is time again. */
export async function agreeRepeats(hogar: Hogar): Promise<void> {
  const { sql } = hogar.store;
  const { today } = viewContext(hogar, office);
  const of = (code: string) =>
    sql<{ id: number }>(
      "SELECT r.id FROM repeats r JOIN services s ON s.id = r.service_id WHERE s.code = ? AND r.state = 'active' ORDER BY r.id",
    )
      .all(code)
      .map(({ id }) => id);
  const ways = { comes: "set", leewayDays: null, counted: "calendar", promiseDays: null, asks: "customer" } as const;
  const [sweeps, ovens, landlords] = [of("SW"), of("PO"), of("LC")];

  // Every other yearly sweep comes within ten days of its date; some four-weekly ovens are counted from the last one.
  for (const repeatId of sweeps.filter((_, i) => i % 2 === 0))
    mustPerform(hogar, setRepeatWays, { ...ways, repeatId, comes: "flexible", leewayDays: 10 }, office);
  for (const repeatId of ovens.filter((_, i) => i % 3 === 1))
    mustPerform(hogar, setRepeatWays, { ...ways, repeatId, counted: "done" }, office);

  // Landlords have a price of their own that is reviewed, ovens pay by the month.
  for (const [i, repeatId] of landlords.slice(0, 6).entries()) {
    const review = { date: addMonths(today, 2 + i), byBp: 300, noticeDays: 30 };
    mustPerform(hogar, setRepeatPrice, { repeatId, per: "visit", minor: 9900, visits: 1, review }, office);
  }
  for (const repeatId of ovens.slice(0, 3))
    mustPerform(hogar, setRepeatPrice, { repeatId, per: "month", minor: 6500, visits: 1, review: null }, office);

  // One pauses over the summer, one has ended, one was left out twice in a row.
  const [paused, ended, leftOut] = [ovens[3], ovens[4], ovens[5]];
  if (paused !== undefined)
    mustPerform(
      hogar,
      pauseRepeat,
      { repeatId: paused, first: addMonths(today, 4), last: addMonths(today, 6) },
      office,
    );
  if (ended !== undefined) mustPerform(hogar, endRepeat, { repeatId: ended, reason: "The oven was sold" }, office);
  if (leftOut !== undefined)
    for (const { date } of sql<{ date: string }>(
      "SELECT repeat_date AS date FROM visits WHERE repeat_id = ? AND state = 'forecast' ORDER BY date LIMIT 2",
    ).all(leftOut))
      mustPerform(hogar, agreeRepeatDate, { repeatId: leftOut, date, skip: true }, office);

  // One has left a card whose month is over.
  expireACard(hogar, landlords);

  // Two have been promised by hand already.
  for (const repeatId of landlords.slice(6, 8)) {
    const { date } = sql<{ date: string | null }>(
      `SELECT min(repeat_date) AS date FROM visits v WHERE repeat_id = ? AND state = 'forecast'
          AND EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)`,
    ).get(repeatId)!;
    if (date) mustPerform(hogar, promiseDate, { repeatId, date }, office);
  }

  // What was done once: some are asked in a year, and some whom it concerns already.
  const done = (n: number) =>
    sql<{ id: number; date: string }>(
      `SELECT id, date FROM visits WHERE state = 'done' AND repeat_id IS NULL AND shared_id IS NULL AND again_months IS NULL
          AND date < ? ORDER BY date, id LIMIT ?`,
    ).all(addDays(today, -3), n);
  const soon = done(4);
  for (const { id: visitId, date } of soon)
    mustPerform(hogar, setAgain, { visitId, months: daysBetween(date, today) > 30 ? 2 : 1 }, office);
  for (const { id: visitId } of done(8)) mustPerform(hogar, setAgain, { visitId, months: 12 }, office);
  const [phoned] = soon;
  if (phoned !== undefined) {
    const { id } = sql<{ id: number }>("SELECT id FROM repeats WHERE after_visit_id = ?").get(phoned.id)!;
    mustPerform(hogar, setRepeatWays, { ...ways, repeatId: id, comes: "ask", asks: "office" }, office);
  }
  await runDue(hogar);
  const asked = sql<{ id: number }>("SELECT id FROM repeat_asks WHERE state = 'asked' ORDER BY id LIMIT 1").get();
  if (asked)
    mustPerform(
      hogar,
      answerAsked,
      { token: sealedToken(hogar, { kind: "again", id: asked.id }), answer: "call me", words: "After four, please." },
      { kind: "visitor" },
    );
}

/** The card service keeps a card for one of them that cannot be charged any more. */
function expireACard(hogar: Hogar, repeatIds: readonly number[]): void {
  const { sql } = hogar.store;
  const { today } = viewContext(hogar, office);
  const kept = sql<{ customerId: number; jobId: number }>(
    `SELECT j.customer_id AS customerId, j.id AS jobId FROM visits v JOIN jobs j ON j.id = v.job_id
      WHERE v.repeat_id IN (SELECT value FROM json_each(?)) ORDER BY v.id LIMIT 1`,
  ).get(JSON.stringify(repeatIds));
  if (kept)
    mustPerform(
      hogar,
      recordKeptCard,
      {
        ...kept,
        reference: "card_of_last_month",
        label: "card ending 5007",
        expires: addMonths(today, -1).slice(0, 7),
      },
      worker,
    );
}
