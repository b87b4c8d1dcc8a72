import { dayWords, windowIn } from "@/core/time/words";
import { titleOf, readItem, type Item } from "@/operations/catalogue";
import { firstLinkTokenOf } from "@/operations/links";
import { openWish } from "@/operations/wishes";
import type { ChosenWindow } from "@/operations/booking";
import { WishToken } from "@/schemas/booking";
import { readFrontDoor } from "@/store/front-door";
import { lookOf } from "@/core/look/front-door";
import { defineView } from "./view";

/** What the link of a wish shows: the window that is free now, to be taken with one tap. */
export const wish = defineView({
  name: "wish",
  access: "anybody",
  input: WishToken,
  read(context, { token }) {
    const { business, hogar } = context;
    const request = openWish(context, token);
    const told = request.told === null ? null : (JSON.parse(request.told) as ChosenWindow);
    return {
      business: { name: business.name, mark: business.mark, phone: business.phone },
      look: lookOf(readFrontDoor(hogar.store)),
      address: request.address,
      what: titleOf((JSON.parse(request.items) as Item[]).map((item) => readItem(context, item))),
      window: told && { day: dayWords(told.date), time: windowIn(told.from, told.to, business.time_zone) },
      booked: request.job_id === null ? null : firstLinkTokenOf(hogar, request.job_id),
    };
  },
});
