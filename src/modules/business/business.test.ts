import { mustPerform, perform } from "@/kernel/operation";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { businessInput, office, saidOf, smallWorld } from "@demo/small-world";

describe("the business", () => {
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
});
