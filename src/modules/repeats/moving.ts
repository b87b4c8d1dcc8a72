import { Refusal } from "@/core/problems";
import { datesOfRule, readRule, ruleText } from "@/core/repeats/recurrence";
import { type Along, type Begun, shiftedRule, waysAlong, waysToShift } from "@/core/repeats/shift";
import { addDays, daysBetween, type LocalDate } from "@/core/time/dates";
import { Id, input, OneOf } from "@/kernel/inputs";
import type { OperationContext } from "@/kernel/operation";
import { chosenPlace, moveByHand } from "@/modules/placing/by-hand";
import { readVisit, type VisitRow } from "@/modules/placing/visits";
import type { BeforeChange, StoredTerms } from "@/store/columns";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { type Static, Type } from "@sinclair/typebox";
import { dropForecast } from "./laying-out";
import { promisedFrom, takeAlong } from "./promised-along";
import { goesOn, laidOut } from "./repeats";
import { allTerms, replaceTerms, type RepeatRow, termsUpTo } from "./terms";
import { asItStands } from "./undoing";
import { nameDates } from "@/modules/jobs/forecasts";

export const MoveRepeatVisit = input({
  visitId: Id,
  ...chosenPlace,
  /** Whether those that come after it move along, promised or not, or all that are not promised yet. */
  which: OneOf(["this", "later", "all"]),
  /** Which of those: the ones on its day of the week or month, or all by as many days; has to be said where both can be. */
  along: Type.Optional(OneOf(waysAlong)),
});

/** Moves a visit of a repeat as `move-repeat-visit` says. Answers whether anybody was told, and how many dates lie ahead. */
export function moveVisitOfRepeat(
  context: OperationContext,
  { visitId, which, along, ...place }: Static<typeof MoveRepeatVisit>,
): { told: boolean; forecasts: number } {
  const visit = readVisit(context, visitId);
  if (visit.repeat_id === null || visit.repeat_date === null)
    throw new Refusal("not-found", { sentence: "This visit does not come back." });
  const repeat = goesOn(context, visit.repeat_id);
  const before = which === "this" ? null : asItStands(context, repeat);
  const { told } = moveByHand(context, visit, place);
  let others = false;
  if (before)
    others = shift(context, repeat, { ...visit, repeat_date: visit.repeat_date }, place, { which, along, before });
  else if (visit.state === "forecast") agreeFor(context, repeat, visit.repeat_date, place);
  return { told: told || others, ...laidOut(context, repeat.id) };
}

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

/**
 * Terms that begin with the visit where it stands now, those that are promised after it taken along; or with the first date
 * after all that are promised. Terms that were agreed for later stay. Answers whether anybody else was told.
 */
function shift(
  context: OperationContext,
  repeat: RepeatRow,
  visit: VisitRow & { repeat_date: LocalDate },
  { technicianIds, date: to, fromMinute, toMinute }: Place,
  { which, along, before }: { which: "later" | "all" | "this"; along: Along | undefined; before: BeforeChange },
): boolean {
  const terms = allTerms(context, repeat);
  const at = terms.findIndex(({ until_date }) => visit.repeat_date <= until_date);
  const inForce = terms[at]!;
  const promised = promisedFrom(context, repeat.id, addDays(visit.repeat_date, 1));
  const first = which === "all" ? openFrom(context, visit, terms, at) : visit.repeat_date;
  const day = addDays(first, daysBetween(visit.repeat_date, to));
  const anew = shiftedTerms(inForce, first, day, along);
  const begins = first < day ? first : day;
  const dates = which === "all" ? [] : datesOf(anew, begins, to, inForce.until_date, promised.length);
  const isOver =
    day > inForce.until_date || dates.length < (which === "all" ? 0 : promised.filter(within(inForce)).length);
  if (isOver)
    throw new Refusal("cannot-be-kept", {
      sentence: "Other terms are agreed from that day on: move it within those before, or change the terms themselves.",
    });
  replaceTerms(
    context,
    repeat.id,
    [
      ...termsUpTo(terms, begins),
      {
        until_date: inForce.until_date,
        start_date: anew.start,
        rule: ruleText(anew.rule),
        from_minute: fromMinute,
        to_minute: toMinute,
        technician_id: technicianIds[0]!,
        on_closed: inForce.on_closed,
      },
      ...terms.slice(at + 1),
    ],
    before,
  );
  const moved = which === "all" ? [] : promised.filter(within(inForce));
  ownDate(context, repeat.id, visit, first <= visit.repeat_date ? to : visit.repeat_date, moved);
  agreedAlong(context, repeat.id, inForce, anew, begins);
  return takeAlong(context, repeat.id, moved, dates.slice(0, moved.length));
}

const within =
  ({ until_date }: StoredTerms) =>
  ({ repeat_date }: VisitRow): boolean =>
    repeat_date! <= until_date;

/** The dates of the new terms that come after the one to which a visit was moved, for those that are promised. */
const datesOf = ({ rule, start }: Begun, begins: LocalDate, moved: LocalDate, until: LocalDate, count: number) =>
  datesOfRule(rule, start, begins, until, count + 1)
    .filter((date) => date !== moved)
    .slice(0, count);

/** The visit that was moved is for the date on which it stands by now; whatever was expected for that gives way. */
function ownDate(
  context: OperationContext,
  repeatId: number,
  visit: VisitRow,
  date: LocalDate,
  moved: readonly VisitRow[],
): void {
  const { sql } = context;
  const other = sql<{ id: number; state: string }>(
    "SELECT id, state FROM visits WHERE repeat_id = ? AND repeat_date = ? AND id <> ?",
  ).get(repeatId, date, visit.id);
  if (other?.state === "forecast") dropForecast(context, other.id);
  else if (other && !moved.some(({ id }) => id === other.id))
    throw new Refusal("cannot-be-kept", { sentence: "This repeat has another visit for that day already." });
  // Those that move along get theirs in a moment.
  nameDates(
    context,
    repeatId,
    moved.map(({ id }) => ({ id, repeat_date: null })),
  );
  nameDates(context, repeatId, [{ id: visit.id, repeat_date: date }]);
}

/** What was agreed for single dates goes on for those that have taken their place. */
function agreedAlong(
  { sql }: OperationContext,
  repeatId: number,
  old: StoredTerms,
  anew: Begun,
  begins: LocalDate,
): void {
  const agreed = sql<Rows["repeat_exceptions"]>(
    "DELETE FROM repeat_exceptions WHERE repeat_id = ? AND date BETWEEN ? AND ? RETURNING *",
  ).all(repeatId, begins, old.until_date);
  if (!agreed.length) return;
  const last = agreed
    .map(({ date }) => date)
    .sort()
    .at(-1)!;
  const were = datesOfRule(readRule(old.rule), old.start_date, begins, last);
  const are = datesOfRule(anew.rule, anew.start, begins, old.until_date, were.length);
  for (const exception of agreed) {
    const date = are[were.indexOf(exception.date)];
    if (date && exception.date !== were[0]) insertRow(sql, "repeat_exceptions", { ...exception, date });
  }
}

/** The first date of the terms in force, after today and after all other promises: from there on nobody was told. */
function openFrom(context: OperationContext, visit: VisitRow, terms: readonly StoredTerms[], at: number): LocalDate {
  const { today } = context;
  const { rule, start_date, until_date } = terms[at]!;
  const last =
    promisedFrom(context, visit.repeat_id!, today).findLast(({ id }) => id !== visit.id)?.repeat_date ?? today;
  const opens = [last, today, terms[at - 1]?.until_date ?? today].sort().at(-1)!;
  const next = datesOfRule(readRule(rule), start_date, addDays(opens, 1), until_date, 1)[0];
  if (!next) throw new Refusal("not-found", { sentence: "By its terms no date comes that nobody was promised." });
  return next;
}

/** The rule as it is when a date moves, from that one on; refused where it has to be said which of its days are meant. */
function shiftedTerms(
  { rule: text, start_date: start }: Pick<StoredTerms, "rule" | "start_date">,
  date: LocalDate,
  to: LocalDate,
  along: Along | undefined,
): Begun {
  const rule = readRule(text);
  const ways = waysToShift(rule, start, date, to);
  const way = ways.length === 1 ? ways[0] : ways.find((one) => one === along);
  const shifted = way && shiftedRule(rule, start, date, to, way);
  if (shifted) return shifted;
  throw new Refusal("invalid-input", {
    fields: ways.length
      ? { "/along": "Say which move along: those on this day only, or all by as many days." }
      : {
          "/which":
            "By this rule no other can be told from it. Move this one alone, or change the rule itself on the repeat’s own page.",
        },
  });
}
