import { asksFrom, meanRating, type ReviewRules } from "./reviewing";

const hour = 3_600_000;
const rules: ReviewRules = { when: "done", afterMs: 18 * hour, restMs: 1000 * hour, since: 0 };
const done = { doneAt: 10 * hour, paidAt: null, askedAt: null };

it("asks so long after the work is done", () => {
  expect(asksFrom(rules, done)).toBe(28 * hour);
});

it("waits for the payment where the owner wants that", () => {
  expect(asksFrom({ ...rules, when: "paid" }, done)).toBeNull();
  expect(asksFrom({ ...rules, when: "paid" }, { ...done, paidAt: 20 * hour })).toBe(38 * hour);
});

it("counts from the work where it was paid ahead", () => {
  expect(asksFrom({ ...rules, when: "paid" }, { ...done, paidAt: hour })).toBe(28 * hour);
});

it("leaves whoever was asked in peace for a while", () => {
  expect(asksFrom(rules, { ...done, askedAt: 0 })).toBeNull();
  expect(asksFrom({ ...rules, restMs: hour }, { ...done, askedAt: 0 })).toBe(28 * hour);
});

it("asks nobody about what was done before it was wanted, and nobody at all where it is not", () => {
  expect(asksFrom({ ...rules, since: 11 * hour }, done)).toBeNull();
  expect(asksFrom({ ...rules, when: "never" }, done)).toBeNull();
});

it("says the mean to one place", () => {
  expect([meanRating(0, 0), meanRating(5, 1), meanRating(14, 3), meanRating(3, 2)]).toEqual([null, 5, 4.7, 1.5]);
});
