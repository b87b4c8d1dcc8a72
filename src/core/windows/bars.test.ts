import { barOf, type OwnLimits } from "./bars";

const bram = (more: Partial<OwnLimits> = {}): OwnLimits => ({ id: 1, zones: [], services: [], offered: true, ...more });
const zone = (...technicians: number[]) => ({ id: 10, technicians });
const service = (...technicians: number[]) => [{ id: 20, technicians }];

describe("what keeps a technician from a visit", () => {
  it("is nothing where nobody names anybody", () => {
    expect([barOf(bram(), zone(), service(), false), barOf(bram(), null, service(), false)]).toEqual([null, null]);
  });

  it("is said from either side, the zone before the service", () => {
    expect([
      barOf(bram(), zone(2), service(2), false),
      barOf(bram({ zones: [11] }), zone(), service(), false),
      barOf(bram({ zones: [10] }), zone(1, 2), service(), false),
    ]).toEqual(["other-zone", "other-zone", null]);
    expect([
      barOf(bram(), zone(), service(2), false),
      barOf(bram({ services: [21] }), zone(), service(), false),
      barOf(bram({ services: [20] }), zone(), service(1), false),
    ]).toEqual(["other-services", "other-services", null]);
    expect(barOf(bram({ zones: [10] }), null, service(), false)).toBe("other-zone");
    // Of several services, all must be theirs.
    expect(
      [[20], [20, 21]].map((services) =>
        barOf(bram({ services }), zone(), [...service(), { id: 21, technicians: [1] }], false),
      ),
    ).toEqual(["other-services", null]);
  });

  it("is no bar to the office where only customers are not offered somebody", () => {
    expect([false, true].map((office) => barOf(bram({ offered: false }), zone(), service(), office))).toEqual([
      "not-offered",
      null,
    ]);
  });
});
