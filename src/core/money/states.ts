import { stateTable } from "../states";

export type PaymentState = "asked" | "second step" | "received" | "declined";

export const paymentStates = stateTable<PaymentState, "under way" | "settled">({
  asked: { next: ["second step", "received", "declined"], allows: ["under way"] },
  "second step": { next: ["received", "declined"], allows: ["under way"] },
  received: { next: [], allows: ["settled"] },
  declined: { next: [], allows: ["settled"] },
});
