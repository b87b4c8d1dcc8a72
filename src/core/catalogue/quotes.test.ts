import fc from "fast-check";
import { sum, totalOf } from "../money/amounts";
import { type OrderItem, priceOrder } from "./order";
import { hasRunOut, quotedOrder, quoteLines, quoteProblems, quoteStanding, withServices } from "./quotes";

const item = (id: number, priceMinor: number): OrderItem => ({
  quantity: 1,
  answers: {},
  extras: [],
  service: {
    id,
    name: `Service ${id}`,
    priceMinor,
    taxBp: 2100,
    deposit: { kind: "none" },
    minutes: 30,
    crew: 1,
    skills: [{ skill: "sweep" }],
    questions: [],
    extras: [],
  },
});
const orderOf = (...prices: number[]) =>
  priceOrder({
    items: prices.map((price, i) => item(i + 1, price)),
    zone: { name: "", surchargeMinor: 0, smallestOrderMinor: 0 },
    pricesIncludeTax: true,
  });
const line = fc.record({
  description: fc.constant("Work"),
  quantity: fc.integer({ min: 1, max: 400 }).map((n) => n / 4),
  unitMinor: fc.integer({ min: 0, max: 500_000 }),
  taxBp: fc.constantFrom(0, 600, 2100),
});

describe("an order at the price of a quote", () => {
  it("costs what was quoted to the cent, item by item and tax by tax, with or without tax in the prices", () => {
    fc.assert(
      fc.property(
        fc.array(line, { minLength: 1, maxLength: 8 }),
        fc.array(fc.integer({ min: 0, max: 90_000 }), { minLength: 1, maxLength: 5 }),
        fc.boolean(),
        fc.nat({ max: 100 }),
        (lines, prices, withTax, percent) => {
          const quoted = quoteLines(lines, withTax);
          const { totalMinor, taxMinor } = totalOf(quoted);
          const depositMinor = Math.floor((totalMinor * percent) / 100);
          const order = quotedOrder(orderOf(...prices), { lines: quoted, minutes: 95, crew: 2, depositMinor });
          expect(order).toMatchObject({ totalMinor, taxMinor, depositMinor, minutes: 95, crew: 2 });
          expect([
            sum(order.items.map((i) => i.totalMinor)),
            sum(order.items.map((i) => i.depositMinor)),
            sum(order.lines.map((l) => l.amountMinor)),
          ]).toEqual([totalMinor, depositMinor, totalMinor]);
          for (const part of order.items) expect(part.totalMinor).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });

  it("is borne by each service in proportion to what it costs by the catalogue; skills stay", () => {
    const order = quotedOrder(orderOf(3000, 1000), {
      lines: quoteLines([{ description: "Both", quantity: 1, unitMinor: 8001, taxBp: 2100 }], true),
      minutes: 60,
      crew: 1,
      depositMinor: 0,
    });
    expect(order.items.map((i) => i.totalMinor)).toEqual([6001, 2000]);
    expect(order.skills).toEqual([{ skill: "sweep", level: 1 }]);
  });
});

describe("a quote", () => {
  const lines = (unitMinor: number) => quoteLines([{ description: " Flues ", quantity: 1, unitMinor, taxBp: 0 }], true);
  it("is refused with one sentence for each thing that is wrong", () => {
    expect(quoteProblems({ lines: lines(-1), depositMinor: 5 }, "2027-03-01", "2027-03-02")).toEqual({
      "/lines": expect.any(String),
      "/validUntil": expect.any(String),
    });
    expect(quoteProblems({ lines: lines(100), depositMinor: 101 }, "2027-03-02", "2027-03-02")).toEqual({
      "/depositMinor": expect.any(String),
    });
    expect(quoteProblems({ lines: lines(0), depositMinor: 0 }, "2027-03-02", "2027-03-02")).toEqual({});
    expect(lines(1)[0]!.description).toBe("Flues");
  });

  it("runs out after its last day, unless it was accepted", () => {
    const quote = (state: "sent" | "declined" | "accepted") => ({ state, validUntil: "2027-03-02" });
    expect([
      hasRunOut(quote("sent"), "2027-03-02"),
      hasRunOut(quote("sent"), "2027-03-03"),
      hasRunOut(quote("declined"), "2027-03-03"),
      hasRunOut(quote("accepted"), "2027-03-03"),
    ]).toEqual([false, true, true, false]);
  });
});

describe("the work of a quote", () => {
  const sweep = { id: 1, name: "Chimney sweep", priceMinor: 7900, taxBp: 1300, minutes: 45, crew: 1 };
  const guard = { id: 2, name: "Bird guard fitted", priceMinor: 14_500, taxBp: 2100, minutes: 60, crew: 2 };
  const ladder = { description: "Long ladder", quantity: 1, unitMinor: 2000, taxBp: 2100 };
  const begun = {
    items: [{ serviceId: 1 }],
    lines: [{ description: "Chimney sweep", quantity: 2, unitMinor: 7000, taxBp: 1300 }, ladder],
    minutes: 100,
    crew: 1,
  };

  it("takes on what a service brings, and keeps what was typed", () => {
    expect(withServices(begun, [sweep], [sweep, guard])).toEqual({
      items: [{ serviceId: 1 }, { serviceId: 2 }],
      lines: [...begun.lines, { description: "Bird guard fitted", quantity: 1, unitMinor: 14_500, taxBp: 2100 }],
      minutes: 160,
      crew: 2,
    });
  });

  it("loses the line and the time of a service that is taken away, and nothing else", () => {
    expect(withServices(begun, [sweep], [])).toEqual({ items: [], lines: [ladder], minutes: 55, crew: 1 });
    expect(withServices({ ...begun, minutes: 20 }, [sweep], []).minutes).toBe(0);
    expect(withServices(begun, [sweep], [sweep])).toEqual(begun);
  });
});

describe("an open quote", () => {
  const standing = (state: "sent" | "accepted" | "declined", validUntil = "2027-03-10") =>
    quoteStanding({ state, validUntil }, "2027-03-10").standing;

  it("is with the customer until its last day is over", () => {
    expect([standing("sent"), standing("sent", "2027-03-09")]).toEqual(["out", "over"]);
  });

  it("is for us when it is accepted, however late it has become", () =>
    expect(standing("accepted", "2027-03-01")).toBe("accepted"));

  it("is over when they have said no", () => expect(standing("declined")).toBe("over"));
});
