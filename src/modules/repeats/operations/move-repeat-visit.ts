import { Refusal } from "@/core/problems";
import { readRule, ruleText } from "@/core/repeats/recurrence";
import { shiftedRule } from "@/core/repeats/shift";
import type { LocalDate } from "@/core/time/dates";
import { Id, input } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { chosenPlace, moveByHand } from "@/modules/placing/by-hand";
import { takeOut } from "@/modules/placing/days";
import { readVisit, type VisitRow } from "@/modules/placing/visits";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { goesOn, laidOut } from "../repeats";
import { allTerms, farthest, replaceTerms, type RepeatRow, termsUpTo } from "../terms";

const MoveRepeatVisit = input({
  visitId: Id,
  ...chosenPlace,
  /** Whether those that come after it move along. */
  onwards: Type.Boolean(),
});

/**
 * Moves a visit of a repeat by hand: this one alone, or with all that come after it. What is promised is told; for a date
 * that is not, it is agreed. `undo-repeat-change` takes back what was agreed for those after it.
 */
export const moveRepeatVisit = defineOperation({
  name: "move-repeat-visit",
  access: "board.change",
  about: { visitId: "visit", technicianIds: "shared" },
  input: MoveRepeatVisit,
  run(context, { visitId, onwards, ...place }) {
    const visit = readVisit(context, visitId);
    if (visit.repeat_id === null || visit.repeat_date === null)
      throw new Refusal("not-found", { sentence: "This visit does not come back." });
    const repeat = goesOn(context, visit.repeat_id);
    const told = moveByHand(context, visit, place);
    if (onwards) shiftOn(context, repeat, { ...visit, repeat_date: visit.repeat_date }, place);
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
  sql("DELETE FROM repeat_exceptions WHERE repeat_id = ? AND date = ?").run(id, date);
  insertRow(sql, "repeat_exceptions", {
    repeat_id: id,
    date,
    skip: 0,
    to_date: place.date,
    from_minute: place.fromMinute,
    to_minute: place.toMinute,
  });
}

/** Terms that begin with the visit where it stands now. */
function shiftOn(
  context: OperationContext,
  repeat: RepeatRow,
  visit: VisitRow & { repeat_date: LocalDate },
  { technicianIds, date, fromMinute, toMinute }: Place,
): void {
  const { sql } = context;
  const terms = allTerms(context, repeat);
  const inForce = terms.find(({ until_date }) => visit.repeat_date <= until_date)!;
  const rule = shiftedRule(readRule(inForce.rule), inForce.start_date, visit.repeat_date, date);
  if (!rule)
    throw new Refusal("invalid-input", {
      fields: {
        "/onwards":
          "By this rule it cannot be told which day is meant from now on. Change the rule itself on the repeat’s own page.",
      },
    });
  const other = sql<{ id: number; state: string }>(
    "SELECT id, state FROM visits WHERE repeat_id = ? AND repeat_date = ? AND id <> ?",
  ).get(repeat.id, date, visit.id);
  if (other && other.state !== "forecast")
    throw new Refusal("cannot-be-kept", { sentence: "This repeat has another visit for that day already." });
  if (other) {
    takeOut(context, other.id);
    sql("DELETE FROM visits WHERE id = ?").run(other.id);
  }
  replaceTerms(
    context,
    repeat.id,
    [
      ...termsUpTo(terms, date < visit.repeat_date ? date : visit.repeat_date),
      {
        until_date: farthest,
        start_date: date,
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
