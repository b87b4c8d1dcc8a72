import { type FallRule, messagesOf } from "@/core/messages/falling";
import { parseClock } from "@/core/time/words";
import { type Static, Type } from "@sinclair/typebox";
import { BadInput, readJson } from "./read-json";
import { checkUnique, epochOf, Id, inUtc, Moment, object } from "./shapes";

const Clock = Type.String({ format: "clock" });
const Outside = Type.Optional(Type.Union((["earlier", "later", "drop"] as const).map((way) => Type.Literal(way))));

const RemindInput = object({
  timeZone: Type.String({ format: "time-zone" }),
  hours: Type.Tuple([Clock, Clock]),
  rules: Type.Array(
    object({
      id: Id,
      daysBefore: Type.Optional(Type.Integer({ minimum: 0, maximum: 3650 })),
      at: Type.Optional(Clock),
      hoursBefore: Type.Optional(Type.Number({ minimum: 0, maximum: 87_600 })),
      outside: Outside,
    }),
  ),
  visits: Type.Array(
    object({
      id: Id,
      customer: Id,
      from: Moment,
      told: Moment,
      cancelled: Type.Optional(Type.Union([Moment, Type.Null()])),
      moved: Type.Optional(Type.Array(object({ at: Moment, from: Moment }))),
    }),
  ),
  now: Moment,
  until: Moment,
});
export type RemindInput = Static<typeof RemindInput>;

/** `hogar remind [FILE]`: visits as they were promised and rules in; when each message falls, and what is dropped, out. */
export const remind = ([file]: string[]): void =>
  void process.stdout.write(`${JSON.stringify(answerTo(readJson(file, RemindInput)))}\n`);

/** The same for input that has the right shape. Throws BadInput for what the shape alone cannot tell. */
export function answerTo(input: RemindInput) {
  const { timeZone: zone } = input;
  const at = (moment: string) => epochOf(moment, zone);
  const [from, to] = input.hours.map((clock) => parseClock(clock)!) as [number, number];
  if (to <= from) throw new BadInput("hours", "they end after they begin");
  checkUnique(
    "rules",
    input.rules.map(({ id }) => id),
  );
  checkUnique(
    "visits",
    input.visits.map(({ id }) => id),
  );
  const { messages, dropped } = messagesOf(
    input.visits.map(({ cancelled, moved, ...visit }) => ({
      ...visit,
      from: at(visit.from),
      told: at(visit.told),
      cancelled: cancelled ? at(cancelled) : null,
      moved: moved?.map((move) => ({ at: at(move.at), from: at(move.from) })),
    })),
    { zone, hours: { from, to }, rules: input.rules.map(ruleOf), now: at(input.now), until: at(input.until) },
  );
  return {
    messages: messages.map(({ at, from, with: others, ...message }) => ({
      ...message,
      at: inUtc(at),
      from: inUtc(from),
      ...(others.length > 0 && { with: others }),
    })),
    dropped,
  };
}

function ruleOf({ id, daysBefore, at, hoursBefore, outside }: RemindInput["rules"][number], i: number): FallRule {
  const where = `rules[${i}]`;
  if ((daysBefore === undefined) === (hoursBefore === undefined))
    throw new BadInput(where, "either “daysBefore” with “at”, or “hoursBefore”");
  if (hoursBefore !== undefined) return { id, outside, minutesBefore: Math.round(hoursBefore * 60) };
  if (at === undefined) throw new BadInput(where, "“at” is missing");
  return { id, outside, daysBefore: daysBefore!, at: parseClock(at)! };
}
