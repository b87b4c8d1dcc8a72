/** How far ahead and how far back things are kept, in one place. Days where nothing else is said. */

/** Repeats: how many forecasts are laid out within one transaction. */
export const forecastsAtOnce = 16;
/** Repeats: how many technicians' days are looked at for room within one transaction, about. */
export const daysLookedAtOnce = 60;

/** How long somebody stays signed in, and how long an ended session is kept. */
export const signedInDays = 14;
export const endedSessionDays = 30;
/** What was sent long ago needs no key any more. */
export const outboxDays = 90;
/** What could not be done by itself is tried again even where nothing has changed: what it needed may be there by now. */
export const tryAgainDays = 1;

/** Somebody limited to own visits sees the customers of those so many days back and ahead. */
export const ownCustomersDays = 14;
/** Rows of an imported file are kept this long: until then an import can be undone. */
export const importRowsDays = 30;

export const dayMs = 86_400_000;
export const hourMs = 3_600_000;
