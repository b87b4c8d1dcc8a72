import { justOne } from "@/core/catalogue/items";
import { Refusal } from "@/core/problems";
import { addDays, datesFrom } from "@/core/time/dates";
import { localOf } from "@/core/time/local";
import { isOnOurWay } from "@/core/windows/offer";
import { mostTelling, type Reason } from "@/core/windows/reasons";
import { reasonWords } from "@/core/windows/words";
import { Id, input } from "@/kernel/inputs";
import { rehearse } from "@/kernel/rehearse";
import { defineView } from "@/kernel/view";
import { priceItems, readItem, toPlace, zoneThatCounts } from "@/modules/catalogue/catalogue";
import { SaveBookingRules } from "@/modules/catalogue/inputs";
import { knownAddress } from "@/modules/place/addresses";
import { AddressId } from "@/modules/place/inputs";
import { zoneOf } from "@/modules/place/zones";
import { changeBookingRules } from "@/modules/placing/booking-rules";
import { answersFor, namesOf } from "@/modules/placing/windows";

/** Rules as they are being typed, for a sample address and service. */
const PreviewWindows = input({ rules: SaveBookingRules, addressId: AddressId, serviceId: Id });

/** Two weeks as a customer would see them if the rules were as they are being typed. */
export const previewWindows = defineView({
  name: "preview-windows",
  access: "setup.change",
  input: PreviewWindows,
  read: (context, { rules, addressId, serviceId }) =>
    rehearse(
      context,
      (trial) => changeBookingRules(trial, rules),
      (rehearsed) => {
        const address = knownAddress(rehearsed, addressId);
        if (!address)
          throw new Refusal("invalid-input", { fields: { "/addressId": "Choose an address from the list." } });
        const items = [readItem(rehearsed, justOne(serviceId))];
        const zone = zoneThatCounts(items, zoneOf(rehearsed, address));
        const visit = toPlace(rehearsed, items, address, zone?.id ?? null, priceItems(rehearsed, items, zone));
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
                onOurWay: a.offered && isOnOurWay(a, visit.workPlace),
                who: a.offered
                  ? a.technicians.slice(0, Math.max(visit.crew, 3)).map((t) => names.technician(t.id))
                  : [],
                why: a.offered ? null : wordsOf(mostTelling(a.reasons)),
              })),
          })),
        };
      },
    ),
});
