import type { WorkPlace } from "../visits/work-place";
import { goesWith, mayPayAll, mustBeAlone, paidNow, wishThatCounts } from "./baskets";

const service = (more: object = {}) => ({
  days: 1,
  seats: 0,
  workPlace: "site" as WorkPlace,
  mayPayAll: true,
  wish: "preferred" as const,
  ...more,
});
const item = (more: object = {}, quantity = 1) => ({ service: service(more), quantity });

describe("work of several days", () => {
  it("is booked alone", () => {
    const long = item({ days: 3 });
    expect(mustBeAlone([item(), long])).toBe(long);
    expect([goesWith(service({ days: 3 }), [item()]), goesWith(service(), [long])]).toEqual([false, false]);
  });

  it("is booked alone where it is a seat among others, and as often as one likes", () => {
    const seat = item({ seats: 8, workPlace: "ours" }, 3);
    expect([mustBeAlone([seat]), mustBeAlone([seat, item()])]).toEqual([null, seat]);
    expect(goesWith(service({ workPlace: "ours" }), [seat])).toBe(false);
  });

  it("is booked once", () => expect(mustBeAlone([item({ days: 3 }, 2)])).not.toBeNull());

  it("leaves work of a day as it is", () => {
    expect(mustBeAlone([item({}, 4), item()])).toBeNull();
    expect(goesWith(service(), [item()])).toBe(true);
  });
});

it("work at another place is booked on its own", () => {
  expect(goesWith(service({ workPlace: "ours" }), [item()])).toBe(false);
  expect(goesWith(service({ workPlace: "ours" }), [item({ workPlace: "ours" })])).toBe(true);
});

describe("paying while booking", () => {
  it("takes all of it only where every service lets it", () => {
    expect([mayPayAll([item(), item()]), mayPayAll([item(), item({ mayPayAll: false })]), mayPayAll([])]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it("takes the deposit otherwise", () => {
    const order = { totalMinor: 9000, depositMinor: 2000 };
    expect([paidNow(order, true), paidNow(order, false)]).toEqual([9000, 2000]);
  });
});

describe("a wish for a technician", () => {
  it("counts where every service lets customers have one", () => {
    expect(wishThatCounts([item(), item()], 4)).toEqual({ technicianId: 4, only: false });
    expect(wishThatCounts([item(), item({ wish: "none" })], 4)).toBeNull();
  });

  it("keeps everybody else away where one service says so", () =>
    expect(wishThatCounts([item(), item({ wish: "only" })], 4)).toEqual({ technicianId: 4, only: true }));
});
