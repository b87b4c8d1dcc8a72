import { reportNames } from "@/core/money/reports";
import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { businessInput, office, paymentFor, saidOf, smallWorld } from "@demo/small-world";
import { makeInvoice } from "./operations/billing";
import { creditInvoiceByHand } from "./operations/corrections";
import { paperOfInvoice } from "./papers";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { recordPayment } from "./operations/record-payment";
import { saveAccountNumbers } from "./operations/save-account-numbers";
import { report } from "./views/report";

/** A visit that is done and invoiced (€79.00 at 21%), half of it paid, and an invoice by hand of which a part is credited. */
function booksOfSpring() {
  const world = smallWorld();
  const { hogar } = world;
  const { visitId, actor } = world.booked();
  world.onTheDayOf(visitId);
  for (const to of ["on site", "done"] as const) mustPerform(hogar, advanceVisit, { visitId, to }, office);
  mustPerform(
    hogar,
    recordPayment,
    paymentFor(hogar, 1, { method: "bank", amountMinor: 3_950, key: "half of it" }),
    office,
  );
  const { invoiceId } = mustPerform(
    hogar,
    makeInvoice,
    {
      customerId: actor.customerId,
      lines: [{ description: "Certificate", quantity: 1, unitMinor: 1_060, taxBp: 600, discountBp: 0 }],
      discountBp: 0,
      before: "",
      after: "",
      dueDate: null,
      key: "a certificate",
    },
    office,
  );
  mustPerform(
    hogar,
    creditInvoiceByHand,
    { invoiceId, lines: [{ position: 0, amountMinor: 530 }], reason: "Half price" },
    office,
  );
  const read = (name: (typeof reportNames)[number], from = "2027-01-01", to = "2027-12-31") => {
    const result = look(hogar, report, { name, from, to }, office);
    if (!result.ok) throw new Error(result.problem.sentence);
    return result.value;
  };
  return { ...world, actor, read };
}

describe("the reports", () => {
  it("say the tax of each rate as it was invoiced, less credit notes, and as it was paid", () => {
    const { read } = booksOfSpring();
    expect(read("tax by invoice").rows).toEqual([
      ["March 2027", "6%", 500, 30, 530],
      ["March 2027", "21%", 6_529, 1_371, 7_900],
    ]);
    // Half of its tax, €13.71, to the cent.
    expect(read("tax by payment").rows).toEqual([["March 2027", "21%", 3_264, 686, 3_950]]);
    expect(read("tax by invoice", "2027-05-01", "2027-06-30").rows).toEqual([]);
  });

  it("tell work that is exempt from what is taxed at zero, with the reason on the invoice", () => {
    const { hogar, actor, read } = booksOfSpring();
    const taxRates = [{ name: "Lessons", rateBp: 0, zeroKind: "exempt" as const, words: "Exempt: schooling." }];
    mustPerform(hogar, saveBusiness, { ...businessInput, taxRates }, office);
    const free = { quantity: 1, unitMinor: 4_000, taxBp: 0, discountBp: 0 };
    const { invoiceId } = mustPerform(
      hogar,
      makeInvoice,
      {
        customerId: actor.customerId,
        lines: [{ description: "Lesson", ...free }],
        discountBp: 0,
        before: "",
        after: "",
        dueDate: null,
        key: "a lesson",
      },
      office,
    );
    expect(paperOfInvoice(viewContext(hogar, office), invoiceId)).toMatchObject({
      zeroKind: "exempt",
      taxWords: "Exempt: schooling.",
    });
    expect(read("tax by invoice").rows).toContainEqual(["March 2027", "0%, exempt", 4_000, 0, 4_000]);
    const twice = [...taxRates, { name: "Exports", rateBp: 0 }];
    expect(saidOf(perform(hogar, saveBusiness, { ...businessInput, taxRates: twice }, office))).toMatch(/0% already/);
  });

  it("say what was sold by what, net, with credit notes taken off; all ways come to the same", () => {
    const { read } = booksOfSpring();
    for (const name of ["sales by service", "sales by zone", "sales by technician", "sales by source"] as const)
      expect([name, read(name).sums!.at(-1)]).toEqual([name, 7_029]);
    expect(read("sales by month", "2027-03-01", "2027-04-30").rows).toEqual([
      ["March 2027", 1, 7_029],
      ["April 2027", 0, 0],
    ]);
    expect(read("sales by service").rows[0]).toEqual(["Chimney sweep", 1, 6_529]);
  });

  it("say what is owed by age, and the journal with the owner’s numbers, debits and credits alike", () => {
    const { read, hogar } = booksOfSpring();
    expect(read("aged debts").sums!.at(-1)).toBe(3_950 + 530);
    mustPerform(hogar, saveAccountNumbers, { numbers: [{ account: "bank", number: "1200" }] }, office);
    const journal = read("journal");
    expect(journal.sums!.slice(-2)[0]).toBe(journal.sums!.at(-1));
    expect(journal.rows.filter(([, , account]) => account === "bank").map((row) => row[3])).toEqual(["1200"]);
  });

  it("refuse days that end before they begin, and more months than one can read", () => {
    const { hogar } = booksOfSpring();
    const said = (from: string, to: string) =>
      saidOf(look(hogar, report, { name: "tax by invoice", from, to }, office));
    expect(said("2027-03-02", "2027-03-01")).toMatch(/comes after the first/);
    expect(said("2020-01-01", "2027-03-01")).toMatch(/at most 36 months/);
  });
});
