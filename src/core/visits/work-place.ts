/** Where work is done: at the customer's site, or at our own place (brought in, or a shop). */
export const workPlaces = ["site", "ours"] as const;
export type WorkPlace = (typeof workPlaces)[number];

/** As the owner chooses it, and as a customer reads it beside a service. */
export const workPlaceWords: Record<WorkPlace, { owner: string; customer: string }> = {
  site: { owner: "At the customer’s", customer: "" },
  ours: { owner: "At our place", customer: "At our place" },
};

/** What a message says of it: who comes to whom, where, and what is to be expected on a day. */
export interface PlaceInWords {
  /** "we will be at your door", before a day. */
  promise: string;
  /** "we come", in the present. */
  comes: string;
  /** "at 3 Mill Lane". */
  where: string;
}

export const placeInWords = (workPlace: WorkPlace, { site, ours }: { site: string; ours: string }): PlaceInWords =>
  workPlace === "site"
    ? { promise: "we will be at your door", comes: "we come", where: `at ${site}` }
    : {
        promise: "we expect you",
        comes: "we expect you",
        where: ours ? `at our place, ${ours}` : "at our place",
      };
