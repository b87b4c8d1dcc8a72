import type Database from "better-sqlite3";
import { nanoid } from "nanoid";
import { isSigned, sign } from "./standin-store";
import type { CardGateway, ChargeOutcome, DisputeNotice } from "./types";

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
  { number: "9900 0000 0000 2103", behaviour: "lost", says: "is declined: another card is needed" },
  { number: "9900 0000 0000 2202", behaviour: "stolen", says: "is declined for good" },
] as const;

export interface CardStandin extends CardGateway {
  /** A token for a card number, or null where the number is none of the test cards. */
  tokenFor(number: string): string | null;
  chargeByReference(reference: string): StandinCharge | null;
  /** Ends a second step, and gives the signed notice to be sent to the application. */
  settleStep(reference: string, agreed: boolean): { body: string; signature: string } | null;
  charges(): StandinCharge[];
  /** A customer's bank asks a charge back, or that is decided: gives the signed notice to be sent to the application. */
  dispute(charge: string, state: DisputeNotice["state"]): { body: string; signature: string } | null;
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

export function cardStandin(db: Database.Database, secret: string, now: () => number = Date.now): CardStandin {
  const chargeOf = db.prepare<[string], StandinCharge>("SELECT * FROM charges WHERE key = ?");
  const byReference = db.prepare<[string], StandinCharge>("SELECT * FROM charges WHERE reference = ?");

  return {
    async charge({ key, token, amountMinor, currency, description, how = "link" }) {
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
        { pays: "received", slow: "received", expired: "received", asks: "second step" }[behaviour] ??
        declinedBy[behaviour] ??
        "declined";
      db.prepare("INSERT INTO charge_ways VALUES (?, ?) ON CONFLICT DO NOTHING").run(key, how);
      db.prepare("INSERT INTO charges VALUES (?, ?, ?, ?, ?, ?, ?, ?)").run(
        key,
        `ch_${nanoid(16)}`,
        amountMinor,
        currency,
        description,
        state,
        card.last_digits,
        now(),
      );
      if (behaviour === "slow") throw new Error("The card service did not answer in time");
      return outcomeOf(chargeOf.get(key)!);
    },

    async outcome(reference) {
      db.prepare("UPDATE charges SET state = 'declined' WHERE reference = ? AND state = 'second step' AND at < ?").run(
        reference,
        now() - dayMs,
      );
      const charge = byReference.get(reference);
      if (!charge) throw new Error("There is no such charge");
      return outcomeOf(charge);
    },

    async endStep(reference) {
      db.prepare("UPDATE charges SET state = ? WHERE reference = ? AND state = 'second step'").run(
        stepEnded,
        reference,
      );
      const charge = byReference.get(reference);
      if (!charge) throw new Error("There is no such charge");
      return outcomeOf(charge);
    },

    async keep(token) {
      const card = db
        .prepare<[string], { behaviour: string; last_digits: string }>(
          "SELECT behaviour, last_digits FROM card_tokens WHERE token = ?",
        )
        .get(token);
      if (!card) return null;
      const reference = `card_${sign(token, secret).slice(0, 24)}`;
      db.prepare("INSERT INTO card_tokens VALUES (?, ?, ?) ON CONFLICT DO NOTHING").run(
        reference,
        card.behaviour,
        card.last_digits,
      );
      return {
        reference,
        label: `card ending ${card.last_digits}`,
        expires: lastMonthOf(card.behaviour),
        fingerprint: sign(`${card.behaviour} ${card.last_digits}`, secret).slice(0, 24),
      };
    },

    async refund({ key, reference, amountMinor }) {
      db.prepare("INSERT INTO card_refunds VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING").run(
        key,
        reference,
        amountMinor,
        now(),
      );
    },

    async payouts(after) {
      payOut(db, now(), Math.floor(now() / dayMs) * dayMs);
      const since =
        after === null
          ? 0
          : (db.prepare<[string], number>("SELECT rowid FROM payouts WHERE reference = ?").pluck().get(after) ?? 0);
      return db
        .prepare<[number], { reference: string; amount_minor: number; at: number }>(
          "SELECT * FROM payouts WHERE rowid > ? ORDER BY rowid",
        )
        .all(since)
        .map(({ reference, amount_minor, at }) => ({
          reference,
          amountMinor: amount_minor,
          feeMinor:
            db
              .prepare<[string], number>("SELECT fee_minor FROM payouts_at_once WHERE payout = ?")
              .pluck()
              .get(reference) ?? 0,
          at,
          items: db
            .prepare<
              [string],
              { kind: "charge" | "refund" | "dispute"; reference: string; grossMinor: number; feeMinor: number }
            >(
              "SELECT kind, reference, gross_minor AS grossMinor, fee_minor AS feeMinor FROM payout_items WHERE payout = ? ORDER BY rowid",
            )
            .all(reference),
        }));
    },

    atOnceBp,
    async payOutNow(key) {
      if (db.prepare("SELECT 1 FROM payouts_at_once WHERE key = ?").get(key)) return;
      db.transaction(() => payOut(db, now(), now() + 1, key))();
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

    dispute(reference, state) {
      const charge = byReference.get(reference);
      if (!charge || charge.state !== "received") return null;
      const notice: DisputeNotice = {
        reference: `dp_${reference}`,
        charge: reference,
        amountMinor: charge.amount_minor,
        reason: "The customer does not know this charge",
        answerBy: new Date(now() + 14 * dayMs).toISOString().slice(0, 10),
        state,
      };
      db.prepare(
        `INSERT INTO disputes VALUES (?, ?, ?, ?) ON CONFLICT DO UPDATE SET state = excluded.state, at = excluded.at WHERE disputes.state = 'open'`,
      ).run(notice.reference, notice.amountMinor, state, now());
      const body = JSON.stringify(notice);
      return { body, signature: sign(body, secret) };
    },

    charges: () => db.prepare<[], StandinCharge>("SELECT * FROM charges ORDER BY at DESC LIMIT 200").all(),
  };
}

/** Nobody has confirmed it, and nobody can any more. */
const stepEnded = "step ended";
const declinedBy: Record<string, string> = { lost: "declined, another card", stolen: "declined for good" };

/** What the stand-in keeps of a charge: a share in basis points, and a sum. */
const kept: Record<string, { bp: number; minor: number }> = {
  link: { bp: 140, minor: 25 },
  "on file": { bp: 140, minor: 25 },
  typed: { bp: 190, minor: 25 },
  reader: { bp: 110, minor: 5 },
};
const dayMs = 86_400_000;

/** What the stand-in keeps of each dispute. */
const disputeFee = 1500;

/** What the stand-in takes for paying out at once. */
const atOnceBp = 100;

/** All that came before a moment and was not paid out is one batch, less what was given back and what is kept; under the key of whoever asked for it at once. */
function payOut(db: Database.Database, now: number, before: number, atOnce: string | null = null): void {
  const charges = db
    .prepare<[number], { reference: string; amount_minor: number; how: string }>(
      `SELECT c.reference, c.amount_minor, coalesce(w.how, 'link') AS how FROM charges c LEFT JOIN charge_ways w ON w.key = c.key
        WHERE c.state = 'received' AND c.at < ? AND NOT EXISTS (SELECT 1 FROM payout_items WHERE kind = 'charge' AND reference = c.reference)
        ORDER BY c.at, c.reference`,
    )
    .all(before)
    .map(({ reference, amount_minor, how }) => {
      const { bp, minor } = kept[how] ?? kept["link"]!;
      return {
        kind: "charge",
        reference,
        gross: amount_minor,
        fee: Math.min(amount_minor, minor + Math.round((amount_minor * bp) / 10_000)),
      };
    });
  const refunds = db
    .prepare<[number], { key: string; amount_minor: number }>(
      `SELECT key, amount_minor FROM card_refunds r
        WHERE at < ? AND NOT EXISTS (SELECT 1 FROM payout_items WHERE kind = 'refund' AND reference = r.key) ORDER BY at, key`,
    )
    .all(before)
    .map(({ key, amount_minor }) => ({ kind: "refund", reference: key, gross: -amount_minor, fee: 0 }));
  const items = [...charges, ...refunds, ...disputedBefore(db, before)];
  const whole = items.reduce((all, { gross, fee }) => all + gross - fee, 0);
  const fee = atOnce === null ? 0 : Math.ceil((Math.max(0, whole) * atOnceBp) / 10_000);
  const amount = whole - fee;
  // What was given back of more than has come waits for the next batch.
  if (amount <= 0) return;
  const reference = `po_${nanoid(16)}`;
  db.transaction(() => {
    db.prepare("INSERT INTO payouts VALUES (?, ?, ?)").run(reference, amount, now);
    if (atOnce !== null) db.prepare("INSERT INTO payouts_at_once VALUES (?, ?, ?)").run(atOnce, reference, fee);
    for (const { kind, reference: of, gross, fee } of items)
      db.prepare("INSERT INTO payout_items VALUES (?, ?, ?, ?, ?)").run(reference, kind, of, gross, fee);
  })();
}

/** What customers' banks hold or have taken of charges, with what the stand-in keeps for the trouble; and what they gave again. */
const disputedBefore = (db: Database.Database, before: number) =>
  db
    .prepare<[number, number, number], { reference: string; gross: number; fee: number }>(
      `SELECT * FROM (
        SELECT reference, -amount_minor AS gross, ? AS fee FROM disputes WHERE at < ?
        UNION ALL SELECT reference || ' won', amount_minor, 0 FROM disputes WHERE state = 'won' AND at < ?
      ) d WHERE NOT EXISTS (SELECT 1 FROM payout_items WHERE kind = 'dispute' AND reference = d.reference) ORDER BY reference`,
    )
    .all(disputeFee, before, before)
    .map((item) => ({ kind: "dispute", ...item }));

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
  const declined = { state: "declined" as const, reference: charge.reference };
  if (charge.state === declinedBy["lost"])
    return { ...declined, reason: "The card cannot be used any more", kind: "another" };
  if (charge.state === stepEnded) return { ...declined, reason: "It was not confirmed with the bank", kind: "another" };
  if (charge.state === declinedBy["stolen"])
    return { ...declined, reason: "The bank does not allow charges to this card", kind: "never" };
  return { ...declined, reason: "The bank declined the card", kind: "later" };
}
