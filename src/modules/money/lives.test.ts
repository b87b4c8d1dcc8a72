import { disagreements } from "@/core/money/balance";
import { personActor } from "@/core/people/permissions";
import { sealedToken } from "@/kernel/links";
import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { firstBroken } from "@/registry/laws";
import { bookInOffice } from "@/modules/booking/operations/book-in-office";
import { pauseRepeat } from "@/modules/repeats/operations/changes";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import { setRepeatPrice } from "@/modules/repeats/operations/ways";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { drainOutbox } from "@/worker/outbox";
import { office, one, paymentFor, saidOf, smallWorld, system } from "@demo/small-world";
import fc from "fast-check";
import { customersToBill } from "./billing";
import { readBooks } from "./books";
import {
  creditInvoiceByHand,
  invoiceAgain,
  refundPayment,
  takeBackPayment,
  useCredit,
  writeOff,
} from "./operations/corrections";
import { billByItself, billCustomerByHand, makeInvoice } from "./operations/billing";
import { lateInvoices } from "./late-fees";
import { askReader, chargeHeldCard, endReader, takeCard } from "./operations/door-cards";
import { report } from "./views/report";
import { recordDispute } from "./operations/disputes";
import { askLateFee, waiveFee } from "./operations/late-fees";
import { handOverCash, payOutTips, takePayment } from "./operations/cash";
import { payByCard, payInvoice } from "./operations/pay-by-card";
import { recordPayment } from "./operations/record-payment";
import { customerAccount } from "./views/customer-account";
import { invoice as invoiceView } from "./views/money";

const good = "9900000000001006";
const reason = "As they wished";
const onTheRoad = personActor({ id: 3, name: "Bram Solberg", role: "owner", technicianId: 1 });
/** An invoice with two rates, a discount on a line and one on all. */
const handMade = (customerId: number, unitMinor: number) => ({
  customerId,
  lines: [
    { description: "Stove rope", quantity: 3, unitMinor, taxBp: 2_100, discountBp: 500 },
    { description: "Certificate", quantity: 1, unitMinor: 2_500, taxBp: 600, discountBp: 0 },
  ],
  discountBp: 1_000,
  before: "As agreed on the phone.",
  after: "",
  dueDate: null,
  key: "by hand, once",
});

/** Somebody whose visit is done and invoiced: €79.00. */
function invoiced() {
  const world = smallWorld();
  const booked = world.booked();
  const finish = (visitId: number) => {
    world.onTheDayOf(visitId);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
  };
  finish(booked.visitId);
  const { sql } = world.hogar.store;
  const open = (id = 1) =>
    sql<{ n: number }>("SELECT open_minor AS n FROM invoice_balances WHERE invoice_id = ?").get(id)!.n;
  const account = () => {
    const view = look(world.hogar, customerAccount, { customerId: booked.actor.customerId }, office);
    if (!view.ok) throw new Error(view.problem.sentence);
    return view.value;
  };
  const paid = (amountMinor: number, key = "a transfer", invoiceId = 1) =>
    mustPerform(
      world.hogar,
      recordPayment,
      paymentFor(world.hogar, invoiceId, { method: "bank", amountMinor, key }),
      office,
    ).paymentId;
  const onAccount = (amountMinor: number, key = "on account") =>
    mustPerform(
      world.hogar,
      recordPayment,
      { customerId: booked.actor.customerId, method: "bank", amountMinor, invoices: [], key },
      office,
    ).paymentId;
  /** The same customer has another visit, which is done: another invoice. Nothing where no window is left. */
  const again = () => {
    const [offer] = world.offers().reverse();
    if (!offer) return;
    const { date, from, to } = offer;
    const { visitId } = mustPerform(
      world.hogar,
      bookInOffice,
      {
        addressId: world.addresses[10]!.id,
        items: [{ serviceId: world.services.sweep }],
        date,
        from,
        to,
        customer: { id: booked.actor.customerId },
        note: "",
      },
      office,
    );
    finish(visitId);
  };
  const changed = (query: string) =>
    world.hogar.store.db.transaction(() =>
      world.hogar.store.audit.under({ at: 1, actor: "test", operation: "test" }, () => sql(query).run()),
    )();
  const billedBy = (by: "job" | "month" | "hand") => changed(`UPDATE customers SET billing = '${by}'`);
  /** What the owner has set. */
  const rules = (columns: string) => changed(`UPDATE business SET ${columns}`);
  return { ...world, ...booked, billedBy, rules, again, sql, open, account, paid, onAccount };
}

describe("a payment of a customer", () => {
  it("pays several invoices at once; what is over is credit, and pays the next invoice by itself", () => {
    const w = invoiced();
    w.again();
    mustPerform(
      w.hogar,
      recordPayment,
      {
        customerId: w.actor.customerId,
        method: "bank",
        amountMinor: 17_000,
        note: "1001 and 1002",
        invoices: null,
        key: "both of them",
      },
      office,
    );
    expect([w.open(1), w.open(2), w.account().creditMinor]).toEqual([0, 0, 1_200]);
    w.again();
    expect([w.open(3), w.account().creditMinor]).toEqual([6_700, 0]);
  });

  it("never pays more of an invoice than is open, nor more than it is", () => {
    const w = invoiced();
    const pay = (amountMinor: number, part: number) =>
      perform(
        w.hogar,
        recordPayment,
        {
          customerId: w.actor.customerId,
          method: "cheque",
          amountMinor,
          invoices: [{ invoiceId: 1, amountMinor: part }],
          key: `${amountMinor} ${part}, cheque`,
        },
        office,
      );
    expect(pay(9_000, 8_000)).toMatchObject({
      problem: { fields: { "/invoices/0/amountMinor": "€79.00 is open on this invoice." } },
    });
    expect(pay(5_000, 6_000)).toMatchObject({
      problem: { fields: { "/amountMinor": expect.stringContaining("less") } },
    });
    expect(w.open()).toBe(7_900);
  });

  it("that was a mistake is set right by a counter-entry, and what it had paid is open again", () => {
    const w = invoiced();
    const paymentId = w.paid(7_900);
    mustPerform(w.hogar, takeBackPayment, { paymentId, reason: "Another customer’s" }, office);
    expect([w.open(), w.account().creditMinor, w.account().balanceMinor]).toEqual([7_900, 0, 7_900]);
    expect(w.account().entries.map(({ kind }) => kind)).toEqual(["reversal", "payment", "invoice"]);
    expect(perform(w.hogar, takeBackPayment, { paymentId, reason }, office)).toMatchObject({
      problem: { code: "not-found" },
    });
  });

  it("goes back in parts, to where it came from, as far as something is left of it", async () => {
    const w = invoiced();
    const paymentId = w.onAccount(3_000);
    const back = (amountMinor: number) =>
      perform(w.hogar, refundPayment, { paymentId, amountMinor, method: "as paid", reason }, office);
    back(1_000);
    back(500);
    expect(w.account().creditMinor).toBe(1_500);
    expect(saidOf(back(1_501))).toContain("€15.00 is left of this payment");
  });
});

describe("an invoice that was wrong", () => {
  it("is credited whole and invoiced anew; what had paid it pays the new one", () => {
    const w = invoiced();
    w.paid(5_000);
    mustPerform(w.hogar, creditInvoiceByHand, { invoiceId: 1, lines: null, reason: "Wrong address" }, office);
    expect([w.open(1), w.account().balanceMinor]).toEqual([0, -5_000]);
    const { invoiceId } = mustPerform(w.hogar, invoiceAgain, { jobId: w.jobId }, office);
    expect([w.open(invoiceId), w.account().balanceMinor]).toEqual([2_900, 2_900]);
    expect(perform(w.hogar, invoiceAgain, { jobId: w.jobId }, office).ok).toBe(false);
  });

  it("is credited in part: its lines say how much is left, and the invoice itself never changes", () => {
    const w = invoiced();
    const sent = () => w.sql("SELECT number, total_minor, tax_minor FROM invoices").all();
    const before = sent();
    const credit = (amountMinor: number) =>
      perform(w.hogar, creditInvoiceByHand, { invoiceId: 1, lines: [{ position: 0, amountMinor }], reason }, office);
    credit(2_000);
    expect(credit(5_901)).toMatchObject({
      problem: { fields: { "/lines/0/amountMinor": "Of this line €59.00 can be credited." } },
    });
    expect(w.open()).toBe(5_900);
    expect(look(w.hogar, invoiceView, { id: 1 }, office)).toMatchObject({
      value: {
        creditable: [{ leftMinor: 5_900 }],
        notes: [{ number: "C-2027-0001", total_minor: 2_000 }],
        state: "part paid",
      },
    });
    expect(sent()).toEqual(before);
  });

  it("is given up with a reason, and nobody is reminded of it any more", () => {
    const w = invoiced();
    mustPerform(w.hogar, writeOff, { invoiceId: 1, reason: "Moved away" }, office);
    expect(w.open()).toBe(0);
    expect(one(w.hogar, "SELECT remind_on FROM invoices")).toEqual({ remind_on: null });
    expect(look(w.hogar, invoiceView, { id: 1 }, office)).toMatchObject({ value: { state: "written off" } });
  });
});

/** As the door answers it: refused in a sentence, or done; never by an error that nobody has thought of. */
const tried: typeof perform = (...args) => {
  const result = perform(...args);
  if (!result.ok) expect(result.problem.code).not.toBe("unexpected");
  return result;
};

describe("how customers are billed", () => {
  it("by the month: what is done waits, and one invoice takes all of a month when it is over, with its deposits", () => {
    const w = invoiced();
    w.billedBy("month");
    w.again();
    w.again();
    expect(w.sql("SELECT id FROM invoices").all()).toHaveLength(1);
    mustPerform(w.hogar, billByItself, { customerId: w.actor.customerId }, system);
    expect(w.sql("SELECT id FROM invoices").all()).toHaveLength(1);
    w.later(40 * 1440);
    mustPerform(w.hogar, billByItself, { customerId: w.actor.customerId }, system);
    mustPerform(w.hogar, billByItself, { customerId: w.actor.customerId }, system);
    expect(one(w.hogar, "SELECT count(*) AS n, max(total_minor) AS total FROM invoices")).toEqual({
      n: 2,
      total: 15_800,
    });
    expect(firstBroken(w.sql)).toBeNull();
  });

  it("by hand, with lines, two rates and discounts; the same form twice makes one", () => {
    const w = invoiced();
    const make = () => mustPerform(w.hogar, makeInvoice, handMade(w.actor.customerId, 1_000), office).invoiceId;
    const id = make();
    expect(make()).toBe(id);
    // 3 × 10.00 less 5% is 28.50; with 25.00 it is 53.50, less 10%.
    expect(one(w.hogar, "SELECT total_minor, label FROM invoices WHERE id = ?", id)).toEqual({
      total_minor: 4_815,
      label: "2027-0002",
    });
    expect(firstBroken(w.sql)).toBeNull();
  });

  it("without tax where it is the customer’s to account for, and says so", () => {
    const w = invoiced();
    w.sql("SELECT 1").get();
    w.hogar.store.db.transaction(() =>
      w.hogar.store.audit.under({ at: 1, actor: "test", operation: "test" }, () =>
        w.sql("UPDATE customers SET tax_kind = 'reverse charge', tax_number = 'XX99'").run(),
      ),
    )();
    const { invoiceId } = mustPerform(w.hogar, makeInvoice, handMade(w.actor.customerId, 1_000), office);
    expect(one(w.hogar, "SELECT tax_minor, tax_words, buyer_tax_number FROM invoices WHERE id = ?", invoiceId)).toEqual(
      { tax_minor: 0, tax_words: expect.stringMatching(/Reverse charge/), buyer_tax_number: "XX99" },
    );
    expect(one(w.hogar, "SELECT DISTINCT tax_bp FROM invoice_lines WHERE invoice_id = ?", invoiceId)).toEqual({
      tax_bp: 0,
    });
    const taxes = look(w.hogar, report, { name: "tax by invoice", from: "2027-03-01", to: "2027-03-31" }, office);
    expect(taxes).toMatchObject({
      value: {
        rows: expect.arrayContaining([["March 2027", "0%, reverse charge", expect.any(Number), 0, expect.any(Number)]]),
      },
    });
  });
});

describe("a flat price", () => {
  it("is billed as its month begins, once, and not for a month that is paused from end to end", () => {
    const w = smallWorld();
    const { visitId } = w.booked();
    const { repeatId } = mustPerform(w.hogar, makeRepeat, { visitId, rule: "FREQ=WEEKLY" }, office);
    mustPerform(w.hogar, setRepeatPrice, { repeatId, per: "month", minor: 6_000, visits: 4, review: null }, office);
    const lines = () =>
      w.hogar.store
        .sql<{ words: string }>("SELECT description AS words FROM invoice_lines ORDER BY invoice_id, position")
        .all()
        .map(({ words }) => words.split(", ").at(-1));
    const bill = (date: string) => {
      w.at(date, 480);
      for (const customerId of customersToBill(viewContext(w.hogar, office)))
        mustPerform(w.hogar, billByItself, { customerId }, system);
    };
    bill("2027-03-09");
    bill("2027-03-31");
    expect(lines()).toEqual(["March 2027"]);
    mustPerform(w.hogar, pauseRepeat, { repeatId, first: "2027-04-01", last: "2027-04-30" }, office);
    bill("2027-04-02");
    bill("2027-05-01");
    expect(lines()).toEqual(["March 2027", "May 2027"]);
    expect(one(w.hogar, "SELECT sum(total_minor) AS minor FROM invoices")).toEqual({ minor: 12_000 });
    expect(firstBroken(w.hogar.store.sql)).toBeNull();
  });
});

describe("cash taken at the door", () => {
  it("stands under the technician until it is counted; what does not come to it is counted again", () => {
    const w = invoiced();
    const take = (amountMinor: number, key: string) =>
      perform(w.hogar, takePayment, { visitId: w.visitId, method: "cash", amountMinor, note: "", key }, onTheRoad);
    expect(saidOf(take(9_000, "too much of it"))).toMatch(/€79.00 is due here/);
    const taken = take(7_900, "all of what is due");
    expect(take(7_900, "all of what is due")).toEqual(taken);
    const out = () =>
      one<{ n: number }>(
        w.hogar,
        "SELECT coalesce(sum(amount_minor), 0) AS n FROM ledger_entries WHERE account = 'cash out'",
      ).n;
    expect([w.open(), out()]).toEqual([0, 7_900]);
    const count = (countedMinor: number) =>
      perform(w.hogar, handOverCash, { technicianId: 1, paymentIds: [1], countedMinor }, office);
    expect(saidOf(count(7_000))).toMatch(/should come to €79.00/);
    expect(count(7_900).ok).toBe(true);
    expect(saidOf(count(7_900))).toMatch(/handed over already/);
    expect(out()).toBe(0);
    expect(firstBroken(w.sql)).toBeNull();
  });
});

describe("a card at the door", () => {
  const atTheDoor = () => {
    const w = invoiced();
    w.rules("tips = 1");
    const show = (key: string) =>
      perform(w.hogar, askReader, { visitId: w.visitId, amountMinor: 7_900, tipMinor: 500, key }, onTheRoad);
    const hold = (key: string) =>
      perform(w.hogar, chargeHeldCard, { key, cardToken: w.hogar.standins!.cards.tokenFor(good)! }, system);
    return { ...w, show, hold };
  };

  it("is held to the reader, which shows the sum with the tip; doubled notices charge it once", async () => {
    const w = atTheDoor();
    w.show("the first reading");
    await drainOutbox(w.hogar);
    expect(w.hogar.standins!.reader.waiting()).toMatchObject([{ amount_minor: 8_400 }]);
    w.hold("the first reading");
    w.hold("the first reading");
    await drainOutbox(w.hogar);
    expect(one(w.hogar, "SELECT count(*) AS n, sum(amount_minor) AS minor FROM payments")).toEqual({
      n: 1,
      minor: 7_900,
    });
    expect([w.open(), firstBroken(w.sql)]).toEqual([0, null]);
    expect(w.hogar.standins!.cards.charges()).toMatchObject([{ amount_minor: 8_400 }]);
  });

  it("is not charged once nobody waits for it any more", () => {
    const w = atTheDoor();
    w.show("the first reading");
    mustPerform(w.hogar, endReader, { visitId: w.visitId }, onTheRoad);
    w.hold("the first reading");
    expect(one(w.hogar, "SELECT count(*) AS n FROM payments")).toEqual({ n: 0 });
  });

  it("brings no tip where the owner takes none, and never more than is due", () => {
    const w = atTheDoor();
    w.rules("tips = 0");
    expect(saidOf(w.show("the first reading"))).toMatch(/Tips are not taken/);
    const cardToken = w.hogar.standins!.cards.tokenFor(good)!;
    expect(
      saidOf(perform(w.hogar, takeCard, { visitId: w.visitId, amountMinor: 8_000, cardToken }, onTheRoad)),
    ).toMatch(/€79.00 is due/);
  });
});

describe("tips", () => {
  it("are the technician’s until they are paid out, and no more than came", () => {
    const w = invoiced();
    w.rules("tips = 1");
    mustPerform(
      w.hogar,
      takePayment,
      { visitId: w.visitId, method: "cash", amountMinor: 7_900, tipMinor: 300, note: "", key: "with a tip" },
      onTheRoad,
    );
    const pay = (amountMinor: number) =>
      perform(w.hogar, payOutTips, { technicianId: 1, method: "cash", amountMinor }, office);
    expect(saidOf(pay(301))).toMatch(/€3.00 came for them/);
    expect(pay(300).ok).toBe(true);
    expect(saidOf(pay(1))).toMatch(/€0.00 came for them/);
    expect([w.open(), firstBroken(w.sql), disagreements(readBooks(w.sql))]).toEqual([0, null, []]);
  });

  it("that were paid out of a payment that is taken back are made up for by the next", () => {
    const w = invoiced();
    w.rules("tips = 1");
    const tipped = { visitId: w.visitId, method: "cash" as const, amountMinor: 7_900, tipMinor: 300, note: "" };
    mustPerform(w.hogar, takePayment, { ...tipped, key: "with a tip" }, onTheRoad);
    const pay = (amountMinor: number) =>
      perform(w.hogar, payOutTips, { technicianId: 1, method: "cash", amountMinor }, office);
    pay(300);
    const { id } = one<{ id: number }>(w.hogar, "SELECT max(id) AS id FROM payments");
    mustPerform(w.hogar, takeBackPayment, { paymentId: id, reason: "Never came" }, office);
    expect(saidOf(pay(1))).toMatch(/€0.00 came for them/);
    mustPerform(w.hogar, takePayment, { ...tipped, tipMinor: 500, key: "once again" }, onTheRoad);
    expect(saidOf(pay(201))).toMatch(/€2.00 came for them/);
    expect([pay(200).ok, firstBroken(w.sql), disagreements(readBooks(w.sql))]).toEqual([true, null, []]);
  });
});

describe("an invoice that is paid late", () => {
  const late = () => {
    const w = invoiced();
    w.rules("late_fee_days = 7, late_fee_minor = 500, late_fee_bp = 100");
    w.again();
    const look = (date: string) => {
      w.at(date, 600);
      for (const invoiceId of lateInvoices(viewContext(w.hogar, office)))
        mustPerform(w.hogar, askLateFee, { invoiceId }, system);
    };
    const fee = () => w.sql<{ id: number; total_minor: number }>("SELECT * FROM invoices WHERE fee_of_id = 2").all();
    return { ...w, look, fee };
  };

  it("costs more once, on an invoice of its own, so many days after it was due", () => {
    const w = late();
    const { due } = one<{ due: string }>(w.hogar, "SELECT due_date AS due FROM invoices WHERE id = 2");
    w.look(due);
    expect(w.fee()).toEqual([]);
    w.look("2027-06-01");
    w.look("2027-06-02");
    expect(w.fee()).toMatchObject([{ total_minor: 579 }]);
    expect(firstBroken(w.sql)).toBeNull();
  });

  it.each(["before it is asked for", "after it was asked for"])("does not where that is waived %s", (when) => {
    const w = late();
    if (when.startsWith("after")) w.look("2027-06-01");
    mustPerform(w.hogar, waiveFee, { invoiceId: 2, reason: "We came late ourselves" }, office);
    w.look("2027-07-01");
    expect(w.account().balanceMinor).toBe(2 * 7_900);
    expect(one(w.hogar, "SELECT late_fee_waived FROM invoices WHERE id = 2")).toEqual({
      late_fee_waived: "We came late ourselves",
    });
  });

  it("costs nothing more where it is paid in time", () => {
    const w = late();
    w.paid(7_900, "in good time", 2);
    w.look("2027-06-01");
    expect(w.fee()).toEqual([]);
  });
});

describe("words of the owner’s", () => {
  it("stand on each invoice about their service, and stay on it whatever is written later", () => {
    const w = invoiced();
    const write = (words: string) =>
      w.hogar.store.db.transaction(() =>
        w.hogar.store.audit.under({ at: 1, actor: "test", operation: "test" }, () => {
          w.sql("DELETE FROM text_blocks").run();
          for (const [service, said] of [
            [w.services.sweep, words],
            [w.services.survey, "Only for surveys."],
          ] as const)
            w.sql("INSERT INTO text_blocks (paper, place, service_id, words) VALUES ('invoice', 'after', ?, ?)").run(
              service,
              said,
            );
        }),
      )();
    write("Sweep again within the year.");
    w.again();
    write("Something else.");
    const { after } = one<{ after: string }>(w.hogar, "SELECT after_text AS after FROM invoices WHERE id = 2");
    expect(after).toContain("Sweep again within the year.");
    expect(after).not.toMatch(/Something else|surveys/);
  });
});

describe("the lives of customers", () => {
  it("leave the books balanced, nothing below zero, and every account as the ledger has it, whatever happens in any order", async () => {
    const step = fc.record({
      act: fc.constantFrom(
        "pay",
        "on account",
        "card",
        "refund",
        "credit",
        "anew",
        "mistake",
        "write off",
        "use credit",
        "another visit",
        "billed by",
        "bill",
        "by hand",
        "by its link",
        "at the door",
        "hand over",
        "cancel",
        "card at the door",
        "late",
        "waive",
        "tips paid",
        "dispute",
        "settle",
      ),
      nth: fc.nat(5),
      minor: fc.integer({ min: 1, max: 12_000 }),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
        const w = invoiced();
        const { hogar, sql, actor } = w;
        w.rules("tips = 1, late_fee_days = 5, late_fee_minor = 500, late_fee_bp = 150");
        const nthOf = (table: string, nth: number) => {
          const rows = sql<{ id: number }>(`SELECT id FROM ${table} ORDER BY id`).all();
          return rows.length ? rows[nth % rows.length]!.id : 0;
        };
        const before = new Map<number, unknown>();
        for (const [i, { act, nth, minor }] of steps.entries()) {
          const invoiceId = nthOf("invoices", nth);
          const paymentId = nthOf("payments", nth);
          if (act === "pay")
            tried(
              hogar,
              recordPayment,
              {
                customerId: actor.customerId,
                method: "cash",
                amountMinor: minor,
                invoices: [{ invoiceId, amountMinor: minor }],
                key: `step number ${i}`,
              },
              office,
            );
          else if (act === "on account")
            tried(
              hogar,
              recordPayment,
              {
                customerId: actor.customerId,
                method: "bank",
                amountMinor: minor,
                invoices: nth % 2 ? null : [],
                key: `step number ${i}`,
              },
              office,
            );
          else if (act === "card")
            tried(hogar, payByCard, { purpose: "invoice", cardToken: hogar.standins!.cards.tokenFor(good)! }, actor);
          else if (act === "refund")
            tried(
              hogar,
              refundPayment,
              { paymentId, amountMinor: minor, method: nth % 2 ? "cash" : "as paid", reason },
              office,
            );
          else if (act === "credit")
            tried(
              hogar,
              creditInvoiceByHand,
              { invoiceId, lines: nth % 2 ? null : [{ position: 0, amountMinor: minor }], reason },
              office,
            );
          else if (act === "anew") tried(hogar, invoiceAgain, { jobId: nthOf("jobs", nth) }, office);
          else if (act === "mistake") tried(hogar, takeBackPayment, { paymentId, reason }, office);
          else if (act === "write off") tried(hogar, writeOff, { invoiceId, reason }, office);
          else if (act === "use credit") tried(hogar, useCredit, { invoiceId }, office);
          else if (act === "billed by") w.billedBy((["job", "month", "hand"] as const)[nth % 3]!);
          else if (act === "bill")
            tried(hogar, billCustomerByHand, { customerId: actor.customerId, until: "2029-12-31" }, office);
          else if (act === "by hand")
            tried(hogar, makeInvoice, { ...handMade(actor.customerId, minor), key: `by hand ${i}` }, office);
          else if (act === "by its link" && invoiceId)
            tried(
              hogar,
              payInvoice,
              {
                token: sealedToken(hogar, { kind: "invoice", id: invoiceId }),
                cardToken: hogar.standins!.cards.tokenFor(good)!,
              },
              { kind: "visitor" },
            );
          else if (act === "at the door")
            tried(
              hogar,
              takePayment,
              {
                visitId: nthOf("visits", nth),
                method: nth % 2 ? "cash" : "cheque",
                amountMinor: minor,
                tipMinor: nth * 50,
                note: "",
                key: `at the door ${i}`,
              },
              onTheRoad,
            );
          else if (act === "hand over" && paymentId)
            tried(
              hogar,
              handOverCash,
              {
                technicianId: 1,
                paymentIds: [paymentId],
                countedMinor: one<{ n: number }>(
                  hogar,
                  "SELECT amount_minor + tip_minor AS n FROM payments WHERE id = ?",
                  paymentId,
                ).n,
              },
              office,
            );
          else if (act === "cancel")
            tried(hogar, cancelVisit, { visitId: nthOf("visits", nth), refundDeposit: true }, office);
          else if (act === "card at the door")
            tried(
              hogar,
              takeCard,
              {
                visitId: nthOf("visits", nth),
                amountMinor: minor,
                tipMinor: nth * 100,
                cardToken: hogar.standins!.cards.tokenFor(good)!,
              },
              onTheRoad,
            );
          else if (act === "late") {
            w.later(20 * 1440);
            for (const id of lateInvoices(viewContext(hogar, office)))
              tried(hogar, askLateFee, { invoiceId: id }, system);
          } else if (act === "waive" && invoiceId) tried(hogar, waiveFee, { invoiceId, reason }, office);
          else if (act === "tips paid")
            tried(
              hogar,
              payOutTips,
              { technicianId: 1, method: nth % 2 ? "cash" : "bank", amountMinor: minor },
              office,
            );
          else if (act === "dispute") {
            const charge = sql<{ ref: string; minor: number }>(
              "SELECT gateway_reference AS ref, amount_minor AS minor FROM payments WHERE gateway_reference IS NOT NULL ORDER BY id",
            ).all()[nth % 2];
            if (charge)
              tried(
                hogar,
                recordDispute,
                {
                  reference: `dispute of ${charge.ref}`,
                  charge: charge.ref,
                  amountMinor: Math.min(minor, charge.minor),
                  reason,
                  answerBy: null,
                  state: (["open", "won", "lost"] as const)[nth % 3]!,
                },
                system,
              );
          } else if (act === "settle") await drainOutbox(hogar);
          else w.again();
          for (const sent of sql<{ id: number }>(
            "SELECT id, number, total_minor, tax_minor, issued_at FROM invoices",
          ).all()) {
            if (!before.has(sent.id)) before.set(sent.id, sent);
            expect(sent).toEqual(before.get(sent.id));
          }
        }
        await drainOutbox(hogar);
        expect(firstBroken(sql)).toBeNull();
        expect(disagreements(readBooks(sql))).toEqual([]);
        const owed = one<{ n: number }>(
          hogar,
          "SELECT sum(amount_minor) AS n FROM ledger_entries WHERE account IN ('receivable', 'deposits', 'credit')",
        ).n;
        expect(w.account().balanceMinor).toBe(owed);
      }),
      { numRuns: 30 },
    );
  });
});
