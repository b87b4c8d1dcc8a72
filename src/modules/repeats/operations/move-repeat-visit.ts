import { Refusal } from "@/core/problems";
import { datesOfRule, isDateOf, readRule, type Recurrence, ruleText } from "@/core/repeats/recurrence";
import { shiftedRule } from "@/core/repeats/shift";
import { addDays, daysBetween, type LocalDate } from "@/core/time/dates";
import { visitStates } from "@/core/visits/states";
import { Id, input, OneOf } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { chosenPlace, moveByHand } from "@/modules/placing/by-hand";
import { readVisit, type VisitRow } from "@/modules/placing/visits";
import { insertRow } from "@/store/insert";
import type { StoredTerms } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { dropForecast } from "../laying-out";
import { goesOn, laidOut } from "../repeats";
import { allTerms, farthest, replaceTerms, type RepeatRow, termsUpTo } from "../terms";

const MoveRepeatVisit = input({
  visitId: Id,
  ...chosenPlace,
  /** Whether those that come after it move along, or all that are not promised yet. */
  which: OneOf(["this", "later", "all"]),
});

/**
 * Moves a visit of a repeat by hand: this one alone, with those that come after it, or with all to come. What is promised is told; for a date
 * that is not, it is agreed. `undo-repeat-change` takes back what was agreed for those after it.
 */
export const moveRepeatVisit = defineOperation({
  name: "move-repeat-visit",
  access: "board.change",
  about: { visitId: "visit", technicianIds: "shared" },
  input: MoveRepeatVisit,
  run(context, { visitId, which, ...place }) {
    const visit = readVisit(context, visitId);
    if (visit.repeat_id === null || visit.repeat_date === null)
      throw new Refusal("not-found", { sentence: "This visit does not come back." });
    const repeat = goesOn(context, visit.repeat_id);
    const told = moveByHand(context, visit, place);
    if (which !== "this") shift(context, repeat, { ...visit, repeat_date: visit.repeat_date }, place, which);
    else if (visit.state === "forecast") agreeFor(context, repeat, visit.repeat_date, place);
    return { ...told, ...laidOut(context, repeat.id) };
  },
});

interface Place {
  technicianIds: number[];
  date: LocalDate;
  fromMinute: number;
  toMinute: number;
}

function agreeFor({ sql }: OperationContext, { id }: RepeatRow, date: LocalDate, place: Place): void {
  const before = sql<Rows["repeat_exceptions"]>(
    "DELETE FROM repeat_exceptions WHERE repeat_id = ? AND date = ? RETURNING *",
  ).get(id, date);
  insertRow(sql, "repeat_exceptions", {
    repeat_id: id,
    date,
    skip: 0,
    to_date: place.date,
    from_minute: place.fromMinute,
    to_minute: place.toMinute,
    technician_id: place.technicianIds[0] ?? null,
    pattern_id: before?.pattern_id ?? null,
  });
}

/** Terms that begin with the visit where it stands now, or with the first date that nobody was promised. */
function shift(
  context: OperationContext,
  repeat: RepeatRow,
  visit: VisitRow & { repeat_date: LocalDate },
  { technicianIds, date, fromMinute, toMinute }: Place,
  which: "later" | "all",
): void {
  const { sql } = context;
  const terms = allTerms(context, repeat);
  const inForce = terms.find(({ until_date }) => visit.repeat_date <= until_date)!;
  const { start, rule } = shiftedTerms(inForce, visit.repeat_date, date, which === "all" && openFrom(context, visit));
  const begins = which === "all" ? openFrom(context, visit) : earlier(date, visit.repeat_date);
  const other = sql<{ id: number; state: string }>(
    "SELECT id, state FROM visits WHERE repeat_id = ? AND repeat_date = ? AND id <> ?",
  ).get(repeat.id, date, visit.id);
  if (other && other.state !== "forecast")
    throw new Refusal("cannot-be-kept", { sentence: "This repeat has another visit for that day already." });
  if (other) dropForecast(context, other.id);
  replaceTerms(
    context,
    repeat.id,
    [
      ...termsUpTo(terms, begins),
      {
        until_date: farthest,
        start_date: start,
        rule: ruleText(rule),
        from_minute: fromMinute,
        to_minute: toMinute,
        technician_id: technicianIds[0]!,
        on_closed: inForce.on_closed,
      },
    ],
    terms,
  );
  sql("DELETE FROM repeat_exceptions WHERE repeat_id = ? AND date IN (?, ?)").run(repeat.id, visit.repeat_date, date);
  sql("UPDATE visits SET repeat_date = ? WHERE id = ?").run(date, visit.id);
}

const earlier = (a: LocalDate, b: LocalDate): LocalDate => (a < b ? a : b);

/** The first day after today, and after all others that were promised. */
function openFrom({ sql, today }: OperationContext, visit: VisitRow): LocalDate {
  const { last } = sql<{ last: LocalDate | null }>(
    `SELECT max(repeat_date) AS last FROM visits WHERE repeat_id = ? AND id <> ? AND state IN ${visitStates.sql("expect")}`,
  ).get(visit.repeat_id, visit.id)!;
  return addDays(last !== null && last > today ? last : today, 1);
}

/** The rule as it is when a date moves, from that one on, or from the first date after `all`; refused where it cannot be told which day is meant. */
function shiftedTerms(
  terms: Pick<StoredTerms, "rule" | "start_date">,
  date: LocalDate,
  to: LocalDate,
  all: LocalDate | false,
): { start: LocalDate; rule: Recurrence } {
  const rule = readRule(terms.rule);
  const from = all ? (datesOfRule(rule, terms.start_date, all, date, 1)[0] ?? date) : date;
  const start = addDays(from, daysBetween(date, to));
  const shifted = shiftedRule(rule, terms.start_date, from, start);
  if (!shifted || !isDateOf({ ...shifted, count: null }, start, to))
    throw new Refusal("invalid-input", {
      fields: {
        "/which": "By this rule it cannot be told which day is meant. Change the rule itself on the repeat’s own page.",
      },
    });
  return { start, rule: shifted };
}
