import { nanoid } from "nanoid";
import { isOnOurWay } from "@/core/windows/offers";
import { HoldOffer } from "@/schemas/booking";
import { findWanted, releaseHold, stillOffered, takeRoom } from "./booking";
import { defineOperation } from "./door";

/** Keeps an offer for a customer for some minutes. `instead` is the key of an earlier hold, which is given back. */
export const holdOffer = defineOperation({
  name: "hold-offer",
  access: "anybody",
  input: HoldOffer,
  run(context, { date, from, to, instead, ...asked }) {
    if (instead) {
      const before = context
        .sql<{ id: number }>("SELECT id FROM visits WHERE hold_key = ? AND state = 'held'")
        .get(instead);
      if (before) releaseHold(context, before.id);
    }
    const wanted = findWanted(context, asked);
    const offer = stillOffered(context, wanted, { date, from, to });
    const key = nanoid(24);
    const until = context.now + context.business.hold_minutes * 60_000;
    takeRoom(context, wanted, offer, { key, until });
    return { key, until, onOurWay: isOnOurWay(offer) };
  },
});
