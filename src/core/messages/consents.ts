export type Consent = "reminders" | "offers" | "card on file";

/** What people agree to by a tick, in the words they read: kept with their answer. */
export const consentWords = (business: string): Record<Consent, string> => ({
  reminders: "Remind me before the visit, by email and text.",
  offers: `${business} may write to me about offers. I can end this at any time.`,
  "card on file": `Keep this card for later payments to ${business}. I can take it away at any time.`,
});
