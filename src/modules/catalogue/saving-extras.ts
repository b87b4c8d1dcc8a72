import { Id, input, Money, Name, OrNull } from "@/kernel/inputs";
import type { OperationContext } from "@/kernel/operation";
import { saveRow } from "@/kernel/rows";
import { type Static, Type } from "@sinclair/typebox";

export const SaveExtra = input({
  id: OrNull(Id),
  name: Name,
  unit: Type.String({ minLength: 1, maxLength: 20 }),
  priceMinor: Money,
  costMinor: Money,
  taxBp: Type.Integer({ minimum: 0, maximum: 10_000 }),
  active: Type.Boolean(),
});
export type SaveExtra = Static<typeof SaveExtra>;

/** Adds or changes an extra. */
export const storeExtra = (context: OperationContext, extra: SaveExtra): { id: number } => ({
  id: saveRow(context, "extras", extra.id, {
    name: extra.name.trim(),
    unit: extra.unit.trim(),
    price_minor: extra.priceMinor,
    cost_minor: extra.costMinor,
    tax_bp: extra.taxBp,
    active: extra.active ? 1 : 0,
  }),
});
