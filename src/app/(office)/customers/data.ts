import type { ViewOutput } from "@/api/client";

export type Customer = ViewOutput<"customer">;
export type Site = Customer["sites"][number];
export type CustomerRow = ViewOutput<"customers">["rows"][number];

/** How somebody likes to be reached. */
export const reachedByWords: Record<Customer["reachedBy"], string> = {
  any: "anything",
  email: "email",
  text: "text",
  phone: "a call",
};

/** How many of the past visits and of the messages a customer's page begins with. */
export const latest = { visits: 10, messages: 10 };
