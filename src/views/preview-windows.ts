import { addDays, datesFrom, localOf } from "@/core/time/local";
import { mostTelling, type Reason } from "@/core/windows/reasons";
import { reasonWords } from "@/core/windows/words";
import { isOnOurWay } from "@/core/windows/offers";
import { Refusal } from "@/core/problems";
import { PreviewWindows } from "@/schemas/setup";
import { knownAddress } from "@/operations/addresses";
import { zoneOf } from "@/operations/booking";
import { justOne, priceItems, readItem, toPlace } from "@/operations/catalogue";
import { answersFor, namesOf } from "@/operations/placing";
import { rehearse } from "@/operations/rehearse";
import { saveBookingRules } from "@/operations/setup/booking-rules";
import { defineView } from "./view";

/** Two weeks as a customer would see them if the rules were as they are being typed. */
export const previewWindows = defineView({
  name: "preview-windows",
  access: "setup.change",
  input: PreviewWindows,
  read: (context, { rules, addressId, serviceId }) =>
    rehearse(context, saveBookingRules, rules, (rehearsed) => {
      const address = knownAddress(rehearsed, addressId);
      if (!address)
        throw new Refusal("invalid-input", { fields: { "/addressId": "Choose an address from the list." } });
      const zone = zoneOf(rehearsed, address);
      const items = [readItem(rehearsed, justOne(serviceId))];
      const visit = toPlace(items, address, zone?.id ?? null, priceItems(rehearsed, items, zone));
      const dates = datesFrom(rehearsed.today, addDays(rehearsed.today, 13));
      const names = namesOf(rehearsed);
      const minuteOf = (epoch: number) => localOf(epoch, rehearsed.business.time_zone).minute;
      const wordsOf = (reason: Reason | null) => reason && reasonWords(reason, names);
      const answers = answersFor(rehearsed, visit, dates);
      return {
        zone: zone?.name ?? null,
        days: dates.map((date) => ({
          date,
          windows: answers
            .filter((a) => a.date === date)
            .map((a) => ({
              from: minuteOf(a.from),
              to: minuteOf(a.to),
              offered: a.offered,
              onOurWay: a.offered && isOnOurWay(a),
              who: a.offered ? a.technicians.slice(0, Math.max(visit.crew, 3)).map((t) => names.technician(t.id)) : [],
              why: a.offered ? null : wordsOf(mostTelling(a.reasons)),
            })),
        })),
      };
    }),
});
