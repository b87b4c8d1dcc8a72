import type { ViewInput } from "@/api/client";

/** Views that answer one page of a list. */
export type PagedView =
  | "customers"
  | "import-rows"
  | "repeats"
  | "invoices"
  | "payments"
  | "credits"
  | "payouts"
  | "bank-lines"
  | "incoming"
  | "message-log"
  | "campaign-audience"
  | "reviews"
  | "who-did-what"
  | "security-log";
export type Sort<N extends PagedView> = ViewInput<N>["sort"];

/** What a list begins with: also what its page brings along. */
export const firstPage = <N extends PagedView>(sort: Sort<N>, descending = false) => ({
  page: 0,
  size: 50,
  sort,
  descending,
  search: "",
});
