import { epochMinute } from "@/core/time/local";
import { parseClock } from "@/core/time/words";
import { Type } from "@sinclair/typebox";
import { BadInput } from "./read-json";

/** Pieces that the engines' inputs share. */
export const object = <T extends Parameters<typeof Type.Object>[0]>(properties: T) =>
  Type.Object(properties, { additionalProperties: false });
export const Moment = Type.String({ format: "moment" });
export const Count = Type.Integer({ minimum: 0, maximum: 1_000_000_000 });
export const Id = Type.String({ minLength: 1 });
const Level = Type.Integer({ minimum: 1, maximum: 3 });
export const Skill = Type.Union([
  Id,
  object({
    skill: Id,
    level: Type.Optional(Level),
    until: Type.Optional(Type.Union([Type.String({ format: "date" }), Type.Null()])),
  }),
]);
export const Matrix = Type.Array(Type.Array(Count), { minItems: 1 });
export type GivenSkill = string | { skill: string; level?: number; until?: string | null };

export const toSkill = (skill: GivenSkill) => (typeof skill === "string" ? { skill } : skill);

/** The epoch minute of a local time such as 2027-03-01T09:00. */
export const epochOf = (moment: string, zone: string): number =>
  epochMinute(moment.slice(0, 10), parseClock(moment.slice(11))!, zone);

/** An epoch minute as 2027-03-01T09:00:00Z. */
export const inUtc = (epoch: number): string => new Date(epoch * 60_000).toISOString().replace(".000", "");

/** The matrix as a function; refuses one that is not square. */
export function travelBy(matrix: number[][]): (from: number, to: number) => number {
  const odd = matrix.findIndex((row) => row.length !== matrix.length);
  if (odd >= 0)
    throw new BadInput(`travel[${odd}]`, `${matrix[odd]!.length} numbers where there are ${matrix.length} places`);
  return (from, to) => matrix[from]![to]!;
}

export function checkPlace(where: string, place: number, matrix: number[][]): void {
  if (place >= matrix.length) throw new BadInput(where, `there is no place ${place}: travel has ${matrix.length}`);
}

/** Spans must run forward and not overlap. */
export function checkSpans(where: string, spans: readonly (readonly [number, number])[]): void {
  spans.forEach(([open, close], i) => {
    if (close <= open) throw new BadInput(`${where}[${i}]`, "a span ends after it begins");
    if (i > 0 && open < spans[i - 1]![1])
      throw new BadInput(`${where}[${i}]`, "spans come in order and do not overlap");
  });
}

export function checkUnique(where: string, ids: readonly string[]): void {
  const twice = ids.findIndex((id, i) => ids.indexOf(id) !== i);
  if (twice >= 0) throw new BadInput(`${where}[${twice}]`, `“${ids[twice]}” is there twice`);
}
