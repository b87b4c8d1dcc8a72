import { Refusal } from "@/core/problems";
import { OddRule, readRule, type Recurrence } from "@/core/repeats/recurrence";
import { Id, input, OrNull } from "@/kernel/inputs";
import { Type } from "@sinclair/typebox";

/** A recurrence rule of RFC 5545. */
export const Rule = Type.String({ minLength: 1, maxLength: 300 });
/** So many days around a date; null is its week. */
export const Leeway = OrNull(Type.Integer({ minimum: 1, maximum: 30 }));
/** Another job pattern every so many dates. */
export const EveryNth = input({ every: Type.Integer({ minimum: 2, maximum: 60 }), patternId: Id });
/** The sealed key of a question whether it is time again. */
export const AskToken = input({ token: Type.String({ maxLength: 100 }) });

export function ruleIn(text: string): Recurrence {
  try {
    return readRule(text);
  } catch (error) {
    if (!(error instanceof OddRule)) throw error;
    throw new Refusal("invalid-input", { fields: { "/rule": error.message } });
  }
}
