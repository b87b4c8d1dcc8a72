import { type Books, disagreements, keptCredit } from "./balance";

const books: Books = {
  rows: {
    received: 10_000,
    applied: 6_000,
    refunded: 1_500,
    refundsAsked: 500,
    open: 4_000,
    overdrawnPayments: 0,
    overpaidInvoices: 0,
  },
  journal: { received: 9_000, held: -3_000, receivable: 4_000, all: 0, unbalancedEvents: 0 },
};
const withRows = (rows: Partial<Books["rows"]>): Books => ({ ...books, rows: { ...books.rows, ...rows } });

describe("the books", () => {
  it("agree where every cent that came in was applied, refunded or kept", () => {
    expect([disagreements(books), keptCredit(books)]).toEqual([[], 2_500]);
  });

  it("do not agree where a payment is missing from the journal, though every row adds up by itself", () => {
    expect(disagreements(withRows({ received: 10_100 }))).toHaveLength(2);
  });

  it("do not agree where more of a payment was used than came in", () => {
    expect(disagreements(withRows({ overdrawnPayments: 1 }))).toEqual(["More of a payment was used than came in."]);
  });

  it("do not agree where the journal does not balance", () => {
    expect(disagreements({ ...books, journal: { ...books.journal, all: 1 } })).toEqual([
      "The journal does not balance.",
    ]);
  });
});
