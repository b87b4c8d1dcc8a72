import { localOf } from "@/core/time/local";
import { isOnOurWay } from "@/core/windows/offer";
import { explainWindows } from "@/core/windows/offers";
import type { CrewReason, Reason, RuleReason } from "@/core/windows/reasons";
import { skillGap } from "@/core/windows/skills";
import { reasonWords, remedyWords, technicianReasonWords } from "@/core/windows/words";
import { DateText, Id, input, OrNull } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { priceItems, questionsOf, readItem, toPlace, zoneThatCounts } from "@/modules/catalogue/catalogue";
import { chosen, itemsOf, OfficeItems, orderAbout } from "@/modules/catalogue/inputs";
import { itemsByPattern, openPatterns } from "@/modules/catalogue/job-patterns";
import { addressOf, knownAddress } from "@/modules/place/addresses";
import { mustGoTogether } from "@/modules/catalogue/together";
import { AddressId } from "@/modules/place/inputs";
import { zoneOf } from "@/modules/place/zones";
import { Type } from "@sinclair/typebox";
import type { PlannedStop } from "../planning";
import { namesOf, questionFor } from "../windows";

/** Why a window is or is not offered on a date; `technicianId` is a customer's wish, or null. */
const WhyNot = input({
  addressId: chosen.addressId,
  items: OfficeItems,
  date: DateText,
  technicianId: OrNull(Id),
  only: Type.Boolean(),
});

/** What can be asked about: the services, the technicians, and the address that came with the link. */
export const whyNotChoices = defineView({
  name: "why-not-choices",
  access: "office.see of all",
  about: {},
  input: input({ addressId: OrNull(AddressId), customerId: Type.Optional(OrNull(Id)) }),
  read(context, { addressId, customerId = null }) {
    const { sql, today, business } = context;
    const found = addressId === null ? null : knownAddress(context, addressId);
    return {
      today,
      address: found && { id: found.id, line: found.line, postcode: found.postcode, lng: found.lng, lat: found.lat },
      /** For whom it is, where that is known already. */
      customer:
        sql<{ id: number; name: string }>(
          "SELECT id, name FROM customers WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL",
        ).get(customerId) ?? null,
      services: sql<{ id: number; name: string; questions: string }>(
        "SELECT id, name, questions FROM services WHERE active = 1 ORDER BY category, name",
      )
        .all()
        .map((s) => ({ ...s, questions: questionsOf(s) })),
      patterns: openPatterns(context).map((pattern) => ({
        id: pattern.id,
        name: pattern.name,
        items: itemsByPattern(pattern),
      })),
      currency: business.currency,
      technicians: sql<{ id: number; name: string }>(
        "SELECT id, name FROM technicians WHERE active = 1 ORDER BY position",
      ).all(),
    };
  },
});

/**
 * Every window of a day for a visit, and every technician: who can come and when, or what stops
 * them, by how much, between which visits, and what change would open it. It asks the engine that
 * sells the windows, with all rules in force.
 */
export const whyNot = defineView({
  name: "why-not",
  access: "office.see of all",
  about: orderAbout,
  input: WhyNot,
  read(context, { addressId, items: ordered, date, technicianId, only }) {
    const { business } = context;
    const address = addressOf(context, addressId);
    const items = itemsOf(ordered).map((item) => readItem(context, item));
    mustGoTogether(items);
    const zone = zoneThatCounts(items, zoneOf(context, address));
    const wanted = technicianId === null ? null : { technicianId, only };
    const order = priceItems(context, items, zone);
    const asked = { ...toPlace(context, items, address, zone?.id ?? null, order), wanted };
    const question = questionFor(context, asked, [date]);
    const names = namesOf(context);
    const ofDay = (epoch: number) => localOf(epoch, business.time_zone).minute;
    const told = (reason: RuleReason | CrewReason) => ({
      code: reason.code,
      words: reasonWords(reason, names),
      remedy: isOfCrew(reason) ? null : remedyWords(reason, names),
    });

    /** Whose visits lie before and after a position of somebody's day. */
    const between = (technician: string, on: string, position: number): string => {
      // The day as the engine asked it: forecasts that give way are not in it.
      const prepared = question.planning.prepared(Number(technician), on, business.forecast_room);
      const stops = prepared.works ? (prepared.day.stops as readonly PlannedStop[]) : [];
      const named = stopNames(on);
      const nameOf = (stop: PlannedStop | undefined, none: string) =>
        stop ? (named.get(keyOf(stop)) ?? "somebody") : none;
      return `between ${nameOf(stops[position - 1], "the start of the day")} and ${nameOf(stops[position], "the way home")}`;
    };
    const stopNames = onceADay((on) => readStopNames(context, on));

    return {
      zone: zone?.name ?? null,
      service: {
        name: asked.title,
        minutes: question.visit.minutes,
        before: question.visit.before,
        after: question.visit.after,
        crew: question.visit.crew,
        days: asked.days,
      },
      mode: question.rules.capacity.mode,
      technicians: question.technicians.map(({ id, skills }) => ({
        id,
        name: names.technician(id),
        able: skillGap(skills, question.visit.skills, date) === null,
      })),
      windows: explainWindows(question).map(({ answer, rules, technicians }) => ({
        /** As it is sent to book it: epoch minutes. */
        window: { date: answer.date, from: answer.from, to: answer.to },
        from: ofDay(answer.from),
        to: ofDay(answer.to),
        offered: answer.offered,
        /** What it costs in this window, with what is taken off on our way: the price it is booked at. */
        totalMinor:
          answer.offered && isOnOurWay(answer, asked.workPlace) && business.on_our_way_bp > 0
            ? priceItems(context, items, zone, { onOurWayBp: business.on_our_way_bp }).totalMinor
            : order.totalMinor,
        onOurWay: answer.offered && answer.technicians.length > 0 ? answer.extraDriving : null,
        meetAt: answer.offered && answer.meetAt !== null ? ofDay(answer.meetAt) : null,
        followingDays: answer.offered ? answer.followingDays.map((day) => day.date) : [],
        /** Rules against the window, then what is missing of a crew. */
        against: [...rules, ...(answer.offered ? [] : answer.reasons.filter(isOfCrew))].map(told),
        technicians: technicians.map(({ id, fits, reason }) => ({
          id,
          fits: fits && {
            arrives: ofDay(fits.arrive[0]),
            latest: ofDay(fits.arrive[1]),
            extraDriving: fits.extraDriving,
            load: fits.load,
          },
          code: reason?.code ?? null,
          words: reason ? technicianReasonWords(reason, names) : null,
          where:
            reason?.code === "out-of-reach" && reason.shortBy !== null
              ? between(id, reason.date, reason.position)
              : null,
          remedy: reason && remedyWords(reason, names),
        })),
      })),
    };
  },
});

const isOfCrew = (reason: Reason): reason is CrewReason =>
  ["crew-incomplete", "crew-never-together", "nobody"].includes(reason.code);

const keyOf = ({ visitId, errandId }: Pick<PlannedStop, "visitId" | "errandId">): string =>
  errandId !== null ? `errand ${errandId}` : `visit ${visitId}`;

/** Whose visits and which errands lie on a day, read at once: by visit and by errand. */
function readStopNames({ sql }: ViewContext, on: string): Map<string, string> {
  const rows = sql<{ key: string; name: string }>(
    `SELECT 'visit ' || v.id AS key, coalesce(c.name, rc.name, 'a hold') AS name
      FROM placements p JOIN visits v ON v.id = p.visit_id LEFT JOIN jobs j ON j.id = v.job_id
        LEFT JOIN customers c ON c.id = j.customer_id LEFT JOIN repeats r ON r.id = v.repeat_id
        LEFT JOIN customers rc ON rc.id = r.customer_id
      WHERE p.date = @on
      UNION ALL SELECT 'errand ' || id, title FROM errands WHERE date = @on`,
  ).all({ on });
  return new Map(rows.map(({ key, name }) => [key, name]));
}

function onceADay<T>(read: (on: string) => T): (on: string) => T {
  const known = new Map<string, T>();
  return (on) => {
    if (!known.has(on)) known.set(on, read(on));
    return known.get(on)!;
  };
}
