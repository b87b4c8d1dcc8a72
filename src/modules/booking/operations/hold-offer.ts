import { isOnOurWay } from "@/core/windows/offer";
import { input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { chosen } from "@/modules/catalogue/inputs";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";
import { releaseHold, stillOffered, takeRoom } from "../room";
import { findWanted } from "../wanted";

const HoldOffer = input({ ...chosen, instead: Type.Optional(Type.String({ maxLength: 60 })) });

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
