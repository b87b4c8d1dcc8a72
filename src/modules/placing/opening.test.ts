import { mustPerform, perform } from "@/kernel/operation";
import { saveOpening, saveSpecialDay, takeSpecialDays } from "@/modules/placing/operations/opening";
import { office, one, saidOf, smallWorld } from "@demo/small-world";

const date = "2027-03-10";

describe("opening hours", () => {
  it("leave only the windows within them, and special days none", () => {
    const world = smallWorld();
    const starts = () => world.offers().filter((o) => o.date === date).length;
    expect(starts()).toBe(4);
    mustPerform(
      world.hogar,
      saveOpening,
      { hours: [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 540, closes: 780 })) },
      office,
    );
    expect(starts()).toBe(2);
    mustPerform(
      world.hogar,
      saveSpecialDay,
      { id: null, name: "Harbour fair", first: date, last: date, yearly: false, spans: [{ opens: 540, closes: 660 }] },
      office,
    );
    expect(starts()).toBe(1);
    expect(
      saidOf(
        perform(
          world.hogar,
          saveSpecialDay,
          { id: null, name: "Backwards", first: date, last: "2027-03-09", yearly: false, spans: [] },
          office,
        ),
      ),
    ).toBe("The last day is not before the first.");
  });

  it("of every year count what is promised on them in any year", () => {
    const world = smallWorld();
    world.booked();
    const fair = { id: null, name: "Harbour fair", yearly: true, spans: [] };
    const promised = (first: string, last: string) =>
      mustPerform(world.hogar, saveSpecialDay, { ...fair, first, last }, office).promised;
    expect([promised("2020-03-10", "2020-03-10"), promised("2020-03-11", "2020-03-12")]).toEqual([1, 0]);
  });

  it("leave promised visits alone, and say how many there are; a file taken twice adds nothing", () => {
    const world = smallWorld();
    world.booked();
    const days = [{ name: "Harbour fair", first: "2027-03-10", last: "2027-03-12", yearly: false, spans: [] }];
    expect(mustPerform(world.hogar, takeSpecialDays, { days }, office)).toEqual({ taken: 1, known: 0, promised: 1 });
    expect(mustPerform(world.hogar, takeSpecialDays, { days }, office)).toEqual({ taken: 0, known: 1, promised: 0 });
    expect(one(world.hogar, "SELECT state FROM visits WHERE job_id IS NOT NULL")).toEqual({ state: "promised" });
    expect(world.offers()).toEqual([]);
  });
});
