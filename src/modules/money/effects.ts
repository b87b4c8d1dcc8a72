import { dayMs } from "@/core/horizons";
import type { CardHow } from "@/gateways/types";
import { always, defineEffect, nothing, opened } from "@/kernel/effects";
import type { Hogar } from "@/kernel/hogar";
import { mustPerform } from "@/kernel/operation";
import { worker } from "@/kernel/scheduled";
import { Type } from "@sinclair/typebox";
import { recordKeptCard } from "./operations/cards";
import { recordPayout } from "./operations/payouts";
import { recordCharge, recordRefund } from "./operations/record-outcomes";

const [text, whole] = [Type.String(), Type.Integer()];

interface ChargePayload {
  how?: CardHow;
  chargeKey: string;
  token: string;
  amountMinor: number;
  currency: string;
  description: string;
}

const charge = defineEffect<ChargePayload>(
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
const endStep = defineEffect<{ chargeKey: string; reference: string }>(
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

const refund = defineEffect<RefundPayload>(
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

const keepCard = defineEffect<KeepCardPayload>(
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

interface ReaderPayload {
  key: string;
  amountMinor: number;
  currency: string;
}

const reader = defineEffect<ReaderPayload>(
  { key: text, amountMinor: whole, currency: text },
  (hogar, ask, askedAt) => ({
    repeatable: true,
    carryOut: () => opened(hogar.gateways.readers, "card reader").show(ask),
    // Whoever holds the card out has gone by then.
    triedUntil: askedAt + 5 * 60_000,
    giveUp: nothing,
  }),
);

const payOut = defineEffect<object>({}, (hogar, _, askedAt) => ({
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

/** How a card was charged is found out in the end, however long that takes. */
export const moneyEffects = {
  "pay out": payOut,
  charge,
  "end step": endStep,
  refund,
  "keep card": keepCard,
  reader,
};
