import fc from "fast-check";
import { movedUntilHours, ownChanges } from "./cut-off";

const terms = [{ late: { hours: 24, kind: "fixed" as const, value: 2500 }, noAccessMinor: 0, totalMinor: 7900 }];
const at = (minutesBefore: number, agreed = true, more: { lateMoves?: "fee" | "refused"; takenMinor?: number } = {}) =>
  ownChanges(
    { moveHours: more.lateMoves ? 2 : 24, cancelHours: 2, lateMoves: more.lateMoves ?? "fee" },
    terms,
    { agreed, takenMinor: more.takenMinor ?? 0 },
    100_000,
    100_000 - minutesBefore,
  );

describe("what customers change by themselves", () => {
  it("ends at its own hour for moving and for cancelling", () => {
    expect([25 * 60, 24 * 60, 121, 120, -5].map((before) => [at(before).mayMove, at(before).mayCancel])).toEqual([
      [true, true],
      [false, true],
      [false, true],
      [false, false],
      [false, false],
    ]);
    expect(at(600)).toMatchObject({ moveUntil: 98_560, cancelUntil: 99_880 });
  });

  it("costs what the terms say at that moment", () => {
    expect([24 * 60, 24 * 60 - 1].map((before) => at(before).feeMinor)).toEqual([0, 2500]);
    expect(at(600, false)).toMatchObject({ mayMove: false, mayCancel: true, feeMinor: 0 });
    expect(at(30 * 60, false).mayMove).toBe(false);
  });

  it("moves late with the fee, or not at all, as the owner says", () => {
    expect(at(600, true, { lateMoves: "fee" })).toMatchObject({ mayMove: true, moveTakesMinor: 2500 });
    expect(at(600, true, { lateMoves: "refused" })).toMatchObject({ mayMove: false, mayCancel: true });
    expect(at(30 * 60, true, { lateMoves: "refused" })).toMatchObject({ mayMove: true, moveTakesMinor: 0 });
  });

  it("says until when one may move as it is then kept, whatever the terms", () => {
    const late = fc.record({
      hours: fc.integer({ min: 0, max: 96 }),
      kind: fc.constantFrom("none" as const, "percent" as const, "fixed" as const),
      value: fc.constantFrom(0, 2500, 5000),
    });
    const rules = fc.record({
      moveHours: fc.integer({ min: 0, max: 72 }),
      cancelHours: fc.integer({ min: 0, max: 72 }),
      lateMoves: fc.constantFrom("fee" as const, "refused" as const),
    });
    fc.assert(
      fc.property(
        rules,
        fc.array(late, { minLength: 1, maxLength: 3 }),
        fc.integer({ min: -60, max: 6000 }),
        (cutOffs, lates, before) => {
          const items = lates.map((one) => ({ late: one, noAccessMinor: 0, totalMinor: 7900 }));
          const opens = 100_000;
          const { moveUntil, mayMove } = ownChanges(cutOffs, items, { agreed: true }, opens, opens - before);
          if (opens - before < moveUntil) expect(mayMove).toBe(true);
          if (opens - before > moveUntil) expect(mayMove).toBe(false);
          expect(moveUntil).toBe(opens - movedUntilHours(cutOffs, items) * 60);
        },
      ),
    );
  });

  it("costs the fee that was taken along by a late move, however far away the visit is now", () => {
    expect(at(50 * 60, true, { takenMinor: 2500 })).toMatchObject({ feeMinor: 2500, moveTakesMinor: 2500 });
  });
});
