import { mustPerform, perform, viewContext } from "@/kernel/operation";
import { makeInvoice } from "@/modules/money/operations/billing";
import { paperOfInvoice } from "@/modules/money/papers";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { businessInput, office, saidOf, smallWorld } from "@demo/small-world";

describe("the business", () => {
  it("is saved as its form has read it, nothing more and nothing less", () => {
    const world = smallWorld();
    const before = world.setUp().business;
    mustPerform(world.hogar, saveBusiness, before, office);
    expect(world.setUp().business).toEqual(before);
  });

  it("keeps its currency once work is priced and its time zone once it is promised", () => {
    const world = smallWorld();
    mustPerform(
      world.hogar,
      saveBusiness,
      { ...businessInput, currency: "SEK", taxRates: [{ name: "Standard", rateBp: 2500 }] },
      office,
    );
    world.booked();
    expect(saidOf(perform(world.hogar, saveBusiness, { ...businessInput, currency: "EUR" }, office))).toBe(
      "Work is priced in SEK already, so the currency stays.",
    );
    expect(saidOf(perform(world.hogar, saveBusiness, { ...businessInput, timeZone: "Europe/Paris" }, office))).toMatch(
      /so it stays/,
    );
    expect(
      saidOf(
        perform(
          world.hogar,
          saveBusiness,
          {
            ...businessInput,
            taxRates: [
              { name: "A", rateBp: 1 },
              { name: "a", rateBp: 2 },
            ],
          },
          office,
        ),
      ),
    ).toBe("There is one of this name already.");
    expect(saidOf(perform(world.hogar, saveBusiness, { ...businessInput, site: "marrowick" }, office))).toMatch(
      /https:\/\//,
    );
  });

  it("stays on an invoice as it was when that was sent, whatever it is called today", () => {
    const world = smallWorld();
    const { customerId } = world.booked().actor;
    const lines = [{ description: "Work", quantity: 1, unitMinor: 7_900, taxBp: 2_300, discountBp: 0 }];
    const form = { discountBp: 0, before: "", after: "", dueDate: null, key: "invoice one" };
    const { invoiceId } = mustPerform(world.hogar, makeInvoice, { customerId, lines, ...form }, office);
    const seller = () => paperOfInvoice(viewContext(world.hogar, office), invoiceId).seller;
    const then = seller();
    mustPerform(world.hogar, saveBusiness, { ...businessInput, name: "Gull & Sons" }, office);
    expect(seller()).toEqual(then);
    const next = mustPerform(world.hogar, makeInvoice, { customerId, lines, ...form, key: "invoice two" }, office);
    expect(paperOfInvoice(viewContext(world.hogar, office), next.invoiceId).seller.name).toBe("Gull & Sons");
  });
});
