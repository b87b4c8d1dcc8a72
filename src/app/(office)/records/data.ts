import type { ViewInput, ViewOutput } from "@/api/client";
import { firstPage } from "@/ui/first-page";

export type Entry = ViewOutput<"who-did-what">["rows"][number];
export type SecurityEntry = ViewOutput<"security-log">["rows"][number];
export type Filters = Pick<
  ViewInput<"who-did-what">,
  "by" | "personId" | "customerId" | "visitId" | "operation" | "from" | "to"
>;

export const changesFirst = firstPage<"who-did-what">("at", true);
export const securityFirst = firstPage<"security-log">("at", true);

const id = (text: string | undefined): number | null => (text && /^[1-9]\d{0,9}$/.test(text) ? Number(text) : null);
const date = (text: string | undefined): string | null => (text && /^\d{4}-\d{2}-\d{2}$/.test(text) ? text : null);

/** The filters that stand in an address. */
export const filtersOf = (query: Record<string, string | undefined>): Filters => ({
  by: query.by === "anybody" || query.by === "itself" ? query.by : "people",
  personId: id(query.person),
  customerId: id(query.customer),
  visitId: id(query.visit),
  operation: query.operation ?? null,
  from: date(query.from),
  to: date(query.to),
});

export const askedOf = (query: Record<string, string | undefined>): ViewInput<"who-did-what"> => ({
  ...changesFirst,
  ...filtersOf(query),
});
