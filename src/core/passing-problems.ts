/** What a page says by itself while nobody answers; apart from all the others, since every page has them. */
export const passingProblems = {
  crowded: "Many people are looking just now. One moment.",
  offline: "There is no connection right now. Nothing was lost: try again in a moment.",
} as const;
