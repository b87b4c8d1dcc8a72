import { lateFeeDay, lateFeeOf } from "./late-fees";

const rule = { days: 14, minor: 500, bp: 200 };

it("is a sum and a share of what is open, so many days after it was due", () => {
  expect(lateFeeDay("2027-02-20", rule)).toBe("2027-03-06");
  expect(lateFeeOf(12_345, rule)).toBe(500 + 247);
});

it.each([
  ["no days are set", { ...rule, days: null }],
  ["it would be nothing", { days: 14, minor: 0, bp: 0 }],
])("is not asked for where %s", (_, none) => {
  expect(lateFeeDay("2027-02-20", none)).toBeNull();
});
