import type Database from "better-sqlite3";
import { nanoid } from "nanoid";
import { isSigned, sign } from "./standin-store";
import type { CardGateway, ChargeOutcome } from "./types";

/**
 * A card service to try things out with. It keeps the card numbers to itself: Hogar only ever sees
 * the token that the card form hands out. What a card does depends on its number.
 */
export const testCards = [
  { number: "9900 0000 0000 1006", behaviour: "pays", says: "pays" },
  { number: "9900 0000 0000 2004", behaviour: "declined", says: "is declined" },
  { number: "9900 0000 0000 3002", behaviour: "asks", says: "asks for a second step" },
  { number: "9900 0000 0000 5007", behaviour: "expired", says: "pays, and has expired a month later" },
  { number: "9900 0000 0000 4000", behaviour: "slow", says: "times out once, then turns out to have paid" },
] as const;

export interface CardStandin extends CardGateway {
  /** A token for a card number, or null where the number is none of the test cards. */
  tokenFor(number: string): string | null;
  chargeByReference(reference: string): StandinCharge | null;
  /** Ends a second step, and gives the signed notice to be sent to the application. */
  settleStep(reference: string, agreed: boolean): { body: string; signature: string } | null;
  charges(): StandinCharge[];
}

interface StandinCharge {
  key: string;
  reference: string;
  amount_minor: number;
  currency: string;
  description: string;
  state: string;
  last_digits: string;
  at: number;
}

export function cardStandin(db: Database.Database, secret: string): CardStandin {
  const chargeOf = db.prepare<[string], StandinCharge>("SELECT * FROM charges WHERE key = ?");
  const byReference = db.prepare<[string], StandinCharge>("SELECT * FROM charges WHERE reference = ?");

  return {
    async charge({ key, token, amountMinor, currency, description }) {
      const before = chargeOf.get(key);
      if (before) return outcomeOf(before);
      const card = db
        .prepare<[string], { behaviour: string; last_digits: string }>(
          "SELECT behaviour, last_digits FROM card_tokens WHERE token = ?",
        )
        .get(token);
      if (!card) return { state: "unknown card" };
      const { behaviour } = card;
      const state =
        { pays: "received", slow: "received", expired: "received", asks: "second step" }[behaviour] ?? "declined";
      db.prepare("INSERT INTO charges VALUES (?, ?, ?, ?, ?, ?, ?, ?)").run(
        key,
        `ch_${nanoid(16)}`,
        amountMinor,
        currency,
        description,
        state,
        card.last_digits,
        Date.now(),
      );
      if (behaviour === "slow") throw new Error("The card service did not answer in time");
      return outcomeOf(chargeOf.get(key)!);
    },

    async keep(token) {
      const card = db
        .prepare<[string], { behaviour: string; last_digits: string }>(
          "SELECT behaviour, last_digits FROM card_tokens WHERE token = ?",
        )
        .get(token);
      if (!card) throw new Error("There is no such card");
      const reference = `card_${sign(token, secret).slice(0, 24)}`;
      db.prepare("INSERT INTO card_tokens VALUES (?, ?, ?) ON CONFLICT DO NOTHING").run(
        reference,
        card.behaviour,
        card.last_digits,
      );
      return { reference, label: `card ending ${card.last_digits}`, expires: lastMonthOf(card.behaviour) };
    },

    async refund({ key, reference, amountMinor }) {
      db.prepare("INSERT INTO card_refunds VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING").run(
        key,
        reference,
        amountMinor,
        Date.now(),
      );
    },

    isGenuine: (body, signature) => isSigned(body, signature, secret),

    tokenFor(number) {
      const digits = number.replace(/\D/g, "");
      const card = testCards.find((c) => c.number.replaceAll(" ", "") === digits);
      if (!card) return null;
      const token = `tok_${nanoid(24)}`;
      db.prepare("INSERT INTO card_tokens VALUES (?, ?, ?)").run(token, card.behaviour, digits.slice(-4));
      return token;
    },

    chargeByReference: (reference) => byReference.get(reference) ?? null,

    settleStep(reference, agreed) {
      const changed = db
        .prepare("UPDATE charges SET state = ? WHERE reference = ? AND state = 'second step'")
        .run(agreed ? "received" : "declined", reference);
      const charge = byReference.get(reference);
      if (!charge || changed.changes === 0) return null;
      const body = JSON.stringify({ key: charge.key, outcome: outcomeOf(charge) });
      return { body, signature: sign(body, secret) };
    },

    charges: () => db.prepare<[], StandinCharge>("SELECT * FROM charges ORDER BY at DESC LIMIT 200").all(),
  };
}

/** Cards of the stand-in are good for years, but one: its month is over. */
function lastMonthOf(behaviour: string): string {
  const now = new Date();
  const month = behaviour === "expired" ? now.getUTCMonth() - 1 : now.getUTCMonth() + 40;
  return new Date(Date.UTC(now.getUTCFullYear(), month, 1)).toISOString().slice(0, 7);
}

function outcomeOf(charge: StandinCharge): ChargeOutcome {
  if (charge.state === "received") return { state: "received", reference: charge.reference };
  if (charge.state === "second step")
    return { state: "second step", reference: charge.reference, address: `/standins/cards/step/${charge.reference}` };
  return { state: "declined", reference: charge.reference, reason: "The bank declined the card" };
}
