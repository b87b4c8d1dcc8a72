import { Refusal } from "@/core/problems";
import { Id, input, Nothing } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { pointRules, pointsOf, pointStatement } from "../points";

const mostRows = 100;

/** A customer's points, with what they are worth; null where there are none to be had, and none that are left. */
function pointsView(context: ViewContext, customerId: number) {
  const rules = pointRules(context.business);
  const balance = pointsOf(context, customerId);
  const rows = pointStatement(context, customerId, mostRows);
  return rules === null && rows.length === 0
    ? null
    : { rules, balance, worthMinor: Math.max(0, balance) * context.business.point_minor, rows };
}

/** The points of whoever comes by their link: what they have, how they came to it, and what they take off. */
export const myPoints = defineView({
  name: "my-points",
  access: "link",
  input: Nothing,
  read(context) {
    if (context.actor.kind !== "link") throw new Refusal("link-ended");
    return pointsView(context, context.actor.customerId);
  },
});

/** The same for the office. */
export const customerPoints = defineView({
  name: "customer-points",
  access: "customers.see",
  about: { customerId: "customer" },
  input: input({ customerId: Id }),
  read: (context, { customerId }) => pointsView(context, customerId),
});

/** What set-up says of points. */
export const loyaltySetup = defineView({
  name: "loyalty-setup",
  access: "setup.change",
  input: Nothing,
  read: ({ business, sql }) => ({
    currency: business.currency,
    perMinor: business.point_per_minor,
    worthMinor: business.point_minor,
    least: business.points_least,
    /** Points that customers have, in all: what they could still take off. */
    out: sql<{ n: number }>("SELECT coalesce(sum(points), 0) AS n FROM points").get()!.n,
  }),
});
