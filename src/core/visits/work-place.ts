/** Where work is done: at the customer's site, at our own place (brought in, or a shop), or from afar (a call). */
export const workPlaces = ["site", "ours", "afar"] as const;
export type WorkPlace = (typeof workPlaces)[number];

/** As the owner chooses it, and as a customer reads it beside a service. */
export const workPlaceWords: Record<WorkPlace, { owner: string; customer: string }> = {
  site: { owner: "At the customer’s", customer: "" },
  ours: { owner: "At our place", customer: "At our place" },
  afar: { owner: "From afar, by phone", customer: "By phone" },
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

export function placeInWords(
  workPlace: WorkPlace,
  { site, ours, phone }: { site: string; ours: string; phone: string },
): PlaceInWords {
  switch (workPlace) {
    case "site":
      return { promise: "we will be at your door", comes: "we come", where: `at ${site}` };
    case "ours":
      return {
        promise: "we expect you",
        comes: "we expect you",
        where: ours ? `at our place, ${ours}` : "at our place",
      };
    case "afar":
      return {
        promise: "we will call you",
        comes: "we call you",
        where: phone ? `by phone, on ${phone}` : "by phone",
      };
  }
}
