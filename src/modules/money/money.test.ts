import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { runDue } from "@/worker/loop";
import { drainOutbox } from "@/worker/outbox";
import { office, one, paymentFor, smallWorld, system } from "@demo/small-world";
import { makeInvoice } from "./operations/billing";
import { payByCard, takeAnotherCard } from "./operations/pay-by-card";
import { recordCharge } from "./operations/record-outcomes";
import { recordPayment } from "./operations/record-payment";
import { money } from "./views/money";

type World = ReturnType<typeof smallWorld>;
const good = "9900000000001006";
const steps = ["on the way", "on site", "done"] as const;

function finish(world: World, visitId: number): void {
  world.onTheDayOf(visitId);
  for (const to of steps) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
}
const totals = (world: World) => {
  const result = look(world.hogar, money, {}, office);
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value.totals;
};
const cardFor = (world: World, number = good) => world.hogar.standins!.cards.tokenFor(number)!;

describe("from deposit to paid", () => {
  it("the invoice takes the deposit, the customer pays the rest, and every cent agrees with the journal", async () => {
    const world = smallWorld();
    const { actor, visitId, jobId } = world.booked({ serviceId: world.services.survey, card: good });
    await drainOutbox(world.hogar);
    expect(totals(world)).toMatchObject({ received: 4000, applied: 0, kept: 4000, agrees: true });

    finish(world, visitId);
    expect(one(world.hogar, "SELECT label, total_minor, due_date FROM invoices WHERE job_id = ?", jobId)).toEqual({
      label: "2027-0001",
      total_minor: 16_000,
      due_date: "2027-03-24",
    });
    expect(totals(world)).toMatchObject({ applied: 4000, kept: 0, open: 12_000, agrees: true });

    mustPerform(world.hogar, payByCard, { purpose: "invoice", cardToken: cardFor(world) }, actor);
    await drainOutbox(world.hogar);
    expect(totals(world)).toMatchObject({ received: 16_000, applied: 16_000, open: 0, agrees: true });
    expect(perform(world.hogar, payByCard, { purpose: "invoice", cardToken: cardFor(world) }, actor)).toMatchObject({
      problem: { code: "nothing-due" },
    });
  });

  it("a cancelled visit's deposit goes back to the card", async () => {
    const world = smallWorld();
    const { visitId } = world.booked({ serviceId: world.services.survey, card: good });
    await drainOutbox(world.hogar);
    mustPerform(world.hogar, cancelVisit, { visitId, refundDeposit: true }, office);
    expect(totals(world)).toMatchObject({ refunded: 4000, kept: 0, agrees: true });
    await drainOutbox(world.hogar);
    expect(one(world.hogar, "SELECT state FROM refunds")).toEqual({ state: "refunded" });
    expect(totals(world).agrees).toBe(true);
  });

  it("a deposit that arrives after the booking was cancelled goes back", async () => {
    const world = smallWorld();
    const { jobId, visitId } = world.booked({ serviceId: world.services.survey, card: "9900000000003002" });
    await drainOutbox(world.hogar);
    mustPerform(world.hogar, cancelVisit, { visitId, refundDeposit: true }, office);
    const { charge_key } = one<{ charge_key: string }>(
      world.hogar,
      "SELECT charge_key FROM payments WHERE job_id = ?",
      jobId,
    );
    const { reference } = world.hogar.standins!.cards.charges()[0]!;
    mustPerform(
      world.hogar,
      recordCharge,
      { chargeKey: charge_key, outcome: { state: "received", reference } },
      system,
    );
    expect(totals(world)).toMatchObject({ received: 4000, refunded: 4000, kept: 0, agrees: true });
  });
});

describe("a bank's second step", () => {
  const asked = async () => {
    const world = smallWorld();
    const booked = world.booked({ serviceId: world.services.survey, card: "9900000000003002" });
    await drainOutbox(world.hogar);
    return { world, ...booked };
  };
  const stateOf = (world: World, jobId: number) =>
    one<{ state: string }>(world.hogar, "SELECT state FROM payments WHERE job_id = ? ORDER BY id LIMIT 1", jobId).state;

  it("is left for another card, which pays; the first one charges no more", async () => {
    const { world, jobId, actor } = await asked();
    mustPerform(world.hogar, takeAnotherCard, {}, actor);
    await drainOutbox(world.hogar);
    mustPerform(world.hogar, payByCard, { purpose: "deposit", cardToken: cardFor(world) }, actor);
    await drainOutbox(world.hogar);
    expect(world.hogar.standins!.cards.settleStep(referenceOfFirst(world), true)).toBeNull();
    expect([stateOf(world, jobId), totals(world).received]).toEqual(["declined", 4000]);
  });

  it("that was confirmed at that very moment has paid", async () => {
    const { world, jobId, actor } = await asked();
    world.hogar.standins!.cards.settleStep(referenceOfFirst(world), true);
    mustPerform(world.hogar, takeAnotherCard, {}, actor);
    await drainOutbox(world.hogar);
    expect([stateOf(world, jobId), totals(world).received]).toEqual(["received", 4000]);
  });

  it("ends with the booking it was asked for", async () => {
    const { world, jobId, visitId } = await asked();
    mustPerform(world.hogar, cancelVisit, { visitId, refundDeposit: true }, office);
    await drainOutbox(world.hogar);
    expect(world.hogar.standins!.cards.settleStep(referenceOfFirst(world), true)).toBeNull();
    expect(stateOf(world, jobId)).toBe("declined");
  });

  const referenceOfFirst = (world: World) => world.hogar.standins!.cards.charges().at(-1)!.reference;
});

describe("a charge", () => {
  it("whose answer is lost is asked again under the same key, and charged once", async () => {
    const world = smallWorld();
    const { jobId } = world.booked({ serviceId: world.services.survey, card: "9900000000004000" });
    await drainOutbox(world.hogar);
    expect(one(world.hogar, "SELECT state FROM payments WHERE job_id = ?", jobId)).toEqual({ state: "asked" });
    world.later(1);
    await drainOutbox(world.hogar);
    expect(one(world.hogar, "SELECT state FROM payments WHERE job_id = ?", jobId)).toEqual({ state: "received" });
    expect(world.hogar.standins!.cards.charges()).toHaveLength(1);
  });

  it("cannot be started while another is under way, and its news count once", async () => {
    const world = smallWorld();
    const { actor, jobId } = world.booked({ serviceId: world.services.survey, card: good });
    expect(perform(world.hogar, payByCard, { purpose: "deposit", cardToken: cardFor(world) }, actor)).toMatchObject({
      problem: { code: "charge-under-way" },
    });
    await drainOutbox(world.hogar);
    const { charge_key, gateway_reference } = one<{ charge_key: string; gateway_reference: string }>(
      world.hogar,
      "SELECT * FROM payments WHERE job_id = ?",
      jobId,
    );
    mustPerform(
      world.hogar,
      recordCharge,
      { chargeKey: charge_key, outcome: { state: "received", reference: gateway_reference } },
      system,
    );
    expect(totals(world)).toMatchObject({ received: 4000, agrees: true });
  });

  it("that was declined can be tried with another card", async () => {
    const world = smallWorld();
    const { actor, jobId } = world.booked({ serviceId: world.services.survey, card: "9900000000002004" });
    await drainOutbox(world.hogar);
    mustPerform(world.hogar, payByCard, { purpose: "deposit", cardToken: cardFor(world) }, actor);
    await drainOutbox(world.hogar);
    expect(one(world.hogar, "SELECT state FROM jobs WHERE id = ?", jobId)).toEqual({ state: "agreed" });
  });
});

describe("a payment recorded by hand", () => {
  it("is posted on the day on which it came, and pays an invoice that was made since when that was made", () => {
    const world = smallWorld();
    const { customerId } = world.booked({ as: system }).actor;
    const line = { description: "Work", quantity: 1, unitMinor: 5_000, taxBp: 0, discountBp: 0 };
    const form = { discountBp: 0, before: "", after: "", dueDate: null, key: "invoice one" };
    mustPerform(world.hogar, makeInvoice, { customerId, lines: [line], ...form }, office);
    const paid = { customerId, method: "bank" as const, amountMinor: 5_000, invoices: null, key: "transfer one" };
    expect(perform(world.hogar, recordPayment, { ...paid, on: "2027-03-20" }, office)).toMatchObject({
      problem: { fields: { "/on": "This day has not come yet." } },
    });
    mustPerform(world.hogar, recordPayment, { ...paid, on: "2027-02-26" }, office);
    const at = (kind: string) =>
      one<{ day: string }>(
        world.hogar,
        "SELECT date(at / 1000, 'unixepoch') AS day FROM ledger_events WHERE kind = ?",
        kind,
      ).day;
    expect([at("payment"), at("allocation"), at("invoice")]).toEqual(["2027-02-26", "2027-03-09", "2027-03-09"]);
    expect(one(world.hogar, "SELECT open_minor AS open FROM invoice_balances")).toEqual({ open: 0 });
  });

  it("counts once per form, and never more than is open", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    finish(world, visitId);
    const { id: invoiceId } = one<{ id: number }>(world.hogar, "SELECT id FROM invoices");
    const record = (amountMinor: number, key: string) =>
      perform(
        world.hogar,
        recordPayment,
        paymentFor(world.hogar, invoiceId, { method: "cash", amountMinor, key }),
        office,
      );
    expect(record(8000, "too much, surely")).toMatchObject({ problem: { code: "amount-too-large" } });
    record(5000, "first form");
    record(5000, "first form");
    expect(totals(world)).toMatchObject({ received: 5000, open: 2900, agrees: true });
    record(2900, "second form");
    expect(totals(world)).toMatchObject({ open: 0, agrees: true });
  });

  it("cannot be applied twice, even past the operations", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    finish(world, visitId);
    const { id } = one<{ id: number }>(world.hogar, "SELECT id FROM invoices");
    mustPerform(
      world.hogar,
      recordPayment,
      paymentFor(world.hogar, id, { method: "bank", amountMinor: 7900, key: "whole sum" }),
      office,
    );
    const again = () =>
      world.hogar.store.audit.under({ at: 0, actor: "test", operation: "test" }, () =>
        world.hogar.store.db.exec(
          `INSERT INTO ledger_events (id, key, kind, at) VALUES (999, 'once more', 'allocation', 0);
          INSERT INTO ledger_entries (event_id, line, account, amount_minor, invoice_id, payment_id)
            SELECT 999, line, account, amount_minor, invoice_id, payment_id FROM ledger_entries
            WHERE event_id = (SELECT id FROM ledger_events WHERE kind = 'allocation')`,
        ),
      );
    expect(again).toThrow();
  });
});

describe("reminders", () => {
  it("of a visit go out once, the day before, to those who agreed to them", async () => {
    const world = smallWorld();
    world.booked({ window: world.offers().at(-1)! });
    const written = () =>
      one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM messages WHERE occasion LIKE 'visit reminder%'").n;
    await runDue(world.hogar);
    expect(written()).toBe(0);
    world.at("2027-03-11", 17 * 60);
    for (let i = 0; i < 3; i++) await runDue(world.hogar);
    expect(written()).toBe(1);
  });

  it("of an unpaid invoice follow its due date, and stop when it is paid", async () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    finish(world, visitId);
    const written = () =>
      one<{ n: number }>(
        world.hogar,
        "SELECT count(*) AS n FROM messages WHERE occasion LIKE 'invoice reminder%' AND channel = 'mail' AND sent_at IS NOT NULL",
      ).n;
    const on = async (date: string, minute = 600) => {
      world.at(date, minute);
      await runDue(world.hogar);
      return written();
    };
    expect([
      await on("2027-03-25"),
      await on("2027-03-27", 400),
      await on("2027-03-27"),
      await on("2027-03-28"),
      await on("2027-04-03"),
    ]).toEqual([0, 0, 1, 1, 2]);
    mustPerform(
      world.hogar,
      recordPayment,
      paymentFor(world.hogar, 1, { method: "bank", amountMinor: 7900, key: "at last paid" }),
      office,
    );
    expect(await on("2027-04-20")).toBe(2);
  });
});
