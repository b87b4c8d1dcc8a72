import { Refusal } from "@/core/problems";
import { onClosedWays } from "@/core/repeats/coming";
import { canCountFromVisits, countedFromVisitsWords } from "@/core/repeats/counted";
import { beginsAfter } from "@/core/repeats/gaps";
import { firstFrom } from "@/core/repeats/left";
import { datesOfRule, readRule, type Recurrence, ruleText } from "@/core/repeats/recurrence";
import { addDays, type LocalDate } from "@/core/time/dates";
import { EndMinute, DateText, Id, input, MinuteOfDay, OneOf, OrNull } from "@/kernel/inputs";
import type { OperationContext } from "@/kernel/operation";
import { type Static, Type } from "@sinclair/typebox";
import { Rule, ruleIn } from "./inputs";
import { promisedFrom, takeAlong } from "./promised-along";
import { goesOn, laidOut } from "./repeats";
import { allTerms, farthest, replaceTerms, type RepeatRow, termsUpTo } from "./terms";
import { agreedTogether, layOutSoon } from "./together";
import { asItStands } from "./undoing";

export const ChangeRepeat = input({
  repeatId: Id,
  /** From this day on; the rule begins with its first date from here. */
  from: DateText,
  rule: Rule,
  fromMinute: MinuteOfDay,
  toMinute: EndMinute,
  technicianId: OrNull(Id),
  onClosed: OneOf(onClosedWays),
  /** What is promised from that day on: stays, and the new terms begin after it (as long as nothing is said); or moves along, and is told. */
  promised: Type.Optional(OneOf(["stays", "moves"])),
  /** Those that were agreed together with it too; each keeps its window. */
  together: Type.Optional(Type.Boolean()),
  /** The change of many that this is a part of. */
  batchId: Type.Optional(Id),
});

/** Gives a repeat other terms as `change-repeat` says. Answers whether anybody was told, and how many dates lie ahead. */
export function changeTerms(
  context: OperationContext,
  {
    repeatId,
    from,
    rule: text,
    fromMinute,
    toMinute,
    technicianId,
    onClosed,
    together,
    batchId,
    promised,
  }: Static<typeof ChangeRepeat>,
): { told: boolean; forecasts: number } {
  const { today } = context;
  const repeat = goesOn(context, repeatId);
  const rule = ruleIn(text);
  const wrong: Record<string, string> | null =
    from <= today
      ? { "/from": "Choose a day after today: what was, stays." }
      : toMinute < fromMinute
        ? { "/toMinute": "A window ends after it begins." }
        : null;
  if (wrong) throw new Refusal("invalid-input", { fields: wrong });
  if (repeat.counted === "done" && !canCountFromVisits(rule))
    throw new Refusal("invalid-input", { fields: { "/rule": countedFromVisitsWords } });
  const anew = (one: RepeatRow, window: Pick<RepeatRow, "from_minute" | "to_minute">): boolean => {
    const before = asItStands(context, one);
    const visits = promisedFrom(context, one.id, from);
    const begins = promised === "moves" ? from : beginsFrom(context, one, rule, from);
    const start = firstFrom({ ...rule, count: null }, begins, begins);
    if (!start) throw new Refusal("invalid-input", { fields: { "/rule": "This rule has no date from that day on." } });
    const then = {
      ...window,
      until_date: farthest,
      start_date: start,
      rule: ruleText(rule),
      technician_id: technicianId,
      on_closed: onClosed,
    };
    replaceTerms(context, one.id, [...termsUpTo(before.terms, begins), then], before, batchId);
    if (promised !== "moves" || !visits.length) return false;
    const dates = datesOfRule(rule, start, start, addDays(start, 3660), visits.length);
    if (dates.length < visits.length)
      throw new Refusal("invalid-input", {
        fields: { "/rule": `${visits.length} visits are promised from that day on: this rule has fewer dates.` },
      });
    return takeAlong(context, one.id, visits, dates);
  };
  let told = anew(repeat, { from_minute: fromMinute, to_minute: toMinute });
  for (const one of together ? agreedTogether(context, repeat) : []) {
    told = anew(one, one) || told;
    layOutSoon(context, one.id);
  }
  return { told, ...laidOut(context, repeatId) };
}

/** The day from which new terms count where what is promised stays: the one that is wished for, or one after the last promise. */
function beginsFrom(context: OperationContext, repeat: RepeatRow, rule: Recurrence, from: LocalDate): LocalDate {
  const last = promisedFrom(context, repeat.id, from).at(-1)?.repeat_date;
  if (!last) return from;
  const terms = allTerms(context, repeat);
  const old = terms.find(({ until_date }) => last <= until_date)!;
  const after = beginsAfter(last, { rule: readRule(old.rule), start: old.start_date }, { rule, start: from });
  return after > from ? after : from;
}
