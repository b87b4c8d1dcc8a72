import { isOnOurWay } from "@/core/windows/offer";
import { input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { chosen, orderAbout } from "@/modules/catalogue/inputs";
import { takesCards } from "@/modules/money/cards";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";
import { releaseHold, stillOffered, takeRoom, visitOfHold } from "../room";
import { mayKeepRoom } from "../unproved";
import { findWanted, priceIn } from "../wanted";

const HoldOffer = input({ ...chosen, instead: Type.Optional(Type.String({ maxLength: 60 })) });

/** Keeps an offer for a customer for some minutes. `instead` is the key of an earlier hold, which is given back. */
export const holdOffer = defineOperation({
  name: "hold-offer",
  access: "anybody",
  about: orderAbout,
  input: HoldOffer,
  run(context, { date, from, to, instead, ...asked }) {
    if (instead) {
      const before = visitOfHold(context, instead);
      if (before?.state === "held") releaseHold(context, before.id);
    }
    const wanted = findWanted(context, asked);
    mayKeepRoom(context, { date, minutes: wanted.visit.minutes * wanted.visit.crew });
    const offer = stillOffered(context, wanted, { date, from, to });
    const key = nanoid(24);
    const until = context.now + context.business.hold_minutes * 60_000;
    const visitId = takeRoom(context, wanted, offer, { key, until });
    const { lines, totalMinor, taxMinor, depositMinor, items } = priceIn(context, wanted, visitId);
    return {
      key,
      until,
      onOurWay: isOnOurWay(offer, wanted.visit.workPlace),
      /** What it costs in this window: prices that are not shown before are told here. */
      price: {
        lines,
        totalMinor,
        taxMinor,
        depositMinor: takesCards(context) ? depositMinor : 0,
        itemTotals: items.map((item) => item.totalMinor),
      },
    };
  },
});
