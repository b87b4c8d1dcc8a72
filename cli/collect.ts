import { planCollection } from "@/core/money/collecting";
import { parseClock } from "@/core/time/words";
import { type Static, Type } from "@sinclair/typebox";
import { BadInput, readJson } from "./read-json";
import { checkUnique, Count, epochOf, Id, inUtc, Moment, object } from "./shapes";

const Day = Type.String({ format: "date" });

const CollectInput = object({
  timeZone: Type.String({ format: "time-zone" }),
  weekdays: Type.Integer({ minimum: 0, maximum: 127 }),
  time: Type.String({ format: "clock" }),
  daysPastDue: Type.Optional(Type.Integer({ minimum: 0, maximum: 3650 })),
  smallest: Type.Optional(Count),
  now: Moment,
  until: Moment,
  invoices: Type.Array(
    object({
      id: Id,
      open: Count,
      due: Day,
      known: Moment,
      date: Type.Optional(Type.Union([Day, Type.Null()])),
      never: Type.Optional(Type.Boolean()),
    }),
  ),
});
export type CollectInput = Static<typeof CollectInput>;

/** `hogar collect [FILE]`: when what is due is collected and open invoices in; which run takes which out. */
export const collect = ([file]: string[]): void =>
  void process.stdout.write(`${JSON.stringify(answerTo(readJson(file, CollectInput)))}\n`);

/** The same for input that has the right shape. Throws BadInput for what the shape alone cannot tell. */
export function answerTo(input: CollectInput) {
  const { timeZone: zone, weekdays, daysPastDue = 0, smallest = 0, invoices } = input;
  checkUnique(
    "invoices",
    invoices.map(({ id }) => id),
  );
  if (input.until < input.now) throw new BadInput("until", "it is not before now");
  const { runs, left } = planCollection(
    { zone, weekdays, time: parseClock(input.time)!, daysPastDue, smallest },
    invoices.map(({ id, open, due, known, date, never }) => ({
      id,
      openMinor: open,
      due,
      known: epochOf(known, zone),
      date: date ?? undefined,
      never,
    })),
    { now: epochOf(input.now, zone), until: epochOf(input.until, zone) },
  );
  return {
    runs: runs.map(({ at, taken, sumMinor }) => ({
      at: inUtc(at),
      invoices: taken.map(({ id }) => id),
      sum: sumMinor,
    })),
    left: left.map(({ invoice, why }) => ({ id: invoice.id, why })),
  };
}
