import { Refusal } from "@/core/problems";
import { onClosedWays } from "@/core/repeats/coming";
import { canCountFromVisits, waysToCount } from "@/core/repeats/counted";
import { waysToCome } from "@/core/repeats/flexible";
import { datesOfRule, ruleText } from "@/core/repeats/recurrence";
import { addDays } from "@/core/time/dates";
import { DateText, Id, input, MinuteOfDay, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { readService } from "@/modules/catalogue/catalogue";
import { Items, orderAbout } from "@/modules/catalogue/inputs";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { Leeway, Rule, ruleIn } from "../inputs";
import { laidOut } from "../repeats";

const AgreeRepeat = input({
  customerId: Id,
  siteId: Id,
  items: Type.Array(Items.items, { minItems: 1, maxItems: 12 }),
  rule: Rule,
  /** Its first date is the first of the rule from here on. */
  from: DateText,
  fromMinute: MinuteOfDay,
  toMinute: MinuteOfDay,
  technicianId: OrNull(Id),
  onClosed: OneOf(onClosedWays),
  comes: OneOf(waysToCome),
  leewayDays: Leeway,
  counted: OneOf(waysToCount),
});

/** Agrees a repeat with a customer that no visit has begun: its first date is a forecast like the others. */
export const agreeRepeat = defineOperation({
  name: "agree-repeat",
  access: "board.change",
  about: { ...orderAbout, customerId: "customer", siteId: "site", technicianId: "shared" },
  input: AgreeRepeat,
  run(context, { customerId, siteId, items, rule: text, from, ...terms }) {
    const { sql, today } = context;
    const rule = ruleIn(text);
    const services = items.map(({ serviceId }) => readService(context, serviceId));
    const wrong = (field: string, sentence: string) => new Refusal("invalid-input", { fields: { [field]: sentence } });
    if (from <= today) throw wrong("/from", "Choose a day after today.");
    if (terms.toMinute < terms.fromMinute) throw wrong("/toMinute", "A window ends after it begins.");
    if (terms.counted === "done" && !canCountFromVisits(rule))
      throw wrong("/rule", "Counted from the last visit, a rule says only how often.");
    if (services.some(({ seats }) => seats > 0))
      throw wrong("/items", "A seat is booked once: it does not come back by itself.");
    if (services.some(({ days }) => days > 1)) throw new Refusal("repeat-of-several-days");
    if (!sql("SELECT 1 FROM sites WHERE id = ? AND customer_id = ?").get(siteId, customerId))
      throw new Refusal("not-found");
    const [start] = datesOfRule({ ...rule, count: null }, from, from, addDays(from, 3660), 1);
    if (!start) throw wrong("/rule", "This rule has no date from that day on.");
    const id = insertRow(sql, "repeats", {
      customer_id: customerId,
      site_id: siteId,
      service_id: services[0]!.id,
      technician_id: terms.technicianId,
      rule: ruleText(rule),
      start_date: start,
      on_closed: terms.onClosed,
      comes: terms.comes,
      leeway_days: terms.leewayDays,
      counted: terms.counted,
      from_minute: terms.fromMinute,
      to_minute: terms.toMinute,
      items: JSON.stringify(
        items.map(({ serviceId, quantity = 1, answers = {}, extras = [] }) => ({
          serviceId,
          quantity,
          answers,
          extras,
        })),
      ),
      state: "active",
    });
    return { repeatId: id, ...laidOut(context, id) };
  },
});
