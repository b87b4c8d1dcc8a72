import { applied, type Books, disagreements, keptCredit, owed } from "./balance";

const papers = { invoiced: 10_000, credited: 0, received: 10_000, refundsAsked: 1_500, refunded: 1_000 };
const books: Books = {
  accounts: {
    receivable: 3_500,
    card: 9_000,
    deposits: -2_000,
    credit: -500,
    refunds: -500,
    "write-offs": 500,
    sales: -8_264,
    tax: -1_736,
  },
  papers,
};

describe("the books", () => {
  it("agree where every cent stands in an account, and the papers are those that were posted", () => {
    expect(disagreements(books)).toEqual([]);
    expect([owed(books), keptCredit(books), applied(books)]).toEqual([3_500, 2_500, 6_000]);
  });

  it.each([
    ["a payment is missing from the ledger", { papers: { ...papers, received: 10_100 } }, "payments"],
    ["an invoice was changed by a cent", { papers: { ...papers, invoiced: 10_001 } }, "invoices"],
    ["a refund was", { papers: { ...papers, refundsAsked: 1_501 } }, "refunds"],
    ["a cent is missing from an account", { accounts: { ...books.accounts, receivable: 3_499 } }, "trial balance"],
  ])("do not agree where %s", (_, change, word) => {
    expect(disagreements({ ...books, ...change }).join(" ")).toContain(word);
  });
});
