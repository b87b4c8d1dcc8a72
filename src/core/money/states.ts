import { stateTable } from "../states";

export type PaymentState = "asked" | "second step" | "received" | "declined" | "taken back";

export const paymentStates = stateTable<PaymentState, "under way" | "settled" | "has come">({
  asked: { next: ["second step", "received", "declined"], allows: ["under way"] },
  // Its customer may leave the bank's page and take another card: then the service is asked how it ended.
  "second step": { next: ["asked", "received", "declined"], allows: ["under way"] },
  received: { next: ["taken back"], allows: ["settled", "has come"] },
  // It was written down wrongly: a counter-entry has set it right.
  "taken back": { next: [], allows: ["settled"] },
  declined: { next: [], allows: ["settled"] },
});
