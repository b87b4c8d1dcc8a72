import { disagreements } from "@/core/money/balance";
import { testCards } from "@/gateways/cards-standin";
import { sealedToken } from "@/kernel/links";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { firstBroken } from "@/registry/laws";
import { insertRow } from "@/store/insert";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, smallWorld, visitor } from "@demo/small-world";
import { readBooks } from "./books";
import { makeInvoice } from "./operations/billing";
import { chargeInvoices, payOwed } from "./operations/charge-invoices";
import { recordPayment } from "./operations/record-payment";
import { payInvoice } from "./operations/pay-by-card";
import { myAccount } from "./views/papers";

/** A customer with three open invoices of €10.00, €20.00 and €30.00, and the link of their account. */
function owing() {
  const w = smallWorld();
  const { customerId } = w.booked({ name: "Ada Ash" }).actor;
  const ids = [1_000, 2_000, 3_000].map((unitMinor) => {
    const lines = [{ description: "Work", quantity: 1, unitMinor, taxBp: 2300, discountBp: 0 }];
    const form = { discountBp: 0, before: "", after: "", dueDate: null, key: `invoice ${unitMinor}` };
    return mustPerform(w.hogar, makeInvoice, { customerId, lines, ...form }, office).invoiceId;
  });
  const { audit, db, sql } = w.hogar.store;
  db.transaction(() =>
    audit.under({ at: 1, actor: "test", operation: "a reminder of all" }, () =>
      insertRow(sql, "account_links", { id: customerId, nonce: "of a reminder" }),
    ),
  ).immediate();
  const token = sealedToken(w.hogar, { kind: "owed", id: customerId });
  const cardToken = () =>
    w.hogar.standins!.cards.tokenFor(testCards.find(({ behaviour }) => behaviour === "pays")!.number)!;
  const open = () =>
    w.hogar.store
      .sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances ORDER BY invoice_id")
      .all()
      .map(({ n }) => n);
  const charged = () => w.hogar.standins!.cards.charges().map(({ amount_minor }) => amount_minor);
  const holds = () => [firstBroken(w.hogar.store.sql), disagreements(readBooks(w.hogar.store.sql))];
  return { ...w, customerId, ids, token, cardToken, open, charged, holds };
}

describe("several invoices at once", () => {
  it("are paid by their customer with one charge, all or some", async () => {
    const w = owing();
    expect(look(w.hogar, myAccount, { token: w.token }, visitor)).toMatchObject({
      value: { openMinor: 6_000, open: w.ids.map((id) => ({ id })) },
    });
    const some = { token: w.token, invoiceIds: w.ids.slice(1), cardToken: w.cardToken() };
    expect(perform(w.hogar, payOwed, some, visitor)).toMatchObject({ ok: true, value: { amountMinor: 5_000 } });
    await runDue(w.hogar);
    expect([w.charged(), w.open(), ...w.holds()]).toEqual([[5_000], [1_000, 0, 0], null, []]);
    expect(saidOf(perform(w.hogar, payOwed, some, visitor))).toContain("paid meanwhile");
  });

  it("cannot be charged while one of them is being charged by itself, nor the other way round", () => {
    const w = owing();
    const card = w.cardToken();
    const all = { token: w.token, invoiceIds: w.ids, cardToken: card };
    expect(perform(w.hogar, payOwed, all, visitor).ok).toBe(true);
    const invoice = sealedToken(w.hogar, { kind: "invoice", id: w.ids[1]! });
    expect(perform(w.hogar, payInvoice, { token: invoice, cardToken: card }, visitor)).toMatchObject({
      problem: { code: "charge-under-way" },
    });
    expect(perform(w.hogar, payOwed, { ...all, invoiceIds: w.ids.slice(0, 1) }, visitor)).toMatchObject({
      problem: { code: "charge-under-way" },
    });
  });

  it("leave what was paid of them meanwhile with the customer", async () => {
    const w = owing();
    mustPerform(w.hogar, payOwed, { token: w.token, invoiceIds: w.ids, cardToken: w.cardToken() }, visitor);
    const invoices = [{ invoiceId: w.ids[0]!, amountMinor: 1_000 }];
    const cash = { customerId: w.customerId, method: "cash" as const, amountMinor: 1_000, invoices, key: "in cash 1" };
    mustPerform(w.hogar, recordPayment, cash, office);
    await runDue(w.hogar);
    expect([w.open(), ...w.holds()]).toEqual([[0, 0, 0], null, []]);
    expect(one(w.hogar, "SELECT sum(left_minor) AS n FROM payment_balances")).toEqual({ n: 1_000 });
  });

  it("are tried again after a card was declined, though something of them was paid in between", async () => {
    const w = owing();
    const declined = w.hogar.standins!.cards.tokenFor(
      testCards.find(({ behaviour }) => behaviour === "declined")!.number,
    )!;
    const all = { token: w.token, invoiceIds: w.ids };
    mustPerform(w.hogar, payOwed, { ...all, cardToken: declined }, visitor);
    await runDue(w.hogar);
    const invoices = [{ invoiceId: w.ids[0]!, amountMinor: 400 }];
    const cash = { customerId: w.customerId, method: "cash" as const, amountMinor: 400, invoices, key: "in cash 1" };
    mustPerform(w.hogar, recordPayment, cash, office);
    expect(perform(w.hogar, payOwed, { ...all, cardToken: w.cardToken() }, visitor)).toMatchObject({
      ok: true,
      value: { amountMinor: 5_600 },
    });
    await runDue(w.hogar);
    expect([w.open(), ...w.holds()]).toEqual([[0, 0, 0], null, []]);
  });

  it("are charged by the office to a card that is said on the phone, and to none of somebody else's", async () => {
    const w = owing();
    const other = w.booked({ name: "Bo Berg", nth: 12, card: "9900000000001006", serviceId: w.services.survey });
    await runDue(w.hogar);
    const about = { customerId: w.customerId, invoiceIds: w.ids };
    const foreign = one<{ id: number }>(w.hogar, "SELECT coalesce(max(id), 99) AS id FROM cards").id;
    expect(perform(w.hogar, chargeInvoices, { ...about, cardId: foreign, cardToken: null }, office).ok).toBe(false);
    expect(perform(w.hogar, chargeInvoices, { ...about, cardId: null, cardToken: w.cardToken() }, office).ok).toBe(
      true,
    );
    await runDue(w.hogar);
    expect([w.open().slice(0, 3), ...w.holds()]).toEqual([[0, 0, 0], null, []]);
    expect(
      perform(
        w.hogar,
        chargeInvoices,
        { ...about, customerId: other.actor.customerId, cardId: null, cardToken: w.cardToken() },
        office,
      ).ok,
    ).toBe(false);
  });
});
