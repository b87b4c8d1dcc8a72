import fc from "fast-check";
import { dayChanges } from "./day-changes";

const stop = (id: number, window_from = 600) => ({ id, window_from });

it("tells what came, what moved and how many went", () => {
  expect(dayChanges([stop(1), stop(2), stop(3)], [stop(2, 720), stop(3), stop(4)])).toEqual({
    fresh: [stop(4)],
    moved: [stop(2, 720)],
    gone: 1,
  });
});

it("says nothing of a day that is as it was, whatever the order", () => {
  fc.assert(
    fc.property(fc.uniqueArray(fc.nat(50), { maxLength: 8 }), (ids) => {
      const day = ids.map((id) => stop(id, id * 10));
      expect(dayChanges(day, [...day].reverse())).toBeNull();
    }),
  );
});
