import { stateTable } from "../states";

export type PaymentState = "asked" | "second step" | "received" | "declined" | "taken back";

export const paymentStates = stateTable<PaymentState, "under way" | "settled">({
  asked: { next: ["second step", "received", "declined"], allows: ["under way"] },
  "second step": { next: ["received", "declined"], allows: ["under way"] },
  received: { next: ["taken back"], allows: ["settled"] },
  // It was written down wrongly: a counter-entry has set it right.
  "taken back": { next: [], allows: ["settled"] },
  declined: { next: [], allows: ["settled"] },
});
