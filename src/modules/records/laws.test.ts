import { mustPerform } from "@/kernel/operation";
import { creditInvoiceByHand, refundPayment } from "@/modules/money/operations/corrections";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { personActor } from "@/core/people/permissions";
import { handOverCash, takePayment } from "@/modules/money/operations/cash";
import { payoutIsThere, recordPayout } from "@/modules/money/operations/payouts";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { office, one, paymentFor, smallWorld, system } from "@demo/small-world";
import { insertRow } from "@/store/insert";
import Database from "better-sqlite3";
import { firstBroken } from "@/registry/laws";

/** A business with an invoice that was paid, credited in part and refunded, and a visit to come; as a file that anybody can write into. */
function somebodysDatabase() {
  const world = smallWorld();
  const { hogar } = world;
  const visits = [world.booked({ nth: 12 }).visitId, world.booked({ name: "Ada Ash", nth: 14 }).visitId];
  const cashed = world.booked({ name: "Bo Berg", nth: 16 }).visitId;
  world.onTheDayOf(visits[0]!);
  for (const to of ["on site", "done"] as const) mustPerform(hogar, advanceVisit, { visitId: visits[0]!, to }, office);
  mustPerform(
    hogar,
    recordPayment,
    paymentFor(hogar, 1, { method: "bank", amountMinor: 7900, key: "by transfer" }),
    office,
  );
  mustPerform(
    hogar,
    creditInvoiceByHand,
    { invoiceId: 1, lines: [{ position: 0, amountMinor: 1000 }], reason: "Came late" },
    office,
  );
  const { id } = one<{ id: number }>(hogar, "SELECT id FROM payments");
  mustPerform(
    hogar,
    refundPayment,
    { paymentId: id, amountMinor: 400, method: "as paid", reason: "Wished for" },
    office,
  );
  mustPerform(
    hogar,
    recordPayout,
    {
      reference: "po_1",
      amountMinor: 9_800,
      feeMinor: 0,
      at: 1,
      items: [{ kind: "charge", reference: "ch_1", grossMinor: 10_000, feeMinor: 200 }],
    },
    system,
  );
  mustPerform(hogar, payoutIsThere, { payoutId: 1, date: "2027-03-09" }, office);
  takesCash(world, cashed);
  hogar.store.db
    .transaction(() =>
      hogar.store.audit.under({ at: 1, actor: "test", operation: "bank" }, () =>
        insertRow(hogar.store.sql, "bank_lines", {
          key: "x",
          date: "2027-03-01",
          amount_minor: 4500,
          name: "Bo",
          words: "",
        }),
      ),
    )
    .immediate();
  const db = new Database(hogar.store.db.serialize());
  for (const { name } of db
    .prepare<[], { name: string }>("SELECT name FROM sqlite_master WHERE type = 'trigger'")
    .all())
    db.exec(`DROP TRIGGER ${name}`);
  db.pragma("foreign_keys = OFF");
  db.pragma("ignore_check_constraints = ON");
  const sql = <Row>(text: string) => db.prepare(text) as unknown as Database.Statement<unknown[], Row>;
  return { db, broken: () => firstBroken(sql) };
}

/** A change that also takes away what is recorded of a table's rows. */
const without = (table: string, change: string): string =>
  `DELETE FROM audit_changes WHERE entity = '${table}'; ${change}`;

/** Cash that was taken at a visit and handed over. */
function takesCash(world: ReturnType<typeof smallWorld>, visitId: number): void {
  const { hogar } = world;
  world.onTheDayOf(visitId);
  const { technician } = one<{ technician: number }>(
    hogar,
    "SELECT technician_id AS technician FROM placements WHERE visit_id = ?",
    visitId,
  );
  for (const to of ["on site", "done"] as const) mustPerform(hogar, advanceVisit, { visitId, to }, office);
  const as = personActor({ id: 9, name: "T", role: "technician", technicianId: technician });
  const { paymentId } = mustPerform(
    hogar,
    takePayment,
    { visitId, method: "cash", amountMinor: 3_000, note: "", key: "in the hand" },
    as,
  );
  mustPerform(
    hogar,
    handOverCash,
    { technicianId: technician, paymentIds: [paymentId], countedMinor: 2_900, difference: "A note is torn" },
    office,
  );
}

describe("the laws of the data", () => {
  it("hold where everything went through the door", () => {
    expect(somebodysDatabase().broken()).toBeNull();
  });

  it.each([
    ["a cent of an entry", "UPDATE ledger_entries SET amount_minor = amount_minor + 1 WHERE account = 'sales'"],
    ["a cent of an invoice", "UPDATE invoices SET total_minor = total_minor + 1"],
    ["a cent of a line", "UPDATE invoice_lines SET amount_minor = amount_minor + 1"],
    ["a cent of a payment", "UPDATE payments SET amount_minor = amount_minor + 1"],
    ["a cent of a refund", "UPDATE refunds SET amount_minor = amount_minor - 1"],
    ["a cent of a credit note", "UPDATE credit_notes SET total_minor = total_minor + 1"],
    [
      "an allocation, on both sides",
      `UPDATE ledger_entries SET amount_minor = amount_minor - sign(amount_minor)
        WHERE event_id = (SELECT id FROM ledger_events WHERE kind = 'allocation')`,
    ],
    [
      "the payment of an allocation",
      "UPDATE ledger_events SET key = 'payment 9 to invoice 1' WHERE id = (SELECT min(id) FROM ledger_events WHERE kind = 'allocation')",
    ],
    [
      "an allocation that vanishes, whole",
      `DELETE FROM ledger_entries WHERE event_id IN (SELECT id FROM ledger_events WHERE kind = 'allocation');
       DELETE FROM ledger_events WHERE kind = 'allocation'`,
    ],
    [
      "an allocation that vanishes with all that is recorded of it",
      `DELETE FROM audit_changes WHERE entity LIKE 'ledger_%' AND row_key LIKE (SELECT id FROM ledger_events WHERE kind = 'allocation') || '%';
       DELETE FROM ledger_entries WHERE event_id IN (SELECT id FROM ledger_events WHERE kind = 'allocation');
       DELETE FROM ledger_events WHERE kind = 'allocation'`,
    ],
    [
      "a payment that vanishes, with its events",
      `DELETE FROM ledger_entries WHERE payment_id IS NOT NULL;
       DELETE FROM ledger_events WHERE key LIKE 'payment%'; DELETE FROM refunds; DELETE FROM payments`,
    ],
    ["the sum of a payout", without("payouts", "UPDATE payouts SET amount_minor = amount_minor + 1")],
    [
      "a payout that never arrived",
      `DELETE FROM audit_changes WHERE entity LIKE 'ledger_%' OR entity = 'payouts';
       DELETE FROM ledger_chain; DELETE FROM ledger_entries WHERE event_id IN (SELECT id FROM ledger_events WHERE kind = 'payout arrived');
       UPDATE ledger_events SET kind = 'payout arrived', key = 'payout 1 arrived, too' WHERE kind = 'payout arrived'`,
    ],
    ["the fee of a charge", without("payout_items", "UPDATE payout_items SET fee_minor = 1")],
    ["the sum of a handover", without("handovers", "UPDATE handovers SET amount_minor = amount_minor + 1")],
    ["what a handover was short of", without("handovers", "UPDATE handovers SET difference_minor = 0")],
    [
      "the date of an event, with all that is recorded of it",
      "DELETE FROM audit_changes; UPDATE ledger_events SET at = at + 1 WHERE kind = 'payment'",
    ],
    [
      "the last events, with all that is recorded of them",
      `DELETE FROM audit_changes; DELETE FROM ledger_entries WHERE event_id = (SELECT max(id) FROM ledger_events);
       DELETE FROM ledger_events WHERE id = (SELECT max(id) FROM ledger_events)`,
    ],
    ["a line of the bank that vanishes", "DELETE FROM bank_lines"],
    ["the sum of a line of the bank", "UPDATE bank_lines SET amount_minor = 100000"],
    ["a payment that vanishes", "DELETE FROM ledger_entries WHERE payment_id IS NOT NULL"],
    ["an invoice that vanishes", "DELETE FROM ledger_events WHERE kind = 'invoice'"],
    [
      "the number of an invoice",
      "INSERT INTO invoices (id, year, number, label, nonce, customer_id, issued_at, due_date, total_minor, tax_minor) SELECT 9, year, 1009, 'X', 'x', customer_id, issued_at, due_date, 0, 0 FROM invoices WHERE id = 1",
    ],
    ["the minute of a placement", "UPDATE placements SET arrives = arrives + 1 WHERE settled = 0"],
    ["the day of a visit", "UPDATE visits SET date = '2027-03-19' WHERE state = 'promised'"],
    ["the window of a visit", "UPDATE visits SET window_to = window_to + 60 WHERE state = 'promised'"],
    ["a forecast with papers", "UPDATE visits SET state = 'forecast' WHERE state = 'promised'"],
  ])("are broken by a change of %s past the door", (_, change) => {
    const { db, broken } = somebodysDatabase();
    db.exec(change);
    expect(broken()).toMatchObject({ law: expect.any(String), what: expect.any(String) });
  });
});
