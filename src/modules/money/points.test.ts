import fc from "fast-check";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { bookInOffice } from "@/modules/booking/operations/book-in-office";
import { firstBroken } from "@/registry/laws";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { office, one, paymentFor, saidOf, type SmallBooking, smallWorld } from "@demo/small-world";
import { takeBackPayment, refundPayment } from "./operations/corrections";
import { givePoints, saveLoyalty } from "./operations/points";
import { recordPayment } from "./operations/record-payment";
import { myPoints } from "./views/points";

function world({ on = true } = {}) {
  const w = smallWorld();
  const set = (perMinor: number | null) =>
    mustPerform(w.hogar, saveLoyalty, { perMinor, worthMinor: 5, least: 100 }, office);
  if (on) set(100);
  const job = w.booked();
  const done = () => {
    w.onTheDayOf(job.visitId);
    for (const to of ["on the way", "on site", "done"] as const)
      mustPerform(w.hogar, advanceVisit, { visitId: job.visitId, to }, office);
  };
  let nth = 0;
  const pay = (amountMinor: number) => {
    const { id } = one<{ id: number }>(w.hogar, "SELECT id FROM invoices");
    mustPerform(
      w.hogar,
      recordPayment,
      paymentFor(w.hogar, id, { method: "cash", amountMinor, key: `payment no ${nth++}` }),
      office,
    );
    return one<{ id: number }>(w.hogar, "SELECT max(id) AS id FROM payments").id;
  };
  const customerId = one<{ id: number }>(w.hogar, "SELECT id FROM customers").id;
  /** Paid for nothing in particular, so that it can go back. */
  const onAccount = (amountMinor: number) => {
    const key = `on account ${nth++}`;
    mustPerform(w.hogar, recordPayment, { customerId, method: "cash", amountMinor, invoices: [], key }, office);
    return one<{ id: number }>(w.hogar, "SELECT max(id) AS id FROM payments").id;
  };
  const points = () =>
    one<{ n: number }>(w.hogar, "SELECT coalesce(sum(points), 0) AS n FROM points WHERE customer_id = ?", customerId).n;
  const give = (n: number) => perform(w.hogar, givePoints, { customerId, points: n, words: "Sorry" }, office);
  /** They book again by their link. */
  const again = (more: SmallBooking = {}) =>
    w.book({ as: job.actor, window: w.offers().at(-1) as never, ...more, more: { usePoints: true, ...more.more } });
  const lines = () =>
    w.hogar.store
      .sql<{ description: string; amount_minor: number }>(
        "SELECT description, amount_minor FROM job_lines WHERE job_id = (SELECT max(id) FROM jobs) ORDER BY position",
      )
      .all();
  // Whoever comes by the link has shown who they are.
  w.hogar.store.audit.under({ at: w.hogar.now(), actor: "test", operation: "test" }, () =>
    w.hogar.store.sql("UPDATE jobs SET proof = 'known'").run(),
  );
  return { ...w, ...job, set, done, pay, onAccount, customerId, points, give, again, lines };
}

describe("points", () => {
  it("are given for what is paid, and not unless the owner wants them", () => {
    const w = world();
    w.done();
    w.pay(7900);
    expect(w.points()).toBe(79);
    const off = world({ on: false });
    off.done();
    off.pay(7900);
    expect(off.points()).toBe(0);
    expect(look(off.hogar, myPoints, {}, off.actor)).toMatchObject({ value: null });
  });

  it("go with the money that goes back, and all of them with a payment that was none", () => {
    const w = world();
    const paid = w.onAccount(7900);
    mustPerform(
      w.hogar,
      refundPayment,
      { paymentId: paid, amountMinor: 3950, reason: "Half of it", method: "cash" },
      office,
    );
    expect(w.points()).toBe(39);
    const other = world();
    other.done();
    mustPerform(other.hogar, takeBackPayment, { paymentId: other.pay(7900), reason: "Not theirs" }, office);
    expect(other.points()).toBe(0);
    expect(firstBroken(other.hogar.store.sql)).toBeNull();
  });

  it("are not given by the refund of what was paid before there were any", () => {
    const w = world({ on: false });
    const paymentId = w.onAccount(7900);
    w.set(100);
    mustPerform(w.hogar, refundPayment, { paymentId, amountMinor: 1000, reason: "A part", method: "cash" }, office);
    expect(w.points()).toBe(0);
  });

  it("are a line of the next booking, as many as it takes, and are there again when it falls through", () => {
    const w = world();
    w.give(250);
    const booked = w.again();
    expect(saidOf(booked)).toBe("done");
    expect(w.lines()).toEqual([
      { description: "Chimney sweep", amount_minor: 7900 },
      { description: "250 loyalty points", amount_minor: -1250 },
    ]);
    expect(w.points()).toBe(0);
    const visit = one<{ id: number }>(w.hogar, "SELECT max(id) AS id FROM visits");
    mustPerform(w.hogar, cancelVisit, { visitId: visit.id, refundDeposit: false }, office);
    expect(w.points()).toBe(250);
    expect(firstBroken(w.hogar.store.sql)).toBeNull();
  });

  it("never take off more than it costs, and stay where they are too few", () => {
    const w = world();
    w.give(5_000);
    w.again();
    expect(w.lines().reduce((sum, { amount_minor }) => sum + amount_minor, 0)).toBe(0);
    expect(w.points()).toBe(5_000 - 1_580);
    const few = world();
    few.give(99);
    few.again();
    expect(few.lines()).toHaveLength(1);
    expect(few.points()).toBe(99);
  });

  it("are used on the phone too, and by nobody else than whose they are", () => {
    const w = world();
    w.give(200);
    const { date, from, to } = w.offers().at(-1)!;
    const customer = { name: "Anton Lund", mail: "anton@example.com", phone: "+1 555 0177", reminders: true };
    expect(w.again({ more: { customer } })).toMatchObject({ ok: false });
    // A visitor has none to use.
    expect(saidOf(w.book({ window: { date, from, to }, more: { usePoints: true, customer } }))).toBe("done");
    expect(w.points()).toBe(200);
    const next = w.offers()[0]!;
    mustPerform(
      w.hogar,
      bookInOffice,
      {
        addressId: w.addresses[10]!.id,
        items: [{ serviceId: w.services.sweep }],
        date: next.date,
        from: next.from,
        to: next.to,
        note: "",
        customer: { id: w.customerId },
        usePoints: true,
      },
      office,
    );
    expect(w.points()).toBe(0);
  });

  it("are given and taken by hand, with why, and never more than there are", () => {
    const w = world();
    expect(saidOf(w.give(100))).toBe("done");
    expect(saidOf(w.give(-101))).toBe("They have 100 points.");
    expect(saidOf(w.give(-100))).toBe("done");
    expect(look(w.hogar, myPoints, {}, w.actor)).toMatchObject({
      value: {
        balance: 0,
        rows: [
          { kind: "by hand", points: -100 },
          { kind: "by hand", points: 100, words: "Sorry" },
        ],
      },
    });
  });

  it("cannot be worth more than what is paid for them", () => {
    const w = world();
    expect(saidOf(perform(w.hogar, saveLoyalty, { perMinor: 100, worthMinor: 101, least: 1 }, office))).toBe(
      "A point would be worth more than what is paid for it.",
    );
  });
});

it("come to what was paid and kept, in whatever order payments and refunds come", () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 1, max: 2_000 }), fc.integer({ min: 0, max: 2_000 })), { maxLength: 5 }),
      (steps) => {
        const w = world();
        let most = 0;
        for (const [paid, back] of steps) {
          const paymentId = w.onAccount(Math.min(paid, 1_500));
          const kept = Math.min(paid, 1_500) - Math.min(back, paid, 1_500);
          if (kept < Math.min(paid, 1_500))
            mustPerform(
              w.hogar,
              refundPayment,
              { paymentId, amountMinor: Math.min(back, paid, 1_500), reason: "Back", method: "cash" },
              office,
            );
          most += kept;
        }
        expect(w.points()).toBeLessThanOrEqual(Math.floor(most / 100));
        expect(w.points()).toBeGreaterThanOrEqual(0);
        expect(firstBroken(w.hogar.store.sql)).toBeNull();
      },
    ),
    { numRuns: 8 },
  );
});
