import type { ViewContext } from "@/kernel/operation";
import { takesCards } from "@/modules/money/cards";
import type { Offered } from "./campaigns";

/** Whether something is left to be answered or paid before it is booked: then the front door asks, with all else filled in. */
export const needsMore = (context: ViewContext, { items, order }: Pick<Offered, "items" | "order">): boolean =>
  order.items.some(({ problems }) => Object.keys(problems).length > 0) ||
  items.some(({ service }) => service.price_kind === "quote") ||
  (order.depositMinor > 0 && takesCards(context));
