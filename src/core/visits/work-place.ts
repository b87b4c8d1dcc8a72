/** Where work is done: at the customer's site, at our own place (brought in, or a shop), or from afar (a call). */
export const workPlaces = ["site", "ours", "afar"] as const;
export type WorkPlace = (typeof workPlaces)[number];

/** As the owner chooses it, and as a customer reads it beside a service. */
export const workPlaceWords: Record<WorkPlace, { owner: string; customer: string }> = {
  site: { owner: "At the customer’s", customer: "" },
  ours: { owner: "At our place", customer: "At our place" },
  afar: { owner: "From afar, by phone", customer: "By phone" },
};
