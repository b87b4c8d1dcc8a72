import { jsonColumn } from "@/store/json-column";
import type { Json } from "@/store/rows";
import { type TSchema, Type } from "@sinclair/typebox";
import type { Hogar } from "./hogar";

/** One kind of thing done outside, for one payload: it does it, and takes down what came of it. */
export interface Effect {
  /** False where doing it twice could harm: then an attempt whose end is unknown is left to a person. */
  repeatable: boolean;
  carryOut: (key: string) => Promise<void>;
  /** Until when it is tried (epoch milliseconds). */
  triedUntil: number;
  /** Where nothing more will be tried: it failed, or nobody can say. */
  giveUp: (how: "failed" | "not known") => void;
}

/** What a kind does with a payload as it stands in the outbox, and when it was asked for (epoch milliseconds); throws where that is not of the kind's shape. */
export type EffectKind = (hogar: Hogar, payload: Json, askedAt: number) => Effect;

export const defineEffect = <P>(
  shape: Record<keyof P, TSchema>,
  effect: (hogar: Hogar, payload: P, askedAt: number) => Effect,
): EffectKind => {
  const column = jsonColumn<P>(Type.Object(shape));
  return (hogar, payload, askedAt) => effect(hogar, column.read(payload), askedAt);
};

/** The way to the outside that an effect needs. What was asked for while there was one waits for a person where there is none any more. */
export function opened<G>(gateway: G | null, name: string): G {
  if (gateway === null) throw new Error(`There is no ${name} service`);
  return gateway;
}

/** Tried without an end: its key makes asking again harmless, however long it takes. */
export const always = Number.POSITIVE_INFINITY;

export const nothing = (): void => {};
