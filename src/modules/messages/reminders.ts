import type { FieldValue } from "@/core/messages/fields";
import {
  type FallingMessage,
  type FallRule,
  lastOfEachKind,
  messagesOf,
  type PromisedVisit,
} from "@/core/messages/falling";
import { chargeUnderWay } from "@/store/charges";
import { insertOnce } from "@/store/insert";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { daysColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { saidTitle } from "@/store/service-names";
import { tellCustomer, timesOf } from "./messaging";
import { zoneOf } from "./sending";

type RuleRow = Rows["reminder_rules"];

/** When reminders of visits fall, as the owner has set it. */
export const reminderRules = ({ sql }: Pick<ViewContext, "sql">): RuleRow[] =>
  sql<RuleRow>("SELECT * FROM reminder_rules ORDER BY coalesce(minutes_before, days_before * 1440) DESC, id").all();

const fallRule = ({ id, days_before, at_minute, minutes_before, outside }: RuleRow): FallRule => ({
  id: String(id),
  outside,
  ...(minutes_before === null ? { daysBefore: days_before!, at: at_minute! } : { minutesBefore: minutes_before }),
});

/** So many visits are looked at in one turn: the first by the index, whatever waits behind them. */
const atOnce = 400;

/** Customers with a promised visit that is to be looked at now: their ids. */
export const customersToRemind = ({ sql, minute }: ViewContext): number[] =>
  sql<{ id: number }>(
    `SELECT DISTINCT j.customer_id AS id
      FROM (SELECT visit_id FROM reminder_looks WHERE next_at <= ? ORDER BY next_at LIMIT ${atOnce}) l
        JOIN visits v ON v.id = l.visit_id JOIN jobs j ON j.id = v.job_id`,
  )
    .all(minute)
    .map(({ id }) => id);

/** All rules anew: every promised visit is looked at again. What should have fallen before now does not come any more. */
export const lookAtAllAgain = ({ sql, minute }: OperationContext): void =>
  void sql("UPDATE reminder_looks SET looked_at = ?, next_at = 0").run(minute);

/** Writes a customer the reminders that have fallen due since their visits were looked at last, and notes when to look again. */
export function remindCustomer(context: OperationContext, customerId: number): void {
  const { sql, minute } = context;
  const visits = promisedTo(context, customerId);
  const rules = reminderRules(context);
  const { now, ahead } = fallingOf(context, customerId, visits, rules);
  const asks = new Map(rules.map((rule) => [String(rule.id), rule.asks === 1 ? "asks" : "reminds"]));
  for (const message of now) noteReminded(context, message, visits);
  for (const message of lastOfEachKind(now, (rule) => asks.get(rule)!)) remindOf(context, message, rules, visits);
  const next = sql("UPDATE reminder_looks SET looked_at = @minute, next_at = @next WHERE visit_id = @id");
  for (const { id } of visits) {
    const soonest = Math.min(
      ...ahead.filter(({ visit, with: others }) => [visit, ...others].includes(String(id))).map(({ at }) => at),
    );
    if (Number.isFinite(soonest)) next.run({ id, minute, next: soonest });
    else sql("DELETE FROM reminder_looks WHERE visit_id = ?").run(id);
  }
  // What is over or was cancelled is not looked at any more.
  sql(
    `DELETE FROM reminder_looks WHERE visit_id IN (SELECT v.id FROM jobs j JOIN visits v ON v.job_id = j.id
      WHERE j.customer_id = ? AND v.state <> 'promised')`,
  ).run(customerId);
}

interface VisitToRemind {
  id: number;
  job_id: number;
  title: string;
  date: string;
  window_from: number;
  window_to: number;
  told_at: number;
  confirmed_at: number | null;
  looked_at: number;
}

const promisedTo = ({ sql }: ViewContext, customerId: number): VisitToRemind[] =>
  sql<VisitToRemind>(
    `SELECT v.id, v.job_id, v.title, v.date, v.window_from, v.window_to, v.confirmed_at, l.looked_at,
        coalesce((SELECT max(made_at) FROM promises WHERE visit_id = v.id AND ended_at IS NULL), j.booked_at) AS told_at
      FROM jobs j JOIN visits v ON v.job_id = j.id JOIN reminder_looks l ON l.visit_id = v.id
      WHERE j.customer_id = ? AND v.state = 'promised' ORDER BY v.window_from, v.id`,
  ).all(customerId);

/** What has fallen due since they were looked at, and what will: nothing twice. */
function fallingOf(
  { sql, business, minute }: ViewContext,
  customerId: number,
  visits: readonly VisitToRemind[],
  rules: readonly RuleRow[],
): { now: FallingMessage[]; ahead: FallingMessage[] } {
  const reminded = sql("SELECT 1 FROM reminded WHERE visit_id = ? AND rule_id = ? AND window_from = ?");
  const promised = visits.map((v): PromisedVisit => ({
    id: String(v.id),
    customer: "one",
    from: v.window_from,
    told: Math.floor(v.told_at / 60_000),
    lookedAt: v.looked_at,
  }));
  const falling = {
    // By their own clock, where they live by another one.
    zone: zoneOf({ sql }, customerId) ?? business.time_zone,
    hours: { from: business.message_from, to: business.message_to },
    rules: rules.map(fallRule),
    isSent: (visit: string, rule: string, from: number) =>
      reminded.get(Number(visit), Number(rule), from) !== undefined,
  };
  const now = messagesOf(promised, { ...falling, now: 0, until: minute + 1 }).messages;
  const ahead = messagesOf(promised, { ...falling, now: minute + 1, until: Infinity }).messages;
  return { now, ahead };
}

const named = ({ visit, with: others }: FallingMessage, visits: readonly VisitToRemind[]): VisitToRemind[] =>
  [visit, ...others].map((id) => visits.find((v) => String(v.id) === id)!);

/** It comes no more, whether it is written or a later one speaks for it. */
function noteReminded({ sql }: OperationContext, message: FallingMessage, visits: readonly VisitToRemind[]): void {
  for (const one of named(message, visits))
    insertOnce(sql, "reminded", { visit_id: one.id, rule_id: Number(message.rule), window_from: one.window_from });
}

/** Writes one reminder, of one visit or of several at once. */
function remindOf(
  context: OperationContext,
  message: FallingMessage,
  rules: readonly RuleRow[],
  visits: readonly VisitToRemind[],
): void {
  const { business } = context;
  const { visit, rule, from } = message;
  const those = named(message, visits);
  const asks = rules.find(({ id }) => String(id) === rule)!.asks === 1;
  const [first, ...more] = those.filter((one) => isAgreed(context, one) && (!asks || one.confirmed_at === null));
  if (!first) return;
  tellCustomer(context, {
    jobId: first.job_id,
    visitId: first.id,
    alsoVisits: more.map(({ id }) => id),
    occasion: asks ? "please confirm" : "visit reminder",
    about: `${rule} of visit ${visit} at ${from}`,
    fields: {
      visits: more.map(
        (one) =>
          ({ ...timesOf(business.time_zone, [one]), service: saidTitle(context.sql, one.title) }) as Record<
            string,
            FieldValue
          >,
      ),
    },
  });
}

/** Whether its job stands and its customer wants to be reminded, so that there is something to write; it is asked again when it is sent. */
const isAgreed = ({ sql }: ViewContext, { job_id }: VisitToRemind): boolean =>
  sql(
    `SELECT 1 FROM jobs j JOIN customers c ON c.id = j.customer_id
      WHERE j.id = ? AND j.state = 'agreed' AND j.approval = 'given' AND coalesce(j.reminders, c.reminders) = 1`,
  ).get(job_id) !== undefined;

/** In SQL: whether the customer of a visit was asked to confirm it as it is promised now. */
export const askedToConfirm = (visit: string): string =>
  `EXISTS (SELECT 1 FROM messages m WHERE m.visit_id = ${visit}.id AND m.kind = 'please confirm' AND m.window_from = ${visit}.window_from AND m.sent_at IS NOT NULL)`;

/** So many invoices are reminded of in one turn. */
const invoicesAtOnce = 500;

/** Invoices whose reminder has fallen due and is not written yet: their ids. */
export const invoicesToRemind = ({ sql, today }: ViewContext): number[] =>
  sql<{ id: number }>(
    `SELECT id
      FROM invoices i WHERE remind_on <= ? AND objected_at IS NULL
        AND NOT ${chargeUnderWay}
      ORDER BY remind_on, id LIMIT ${invoicesAtOnce}`,
  )
    .all(today)
    .map(({ id }) => id);

/** Days after the due date on which an open invoice is reminded of, as the owner has set them. */
export const reminderDays = ({ business }: ViewContext): number[] => daysColumn.read(business.reminder_days);
