import { groupBy } from "@/core/group";
import { distanceKm } from "@/core/place/points";
import { bestPlaces, type PlaceOfRepeat } from "@/core/repeats/placing";
import { datesOfRule, type Recurrence, ruleText } from "@/core/repeats/recurrence";
import { recurrenceWords } from "@/core/repeats/rule-words";
import { shiftedRule } from "@/core/repeats/shift";
import { addDays, type LocalDate } from "@/core/time/dates";
import { localOf } from "@/core/time/local";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import { DateText, Id, input } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { Type } from "@sinclair/typebox";
import { itemsOf, OfficeItems, orderAbout } from "@/modules/catalogue/inputs";
import { answersFor, visitingDays } from "@/modules/placing/windows";
import { Rule, ruleIn } from "../inputs";
import { needsAt, needsOf } from "../work";
import { readRepeat } from "../repeats";

/** For a repeat that is there, or one that is to be: work at a site. */
const Asked = input({
  repeatId: Type.Optional(Id),
  siteId: Type.Optional(Id),
  items: Type.Optional(OfficeItems),
  rule: Rule,
  /** The rule's first date is the first from here on. */
  from: DateText,
});

const datesLooked = 10;
/** Others who are so near on that day say why it fits. */
const nearKm = 4;

/** The best day, window and technician for a rule over its next ten dates, with the second and third best, what each costs, and who else is near then. */
export const repeatPlaces = defineView({
  name: "repeat-places",
  access: "board.change",
  about: { repeatId: "repeat", siteId: "site", ...orderAbout },
  input: Asked,
  read(context, { repeatId, siteId, items = [], rule: text, from }) {
    const asked = ruleIn(text);
    const rule = { ...asked, count: null };
    const needs = repeatId
      ? needsOf(context, readRepeat(context, repeatId)).needs
      : needsAt(context, siteId!, itemsOf(items));
    const without = repeatId
      ? context
          .sql<{ id: number }>("SELECT id FROM visits WHERE repeat_id = ? AND state = 'forecast'")
          .all(repeatId)
          .map(({ id }) => id)
      : [];
    const [start] = datesOfRule(rule, from, from, addDays(from, 3660), 1);
    if (!start) return [];
    const dates = datesOfRule(rule, start, start, addDays(start, 3660), datesLooked);
    const shifts = [0, 1, 2, 3, 4, 5, 6].filter((shift) =>
      shiftedRule(rule, start, start, addDays(start, shift), "every day"),
    );
    const comes = visitingDays(context, needs);
    const days = [...new Set(dates.flatMap((date) => shifts.map((shift) => addDays(date, shift))))]
      .filter(comes)
      .sort();
    const zone = context.business.time_zone;
    const answers = groupBy(
      answersFor(context, { ...needs, wanted: null }, days, { strict: false, forecasts: "full", without }),
      ({ date }) => date,
    );
    const best = bestPlaces(dates, shifts, (date, shift) =>
      (answers.get(addDays(date, shift)) ?? []).flatMap((answer) =>
        answer.offered
          ? [
              {
                from: localOf(answer.from, zone).minute,
                to: localOf(answer.to, zone).minute,
                technicians: answer.technicians.slice(0, 6),
              },
            ]
          : [],
      ),
    );
    return best.map((place) => placeInWords(context, needs, { rule, start, count: asked.count }, place));
  },
});

function placeInWords(
  context: ViewContext,
  needs: VisitToPlace,
  { rule, start, count }: { rule: Recurrence; start: LocalDate; count: number | null },
  place: PlaceOfRepeat,
) {
  const { sql } = context;
  const day = addDays(start, place.shift);
  const shifted = { ...shiftedRule(rule, start, start, day, "every day")!.rule, count };
  const technicianId = Number(place.technicianId);
  return {
    rule: ruleText(shifted),
    words: recurrenceWords(shifted, day),
    start: day,
    fromMinute: place.from,
    toMinute: place.to,
    technicianId,
    technician: sql<{ name: string }>("SELECT name FROM technicians WHERE id = ?").get(technicianId)!.name,
    kept: place.kept,
    of: place.of,
    driving: Math.round(place.driving),
    /** Others of that technician near it on the first day. */
    near:
      needs.workPlace === "site"
        ? sql<{ name: string; lng: number; lat: number }>(
            `SELECT coalesce(c.name, rc.name) AS name, v.lng, v.lat
              FROM placements p JOIN visits v ON v.id = p.visit_id LEFT JOIN jobs j ON j.id = v.job_id
                LEFT JOIN customers c ON c.id = j.customer_id LEFT JOIN repeats r ON r.id = v.repeat_id
                LEFT JOIN customers rc ON rc.id = r.customer_id
              WHERE p.technician_id = ? AND p.date = ? AND v.work_place = 'site' AND coalesce(c.name, rc.name) IS NOT NULL
              ORDER BY p.arrives`,
          )
            .all(technicianId, day)
            .map((visit) => ({ name: visit.name, km: distanceKm(visit, needs.point) }))
            .filter(({ km }) => km <= nearKm)
            .map(({ name, km }) => ({ name, km: Math.round(km * 10) / 10 }))
        : [],
  };
}
