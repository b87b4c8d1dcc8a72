import { dayMs, hourMs } from "@/core/horizons";
import { kindOf, type Occasion, occasions } from "@/core/messages/occasions";
import { triedUntil, type Unsent } from "@/core/messages/usefulness";
import type { Actor } from "@/core/people/permissions";
import type { CardHow } from "@/gateways/types";
import type { Hogar } from "@/kernel/hogar";
import { type OpenedBy, sealedToken } from "@/kernel/links";
import { mustPerform, viewContext } from "@/kernel/operation";
import { contentOf, partsOf } from "@/modules/messages/content";
import { whetherToSend } from "@/modules/messages/sending";
import { putOffMessage, recordDelivery } from "@/modules/messages/operations/record-delivery";
import { recordKeptCard } from "@/modules/money/operations/cards";
import { recordPayout } from "@/modules/money/operations/payouts";
import { recordCharge, recordRefund } from "@/modules/money/operations/record-outcomes";
import { channelsColumn } from "@/store/columns";
import { jsonColumn } from "@/store/json-column";
import type { Json, Rows } from "@/store/rows";
import { type TSchema, Type } from "@sinclair/typebox";

export const worker: Actor = { kind: "system", name: "worker" };

/** One kind of thing done outside, for one payload: it does it, and takes down what came of it. */
export interface Effect {
  /** False where doing it twice could harm: then an attempt whose end is unknown is left to a person. */
  repeatable: boolean;
  carryOut: (key: string) => Promise<void>;
  /** Until when it is tried (epoch milliseconds). */
  triedUntil: number;
  /** Where nothing more will be tried: it failed, or nobody can say. */
  giveUp: (how: "failed" | "not known") => void;
}

/** How a card was charged is found out in the end: its key makes asking again harmless, however long that takes. */
const always = Number.POSITIVE_INFINITY;

/** What a kind does with a payload as it stands in the outbox, and when it was asked for (epoch milliseconds); throws where that is not of the kind's shape. */
type Kind = (hogar: Hogar, payload: Json, askedAt: number) => Effect;

const kind = <P>(
  shape: Record<keyof P, TSchema>,
  effect: (hogar: Hogar, payload: P, askedAt: number) => Effect,
): Kind => {
  const column = jsonColumn<P>(Type.Object(shape));
  return (hogar, payload, askedAt) => effect(hogar, column.read(payload), askedAt);
};

/** The way to the outside that an effect needs. What was asked for while there was one waits for a person where there is none any more. */
function opened<G>(gateway: G | null, name: string): G {
  if (gateway === null) throw new Error(`There is no ${name} service`);
  return gateway;
}

const [text, whole] = [Type.String(), Type.Integer()];
const nothing = () => {};

interface ChargePayload {
  how?: CardHow;
  chargeKey: string;
  token: string;
  amountMinor: number;
  currency: string;
  description: string;
}

const charge = kind<ChargePayload>(
  { how: Type.Optional(text), chargeKey: text, token: text, amountMinor: whole, currency: text, description: text },
  (hogar, { chargeKey, ...charge }) => ({
    repeatable: true,
    async carryOut() {
      const outcome = await opened(hogar.gateways.cards, "card").charge({ key: chargeKey, ...charge });
      mustPerform(hogar, recordCharge, { chargeKey, outcome }, worker);
    },
    triedUntil: always,
    giveUp: nothing,
  }),
);

/** A bank's second step is ended, so that another card can pay, or since there is nothing to be paid for any more. */
const endStep = kind<{ chargeKey: string; reference: string }>(
  { chargeKey: text, reference: text },
  (hogar, { chargeKey, reference }) => ({
    repeatable: true,
    async carryOut() {
      const outcome = await opened(hogar.gateways.cards, "card").endStep(reference);
      mustPerform(hogar, recordCharge, { chargeKey, outcome }, worker);
    },
    triedUntil: always,
    giveUp: nothing,
  }),
);

interface RefundPayload {
  refundKey: string;
  reference: string;
  amountMinor: number;
}

const refund = kind<RefundPayload>(
  { refundKey: text, reference: text, amountMinor: whole },
  (hogar, { refundKey, ...refund }) => ({
    repeatable: true,
    async carryOut() {
      await opened(hogar.gateways.cards, "card").refund({ key: refundKey, ...refund });
      mustPerform(hogar, recordRefund, { refundKey }, worker);
    },
    triedUntil: always,
    giveUp: nothing,
  }),
);

interface KeepCardPayload {
  customerId: number;
  jobId: number;
  token: string;
  /** Before the other cards of its owner, or behind them. */
  first?: boolean;
}

const keepCard = kind<KeepCardPayload>(
  { customerId: whole, jobId: whole, token: text, first: Type.Optional(Type.Boolean()) },
  (hogar, { token, ...of }, askedAt) => ({
    repeatable: true,
    async carryOut() {
      const kept = await opened(hogar.gateways.cards, "card").keep(token);
      // Somebody has made the token up: there is nothing to keep.
      if (kept) mustPerform(hogar, recordKeptCard, { ...of, ...kept }, worker);
    },
    // After a day there is no card on file, and the customer enters one the next time.
    triedUntil: askedAt + dayMs,
    giveUp: nothing,
  }),
);

interface TellPayload {
  to: string;
  subject: string;
  body: string;
  /** As earlier versions have asked for it: a text, or with the link of a wish or a quote. */
  way?: "mail" | "text";
  opens?: OpenedBy;
}

/** A mail that is kept nowhere, since there is a secret in it: a code. */
const tell = kind<TellPayload>(
  { to: text, subject: text, body: text, way: Type.Optional(text), opens: Type.Optional(Type.Object({ kind: text })) },
  (hogar, { way = "mail", opens, body, ...message }, askedAt) => ({
    repeatable: hogar.gateways[way]?.repeatable ?? true,
    async carryOut(key) {
      const link = opens ? `${hogar.publicUrl}/${opens.kind}/${sealedToken(hogar, opens, way)}` : "";
      await hogar.gateways[way]?.send({ key, ...message, body: body.replaceAll("{{own_link}}", link) });
    },
    // A code is over by then.
    triedUntil: askedAt + hourMs,
    giveUp: nothing,
  }),
);

/** Pages of the index of customers that are merged in one transaction. */
const pagesMerged = 64;

/** What was erased must not live on beside the rows: the index's segments are merged into one, and the database's log is written back and emptied. */
const forgetTraces = kind<object>({}, ({ store: { db } }) => ({
  repeatable: true,
  async carryOut() {
    const merge = db.prepare(
      "INSERT INTO customer_search (customer_search, rank) VALUES ('merge', CAST(? AS INTEGER))",
    );
    const changes = db.prepare("SELECT total_changes()").pluck();
    // A negative number begins with all segments; as SQLite says, less than two changes mean that nothing is left to merge.
    for (let [pages, before] = [-pagesMerged, -2]; (changes.get() as number) - before >= 2; pages = pagesMerged) {
      before = changes.get() as number;
      merge.run(pages);
      await new Promise(setImmediate);
    }
    const [{ busy }] = db.pragma("wal_checkpoint(TRUNCATE)") as [{ busy: number }];
    if (busy) throw new Error("The log is being read and is emptied later");
  },
  triedUntil: always,
  giveUp: nothing,
}));

/** A mail, a text or a call that is kept. Whether it may go is asked now: what has changed since it was written counts. */
const message = kind<{ messageId: number }>({ messageId: whole }, (hogar, { messageId }) => {
  const row = hogar.store.sql<Rows["messages"]>("SELECT * FROM messages WHERE id = ?").get(messageId);
  const gateway = row ? hogar.gateways[row.channel] : null;
  return {
    repeatable: gateway?.repeatable ?? true,
    async carryOut(key) {
      // Its customer was erased, or it has been dealt with before.
      if (row?.state !== "waiting") return;
      if (!("goes" in whetherToSend(viewContext(hogar, worker), row)))
        return void mustPerform(hogar, putOffMessage, { messageId }, worker);
      const content = contentOf(hogar, row);
      const sending = await opened(gateway, row.channel).send({ key, ...content });
      const parts = partsOf(row.channel, content.body);
      mustPerform(hogar, recordDelivery, { messageId, ...sending, parts }, worker);
    },
    triedUntil: row ? triedUntil(unsentOf(row)) : 0,
    // Another way may still work, where it is known that this one did not.
    giveUp: (how) =>
      mustPerform(hogar, recordDelivery, { messageId, state: how, problem: "It could not be sent in time" }, worker),
  };
});

const unsentOf = ({ kind, written_at, window_from, channels_left }: Rows["messages"]): Unsent => ({
  purpose: kind in occasions ? kindOf(kind as Occasion).purpose : "service",
  ofDebt: kind in occasions && kindOf(kind as Occasion).ofDebt === true,
  writtenAt: written_at,
  windowFrom: window_from === null ? null : window_from * 60_000,
  hasOtherWay: channelsColumn.read(channels_left).length > 0,
});

interface ReaderPayload {
  key: string;
  amountMinor: number;
  currency: string;
}

const reader = kind<ReaderPayload>({ key: text, amountMinor: whole, currency: text }, (hogar, ask, askedAt) => ({
  repeatable: true,
  carryOut: () => opened(hogar.gateways.readers, "card reader").show(ask),
  // Whoever holds the card out has gone by then.
  triedUntil: askedAt + 5 * 60_000,
  giveUp: nothing,
}));

const payOut = kind<object>({}, (hogar, _, askedAt) => ({
  repeatable: true,
  async carryOut(key) {
    await opened(hogar.gateways.cards, "card").payOutNow(key);
    await takeDownPayouts(hogar);
  },
  triedUntil: askedAt + dayMs,
  giveUp: nothing,
}));

/** Takes down what the card service has paid out since it was asked last. */
export async function takeDownPayouts(hogar: Hogar): Promise<void> {
  const last = hogar.store.sql<{ reference: string }>("SELECT reference FROM payouts ORDER BY id DESC LIMIT 1").get();
  for (const payout of (await hogar.gateways.cards?.payouts(last?.reference ?? null)) ?? [])
    mustPerform(hogar, recordPayout, payout, worker);
}

/** So long a second step is the customer's to take before the card service is asked how it stands. */
const secondStepMs = 10 * 60_000;

/** Takes down how charges have ended of which no notice has come: a lost one, or a bank's question that nobody has answered. */
export async function lookAtSecondSteps(hogar: Hogar): Promise<void> {
  const waiting = hogar.store
    .sql<{ chargeKey: string; reference: string }>(
      `SELECT charge_key AS chargeKey, gateway_reference AS reference FROM payments
        WHERE state = 'second step' AND asked_at < ? ORDER BY id LIMIT 100`,
    )
    .all(hogar.now() - secondStepMs);
  for (const { chargeKey, reference } of waiting) {
    const outcome = await hogar.gateways.cards?.outcome(reference).catch(() => null);
    // Who does not answer is asked again the next time.
    if (outcome && outcome.state !== "second step") mustPerform(hogar, recordCharge, { chargeKey, outcome }, worker);
  }
}

export const effects: Record<string, Kind> = {
  "pay out": payOut,
  charge,
  "end step": endStep,
  refund,
  "keep card": keepCard,
  reader,
  tell,
  message,
  "forget traces": forgetTraces,
};
