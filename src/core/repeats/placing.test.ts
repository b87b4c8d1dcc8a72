import fc from "fast-check";
import { bestPlaces, type PlaceOnDay } from "./placing";

const dates = ["2027-03-10", "2027-03-24", "2027-04-07"];
const window = (technicians: PlaceOnDay["technicians"], from = 540): PlaceOnDay => ({
  from,
  to: from + 120,
  technicians,
});
const bram = { id: "bram", extraDriving: 20, load: 120 };
const petra = { id: "petra", extraDriving: 6, load: 120 };

describe("where a new repeat fits best", () => {
  it("is where it adds the least driving over all its dates", () => {
    const places = bestPlaces(dates, [0, 1], (_, shift) => [window([shift === 1 ? petra : bram])]);
    expect(places.map(({ shift, technicianId, driving }) => [shift, technicianId, driving])).toEqual([
      [1, "petra", 6],
      [0, "bram", 20],
    ]);
  });

  it("is rather a longer way than dates without room", () => {
    const places = bestPlaces(dates, [0, 1], (date, shift) =>
      shift === 0 ? (date === dates[0] ? [window([petra])] : []) : [window([bram])],
    );
    expect(places[0]).toMatchObject({ shift: 1, kept: 3, of: 3 });
    expect(places[1]).toMatchObject({ shift: 0, kept: 1 });
  });

  it("spares the fuller day of two that are alike", () => {
    const places = bestPlaces(dates, [0, 1], (_, shift) => [window([{ ...petra, load: shift === 0 ? 420 : 60 }])]);
    expect(places[0]!.shift).toBe(1);
  });

  it("names each day and window once, never more than asked for, and none where there is no room", () => {
    expect(bestPlaces(dates, [0], () => [])).toEqual([]);
    const technician = fc.record({
      id: fc.constantFrom("a", "b", "c"),
      extraDriving: fc.nat(60),
      load: fc.nat(480),
    });
    const day = fc.array(
      fc.record({
        from: fc.constantFrom(540, 660, 780),
        technicians: fc.uniqueArray(technician, { selector: (t) => t.id }),
      }),
    );
    fc.assert(
      fc.property(fc.array(fc.array(day, { minLength: 3, maxLength: 3 }), { minLength: 3, maxLength: 3 }), (days) => {
        const places = bestPlaces(dates, [0, 1, 2], (date, shift) =>
          days[dates.indexOf(date)]![shift]!.map((w) => ({ ...w, to: w.from + 120 })),
        );
        expect(places.length).toBeLessThanOrEqual(3);
        expect(new Set(places.map(({ shift, from }) => `${shift} ${from}`)).size).toBe(places.length);
      }),
    );
  });
});
