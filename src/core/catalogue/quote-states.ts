import { stateTable } from "../states";

export type QuoteState = "sent" | "accepted" | "booked" | "declined" | "withdrawn";

/** Open: somebody has still to do something about it. */
export const quoteStates = stateTable<QuoteState, "open" | "accept" | "change">({
  sent: { next: ["accepted", "booked", "declined", "withdrawn"], allows: ["open", "accept", "change"] },
  accepted: { next: ["sent", "booked", "withdrawn"], allows: ["open", "accept"] },
  booked: { next: ["sent"], allows: [] },
  declined: { next: ["sent", "withdrawn"], allows: ["open", "change"] },
  withdrawn: { next: [], allows: [] },
});
