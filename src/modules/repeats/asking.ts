import { saidTitle } from "@/store/service-names";
import { type Asking, askStep, type AskStep } from "@/core/repeats/asking";
import { Refusal } from "@/core/problems";
import type { LocalDate } from "@/core/time/dates";
import { firstLinkTokenOf, openedBy } from "@/kernel/links";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { tellAboutRepeat } from "@/modules/messages/messaging";
import { takeOut } from "@/modules/placing/days";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { nanoid } from "nanoid";
import { workOn } from "./work";
import type { RepeatRow } from "./terms";
import { removeForecast } from "@/modules/jobs/forecasts";

export type AskRow = Rows["repeat_asks"];

/** What has been asked about a date, or nothing yet. */
export const askAbout = ({ sql }: ViewContext, repeatId: number, date: LocalDate): AskRow | undefined =>
  sql<AskRow>("SELECT * FROM repeat_asks WHERE repeat_id = ? AND date = ?").get(repeatId, date);

/** The date of an ask-first repeat that is next: the first forecast that is not past. */
export const nextForecast = ({ sql, today }: ViewContext, repeatId: number): LocalDate | null =>
  sql<{ date: LocalDate | null }>(
    "SELECT min(repeat_date) AS date FROM visits WHERE repeat_id = ? AND state = 'forecast' AND date > ?",
  ).get(repeatId, today)!.date;

/** What happens about the next date, and when it is looked at again; null where none is ahead, or where it waits for us already. */
function stepOf(context: ViewContext, repeat: RepeatRow): { date: LocalDate; step: AskStep } | null {
  const { business, today } = context;
  const date = nextForecast(context, repeat.id);
  const ask = date === null ? undefined : askAbout(context, repeat.id, date);
  if (date === null || (ask && ask.state !== "asked")) return null;
  const asking: Asking = {
    date,
    askDays: business.ask_days,
    againDays: business.ask_again_days,
    byLink: repeat.asks === "customer" && isReached(context, repeat.customer_id),
    times: ask?.times ?? 0,
    askedOn: ask?.asked_on ?? null,
  };
  return { date, step: askStep(asking, today) };
}

function isReached({ sql, hogar }: ViewContext, customerId: number): boolean {
  const { mail, phone } = sql<{ mail: string; phone: string }>("SELECT mail, phone FROM customers WHERE id = ?").get(
    customerId,
  )!;
  return (mail !== "" && hogar.gateways.mail !== null) || (phone !== "" && hogar.gateways.text !== null);
}

/** The day on which the next date is looked at again. */
export function nextAskLook(context: ViewContext, repeat: RepeatRow): LocalDate | null {
  const next = stepOf(context, repeat);
  if (!next) return null;
  return next.step.step === "wait" ? next.step.until : context.today;
}

/** Asks whoever is to be asked, or leaves it to a person; what nobody has answered until its date does not take place. */
export function lookAfterAsks(context: OperationContext, repeat: RepeatRow): void {
  const { sql, today } = context;
  for (const { id } of sql<{ id: number }>(
    "SELECT id FROM visits WHERE repeat_id = ? AND state = 'forecast' AND date <= ?",
  ).all(repeat.id, today)) {
    takeOut(context, id);
    removeForecast(context, id);
  }
  sql("UPDATE repeat_asks SET state = 'for us' WHERE repeat_id = ? AND state = 'asked' AND date <= ?").run(
    repeat.id,
    today,
  );
  const next = stepOf(context, repeat);
  if (next?.step.step === "ask") askCustomer(context, repeat, next.date);
  else if (next?.step.step === "for us") leaveToUs(context, repeat.id, next.date);
}

/** Asks a customer by a link; once more where they have been asked before. */
export function askCustomer(context: OperationContext, repeat: RepeatRow, date: LocalDate): void {
  const id = askAbout(context, repeat.id, date)?.id ?? makeAsk(context, repeat.id, date);
  const { times } = context
    .sql<{ times: number }>(
      "UPDATE repeat_asks SET state = 'asked', times = times + 1, asked_on = ? WHERE id = ? RETURNING times",
    )
    .get(context.today, id)!;
  tellAboutRepeat(context, {
    repeat,
    askId: id,
    occasion: "ask first",
    about: `ask ${id}, ${times}`,
    fields: { service: saidTitle(context.sql, workOn(context, repeat, date).needs.title), day: { days: [date] } },
  });
}

function leaveToUs(context: OperationContext, repeatId: number, date: LocalDate): void {
  const id = askAbout(context, repeatId, date)?.id ?? makeAsk(context, repeatId, date);
  context.sql("UPDATE repeat_asks SET state = 'for us' WHERE id = ?").run(id);
}

const makeAsk = ({ sql, now }: OperationContext, repeatId: number, date: LocalDate): number =>
  insertRow(sql, "repeat_asks", { repeat_id: repeatId, date, nonce: nanoid(32), state: "for us", made_at: now });

/** A question about a date that does not take place any more is closed; where that was taken back, it waits for us. */
export function settleAsks({ sql, today }: OperationContext, { id }: RepeatRow): void {
  const isAhead =
    "EXISTS (SELECT 1 FROM visits v WHERE v.repeat_id = a.repeat_id AND v.repeat_date = a.date AND v.state = 'forecast')";
  sql(
    `UPDATE repeat_asks AS a SET state = 'closed'
      WHERE repeat_id = ? AND state IN ('asked', 'for us') AND date > ? AND NOT ${isAhead}`,
  ).run(id, today);
  sql(
    `UPDATE repeat_asks AS a SET state = 'for us' WHERE repeat_id = ? AND state IN ('closed', 'declined') AND ${isAhead}`,
  ).run(id);
}

/** The question of a sealed link; refused where it opens nothing, was closed, or the link of its booking was ended. */
export function openAsk(context: ViewContext, token: string): AskRow {
  const id = openedBy(context.hogar, "again", token);
  const ask = id === null ? undefined : context.sql<AskRow>("SELECT * FROM repeat_asks WHERE id = ?").get(id);
  const stands =
    ask && (ask.state === "booked" ? firstLinkTokenOf(context.hogar, ask.job_id!) !== null : ask.state !== "closed");
  if (!ask || !stands) throw new Refusal("link-ended");
  return ask;
}
