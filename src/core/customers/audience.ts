/** Whom a campaign writes to: all that is set must hold. Beside it everybody needs to have agreed to offers. */
export interface Audience {
  /** They have had one of these services, by id; empty: whatever it was, or nothing yet. */
  services: readonly number[];
  /** Their last one was so many months ago, at least and at most; null: whenever. */
  monthsAgoLeast: number | null;
  monthsAgoMost: number | null;
  /** One of their places is in one of these zones, by id; empty: anywhere. */
  zones: readonly number[];
  /** They have paid so much in all, minor units; null: whatever. */
  paidLeastMinor: number | null;
  /** No visit is promised or forecast. */
  noComing: boolean;
  tag: string | null;
  /** No other campaign has invited them in so many days. */
  restDays: number;
}

export const everyone: Audience = {
  services: [],
  monthsAgoLeast: null,
  monthsAgoMost: null,
  zones: [],
  paidLeastMinor: null,
  noComing: true,
  tag: null,
  restDays: 30,
};
