import { stateTable } from "../states";

/** What became of a message. `dropped`: it was not sent, for a reason; `not known`: nobody can say whether it went. */
export type MessageState = "waiting" | "sent" | "delivered" | "opened" | "bounced" | "failed" | "dropped" | "not known";

/** `gone`: it has left the house, so whoever it is for has been told; `arrived`: its gateway says so; `lost`: it did not arrive. */
export const messageStates = stateTable<MessageState, "gone" | "arrived" | "lost">({
  waiting: { next: ["sent", "bounced", "failed", "dropped", "not known"], allows: [] },
  sent: { next: ["delivered", "opened", "bounced", "failed"], allows: ["gone"] },
  delivered: { next: ["opened"], allows: ["gone", "arrived"] },
  opened: { next: [], allows: ["gone", "arrived"] },
  bounced: { next: [], allows: ["lost"] },
  failed: { next: [], allows: ["lost"] },
  dropped: { next: [], allows: [] },
  "not known": { next: ["delivered", "opened", "bounced", "failed"], allows: ["lost"] },
});
