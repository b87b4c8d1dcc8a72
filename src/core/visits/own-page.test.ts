import { jobStates } from "../jobs/states";
import { paymentStates, type PaymentState } from "../money/states";
import { ownPage, type OwnStanding } from "./own-page";
import { visitStates } from "./states";
import fc from "fast-check";

const standings: fc.Arbitrary<OwnStanding> = fc.record({
  job: fc.record({
    state: fc.constantFrom(...jobStates.states),
    approval: fc.constantFrom("given" as const, "waiting" as const, "proposed" as const),
    proof: fc.constantFrom("none", "asked", "paid", "code"),
  }),
  visit: fc.constantFrom(...visitStates.states),
  payments: fc.array(
    fc.record({
      state: fc.constantFrom(...paymentStates.states),
      purpose: fc.constantFrom("deposit", "invoice", "account"),
    }),
    { maxLength: 4 },
  ),
  depositMinor: fc.constantFrom(0, 3000),
  openMinor: fc.constantFrom(0, 9500),
  takesCards: fc.boolean(),
});

const booked: OwnStanding = {
  job: { state: "awaiting deposit", approval: "given", proof: "none" },
  visit: "promised",
  payments: [],
  depositMinor: 3000,
  openMinor: 0,
  takesCards: true,
};
const withDeposit = (state: PaymentState, standing: Partial<OwnStanding> = {}) =>
  ownPage({ ...booked, payments: [{ state, purpose: "deposit" }], ...standing });

it("sends nobody to a bank, nor asks for a card, for what is not due", () => {
  fc.assert(
    fc.property(standings, (standing) => {
      const page = ownPage(standing);
      const isDue = standing.job.state === "awaiting deposit" ? standing.depositMinor > 0 : standing.openMinor > 0;
      if (!isDue) expect(page).toMatchObject({ step: -1, pays: null, declined: false });
    }),
  );
});

it("looks forward to nobody whose visit is over or not paid for", () => {
  fc.assert(
    fc.property(standings, (standing) => {
      const page = ownPage(standing);
      if (standing.job.state === "cancelled" || standing.visit === "cancelled")
        expect(page).toMatchObject({ isBooked: false, kept: null });
      if (standing.job.state === "awaiting deposit") expect(page.isBooked).toBe(false);
    }),
  );
});

it("offers one way on at a time: to wait, the bank, or a card", () => {
  fc.assert(
    fc.property(standings, (standing) => {
      const { asking, step, pays } = ownPage(standing);
      expect([asking, step >= 0, pays !== null].filter(Boolean).length).toBeLessThanOrEqual(1);
    }),
  );
});

it.each([
  ["asked", { title: "One moment, we ask your bank", pays: null, step: -1 }],
  ["second step", { title: "Your bank asks you", pays: null, step: 0 }],
  ["declined", { title: "One step is left: the deposit", pays: "deposit", declined: true }],
] as const)("has a page of its own for a deposit that is %s", (state, page) => {
  expect(withDeposit(state)).toMatchObject(page);
});

it("says that a booking without its deposit is over, whatever its bank still asks", () => {
  const over = withDeposit("second step", {
    job: { ...booked.job, state: "cancelled" },
    visit: "cancelled",
  });
  expect(over).toMatchObject({ title: "Cancelled", isUnpaid: true, step: -1, pays: null, isBooked: false });
});

it("does not say so of one that was paid, and cancelled later", () => {
  const cancelled = { job: { ...booked.job, state: "cancelled" as const }, visit: "cancelled" as const };
  expect(withDeposit("received", cancelled).isUnpaid).toBe(false);
});
