/** Which customers a list shows: all that is set must hold. A saved view is one of these under a name. */
export interface CustomerFilter {
  /** Something is open on an invoice. */
  openMoney: boolean;
  /** No visit was made in so many days; null: whenever. */
  noVisitDays: number | null;
  /** No visit is promised and none is forecast. */
  noComing: boolean;
  zoneId: number | null;
  source: string | null;
  tag: string | null;
  /** Those who were archived, in place of all others. */
  archived: boolean;
}

export const everybody: CustomerFilter = {
  openMoney: false,
  noVisitDays: null,
  noComing: false,
  zoneId: null,
  source: null,
  tag: null,
  archived: false,
};

/** Views that are there from the beginning. */
export const standardViews: readonly { name: string; filter: CustomerFilter }[] = [
  { name: "All customers", filter: everybody },
  { name: "Open money", filter: { ...everybody, openMoney: true } },
  { name: "No visit for a year", filter: { ...everybody, noVisitDays: 365 } },
  { name: "No coming visit", filter: { ...everybody, noComing: true } },
  { name: "Archived", filter: { ...everybody, archived: true } },
];

export const sameFilter = (one: CustomerFilter, other: CustomerFilter): boolean =>
  (Object.keys(everybody) as (keyof CustomerFilter)[]).every((key) => one[key] === other[key]);
