import { Refusal } from "@/core/problems";
import { onClosedWays } from "@/core/repeats/coming";
import { canCountFromVisits, countedFromVisitsWords, waysToCount } from "@/core/repeats/counted";
import { waysToCome } from "@/core/repeats/flexible";
import { datesOfRule } from "@/core/repeats/recurrence";
import { addDays } from "@/core/time/dates";
import { EndMinute, DateText, Id, input, MinuteOfDay, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { readService } from "@/modules/catalogue/catalogue";
import { itemsOf, OfficeItems, orderAbout } from "@/modules/catalogue/inputs";
import { readJobPattern } from "@/modules/catalogue/job-patterns";
import { type Static, Type } from "@sinclair/typebox";
import { EveryNth, Leeway, Rule, ruleIn } from "../inputs";
import { laidOut } from "../repeats";
import { storeRepeat } from "../storing";

/** A site, with the window there; its first date is the first of the rule from `from` on. */
const atSite = { siteId: Id, from: DateText, fromMinute: MinuteOfDay, toMinute: EndMinute };
const AgreeRepeat = input({
  customerId: Id,
  ...atSite,
  /** Other sites of the customer that belong to the same agreement: each comes on dates of its own. */
  otherSites: Type.Optional(Type.Array(input(atSite), { maxItems: 40 })),
  items: OfficeItems,
  /** Another job pattern the first time, and every so many times. */
  firstPatternId: Type.Optional(OrNull(Id)),
  nth: Type.Optional(OrNull(EveryNth)),
  rule: Rule,
  technicianId: OrNull(Id),
  onClosed: OneOf(onClosedWays),
  comes: OneOf(waysToCome),
  leewayDays: Leeway,
  counted: OneOf(waysToCount),
});
type AtSite = Pick<Static<typeof AgreeRepeat>, keyof typeof atSite>;

/**
 * Agrees a repeat with a customer that no visit has begun: its first date is a forecast like the others. Where several
 * sites belong to it, each is a repeat of its own, and they are known to have been agreed together; the worker lays the
 * others out.
 */
export const agreeRepeat = defineOperation({
  name: "agree-repeat",
  access: "board.change",
  about: {
    ...orderAbout,
    customerId: "customer",
    siteId: "site",
    "otherSites.siteId": "site",
    technicianId: "shared",
    firstPatternId: "shared",
    "nth.patternId": "shared",
  },
  input: AgreeRepeat,
  run(context, { customerId, siteId, from, fromMinute, toMinute, otherSites = [], items, rule: text, ...terms }) {
    const { sql, today } = context;
    const rule = ruleIn(text);
    const services = items.map(({ serviceId }) => readService(context, serviceId));
    const wrong = (field: string, sentence: string) => new Refusal("invalid-input", { fields: { [field]: sentence } });
    const isThere = sql(
      "SELECT 1 FROM customers WHERE id = ? AND archived_at IS NULL AND erased_at IS NULL AND merged_into IS NULL",
    ).get(customerId);
    if (!isThere)
      throw new Refusal("not-found", {
        sentence: "This customer is not there any more, or archived: take them back first.",
      });
    if (terms.counted === "done" && !canCountFromVisits(rule)) throw wrong("/rule", countedFromVisitsWords);
    if (services.some(({ seats }) => seats > 0))
      throw wrong("/items", "A seat is booked once: it does not come back by itself.");
    if (services.some(({ days }) => days > 1)) throw new Refusal("repeat-of-several-days");
    for (const id of [terms.firstPatternId, terms.nth?.patternId]) if (id != null) readJobPattern(context, id);

    const store = (at: AtSite, path: string, agreedWithId: number | null): number => {
      if (at.from <= today) throw wrong(`${path}/from`, "Choose a day after today.");
      if (at.toMinute < at.fromMinute) throw wrong(`${path}/toMinute`, "A window ends after it begins.");
      if (!sql("SELECT 1 FROM sites WHERE id = ? AND customer_id = ?").get(at.siteId, customerId))
        throw new Refusal("not-found");
      const [start] = datesOfRule({ ...rule, count: null }, at.from, at.from, addDays(at.from, 3660), 1);
      if (!start) throw wrong("/rule", "This rule has no date from that day on.");
      return storeRepeat(context, { ...terms, ...at, customerId, items: itemsOf(items), rule, start, agreedWithId });
    };
    const first = store({ siteId, from, fromMinute, toMinute }, "", null);
    for (const [i, at] of otherSites.entries()) store(at, `/otherSites/${i}`, first);
    return { repeatId: first, ...laidOut(context, first) };
  },
});
