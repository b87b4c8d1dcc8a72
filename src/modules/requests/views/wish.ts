import type { Agreement } from "@/core/catalogue/agreement";
import { Refusal } from "@/core/problems";
import type { ViewContext } from "@/kernel/operation";
import { agreementNow } from "@/modules/booking/agreed";
import { titleOf } from "@/core/catalogue/titles";
import { lookOf } from "@/core/look/front-door";
import { windowIn } from "@/core/time/local-words";
import { dayWords } from "@/core/time/words";
import { firstLinkTokenOf } from "@/kernel/links";
import { defineView } from "@/kernel/view";
import { readItem } from "@/modules/catalogue/catalogue";
import { chosenWindowColumn, itemsColumn } from "@/store/columns";
import { readFrontDoor } from "@/store/front-door";
import { WishToken } from "../inputs";
import { depositAsked, type RequestRow, wantedOf } from "../requests";
import { openWish } from "../wishes";

/** What the link of a wish shows: the window that is free now, to be taken with one tap. */
export const wish = defineView({
  name: "wish",
  access: "anybody",
  input: WishToken,
  read(context, { token }) {
    const { business, hogar } = context;
    const request = openWish(context, token);
    const told = request.told === null ? null : chosenWindowColumn.read(request.told);
    return {
      business: { name: business.name, mark: business.mark, phone: business.phone },
      look: lookOf(readFrontDoor(hogar.store)),
      address: request.address,
      what: titleOf(itemsColumn.read(request.items).map((item) => readItem(context, item))),
      window: told && { day: dayWords(told.date), time: windowIn(told.from, told.to, business.time_zone) },
      currency: business.currency,
      agreement: agreementOfWish(context, request),
      booked: request.job_id === null ? null : firstLinkTokenOf(hogar, request.job_id),
    };
  },
});

/** What taking the window means, at the price before what is less on our way; null where it cannot be booked any more. */
function agreementOfWish(context: ViewContext, request: RequestRow): Agreement | null {
  try {
    const wanted = wantedOf(context, request);
    return wanted && agreementNow(context, wanted.items, wanted.order, depositAsked(context, wanted.order));
  } catch (error) {
    if (error instanceof Refusal) return null;
    throw error;
  }
}
