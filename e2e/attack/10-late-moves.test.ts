import { as } from "../support/http";
import { underAttack, visitorAt, type Window } from "./attacker";

/** 10: the fee for cancelling late is not dodged by moving far away first. */
const app = underAttack();

it("a late move takes the fee along, and says so before the tap", async () => {
  const { book, ask, change } = visitorAt(app);
  const odile = await as(app.url, "odile");
  const { rules } = (await ask<{ rules: object }>("setup", {}, odile)).value;
  expect(
    (await change("save-booking-rules", { ...rules, moveHours: 0, cancelHours: 0, lateMoves: "fee" }, odile)).ok,
  ).toBe(true);
  const { link } = (await book("Late Finch")).value;
  const mine = { "x-hogar-link": link };
  interface Page {
    changes: { feeMinor: number; moveTakesMinor: number };
    visit: { window_from: number };
  }
  const page = async () => (await ask<Page>("my-visit", {}, mine)).value;
  const before = (await page()).changes;
  expect(before.feeMinor).toBeGreaterThan(0);
  expect(before.moveTakesMinor).toBe(before.feeMinor);
  const { date, from, to } = (await ask<Window[]>("my-offers", {}, mine)).value.at(-1)!;
  expect((await change("move-by-link", { date, from, to }, mine)).ok).toBe(true);
  expect((await page()).changes.feeMinor).toBe(before.feeMinor);
  expect((await change("cancel-by-link", { feeMinor: 0 }, mine)).problem!.code).toBe("fee-changed");
});

it("or is refused, as the owner sets", async () => {
  const { book, ask, change } = visitorAt(app);
  const odile = await as(app.url, "odile");
  const { rules } = (await ask<{ rules: object }>("setup", {}, odile)).value;
  await change("save-booking-rules", { ...rules, lateMoves: "refused" }, odile);
  const { link } = (await book("Refused Finch", { customer: { phone: "+1 201 555 0119" } })).value;
  const mine = { "x-hogar-link": link };
  expect((await ask<Window[]>("my-offers", {}, mine)).value).toEqual([]);
  expect((await change("move-by-link", { date: "2099-01-01", from: 1, to: 2 }, mine)).problem!.code).toBe(
    "too-late-to-change",
  );
});
