import { Refusal } from "@/core/problems";
import { oddGaps } from "@/core/repeats/gaps";
import { readRule } from "@/core/repeats/recurrence";
import { type Along, waysToShift } from "@/core/repeats/shift";
import { addDays, type LocalDate } from "@/core/time/dates";
import { input } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { rehearse } from "@/kernel/rehearse";
import { defineView } from "@/kernel/view";
import { readVisit } from "@/modules/placing/visits";
import { Type } from "@sinclair/typebox";
import { datesAhead, visitsOfRepeat } from "../dates-ahead";
import { ChangeRepeat, changeTerms } from "../changing";
import { MoveRepeatVisit, moveVisitOfRepeat } from "../moving";
import { readRepeat } from "../repeats";
import { allTerms } from "../terms";

/** So many days after today are looked at. */
const lookedAt = 120;

/** What a change of a repeat, or moving one of its visits, would do, before it is done: promised visits that move, where somebody is visited twice in one turn or left out of one, which of its days can be meant, and what stands against it. */
export const changeAhead = defineView({
  name: "repeat-change-ahead",
  access: "board.change",
  about: {
    "move.visitId": "visit",
    "move.technicianIds": "shared",
    "change.repeatId": "repeat",
    "change.technicianId": "shared",
    "change.batchId": "shared",
  },
  input: input({ move: Type.Optional(MoveRepeatVisit), change: Type.Optional(ChangeRepeat) }),
  read(context, { move, change }) {
    const repeatId = change ? change.repeatId : move && readVisit(context, move.visitId).repeat_id;
    if (!repeatId) throw new Refusal("not-found");
    const before = standing(context, repeatId);
    const nothing = { odd: [], moved: [], ways: waysOf(context, repeatId, move) };
    try {
      const after = rehearse(
        context,
        (trial) => (change ? changeTerms(trial, change) : moveVisitOfRepeat(trial, move!)),
        (rehearsed) => standing(rehearsed, repeatId),
      );
      const known = new Set(before.odd.map((gap) => JSON.stringify(gap)));
      return {
        ...nothing,
        problem: null,
        odd: after.odd.filter((gap) => !known.has(JSON.stringify(gap))),
        moved: [...before.promised].flatMap(([id, from]) => {
          const to = after.promised.get(id);
          return to && to !== from ? [{ from, to }] : [];
        }),
      };
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      const { sentence, fields } = error.problem;
      return { ...nothing, problem: fields ? Object.values(fields).join(" ") : sentence };
    }
  },
});

/** The days on which somebody comes, where they are odd by the terms in force, and those that are promised. */
function standing(context: ViewContext, repeatId: number) {
  const repeat = readRepeat(context, repeatId);
  const last = addDays(context.today, lookedAt);
  const visits = visitsOfRepeat(context, repeatId).filter(({ state }) => state !== "cancelled");
  const past = visits.filter(({ day }) => day <= context.today).slice(-1);
  const ahead = datesAhead(context, repeat).flatMap(({ day, state }) => (day && state !== "cancelled" ? [day] : []));
  const days = [...new Set([...past.map(({ day }) => day), ...ahead])].filter((day) => day <= last).sort();
  return {
    odd: oddGaps({ rule: readRule(repeat.rule), start: repeat.start_date }, days),
    promised: new Map(
      visits.flatMap(({ id, day, state }): [number, LocalDate][] => (state === "promised" ? [[id, day]] : [])),
    ),
  };
}

/** Which others of its dates can move along with a visit, by its rule. */
function waysOf(context: ViewContext, repeatId: number, move: (typeof MoveRepeatVisit)["static"] | undefined): Along[] {
  const date = move && readVisit(context, move.visitId).repeat_date;
  if (!date || move.which === "this") return [];
  const terms = allTerms(context, readRepeat(context, repeatId)).find(({ until_date }) => date <= until_date)!;
  return waysToShift(readRule(terms.rule), terms.start_date, date, move.date);
}
