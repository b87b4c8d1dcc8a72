import { dateWords } from "@/core/time/words";
import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";
import { hoarding } from "./unproved";

/** Room that is kept by people nobody knows, more than is likely. */
const hoarded = (context: ViewContext): NeedsPerson[] =>
  hoarding(context).map(({ address, date, kept, customerId, name }) => ({
    kind: "hoarding",
    words: name
      ? `${name} has booked ${kept} times online`
      : `${kept} times are kept by ${address ? "somebody" : "people"} nobody knows${date ? `, on ${dateWords(date)}` : ""}`,
    detail: name
      ? "As many as one customer may: call them, and see whether all are meant"
      : address
        ? "Holds and bookings without a payment or a code, all from one network address"
        : "Holds and bookings without a payment or a code: much of that day",
    href: name ? `/customers/${customerId}` : date ? `/board?date=${date}` : "/board",
    givesBack: { address, date, customerId: customerId ?? null },
  }));

export const bookingNeeds: readonly Needs[] = [{ may: "board.change", read: hoarded }];
