import { type Agreement, agreementOf, harsher } from "@/core/catalogue/agreement";
import { moneyWords } from "@/core/money/amounts";
import type { PricedOrder } from "@/core/catalogue/order";
import { Refusal } from "@/core/problems";
import { input, Money } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { type ItemRow, termsOf } from "@/modules/catalogue/catalogue";
import { Type } from "@sinclair/typebox";

const Hours = Type.Integer({ minimum: 0, maximum: 8_760 });
/** What was read before somebody books: nothing dearer or stricter than this is booked. */
export const AgreementRead = Type.Unsafe<Agreement>(
  input({
    totalMinor: Money,
    nowMinor: Money,
    moveHours: Hours,
    cancelHours: Hours,
    items: Type.Array(
      input({
        name: Type.String({ maxLength: 200 }),
        totalMinor: Money,
        noAccessMinor: Money,
        late: input({
          hours: Hours,
          kind: Type.Union([Type.Literal("none"), Type.Literal("percent"), Type.Literal("fixed")]),
          value: Type.Integer({ minimum: 0, maximum: 100_000_000 }),
        }),
      }),
      { minItems: 1, maxItems: 12 },
    ),
    words: Type.String({ maxLength: 8_000 }),
  }),
);

/** What booking an order means as things stand. */
export const agreementNow = (
  { business: b }: ViewContext,
  items: readonly ItemRow[],
  order: Pick<PricedOrder, "totalMinor" | "items">,
  nowMinor: number,
): Agreement =>
  agreementOf(
    { moveHours: b.move_hours, cancelHours: b.cancel_hours, lateMoves: b.late_moves, terms: b.terms },
    {
      items: items.map(({ service }, i) => ({
        name: service.name,
        ...termsOf(service),
        totalMinor: order.items[i]!.totalMinor,
      })),
      totalMinor: order.totalMinor,
      nowMinor,
    },
  );

/** Nobody agrees to anything dearer or stricter than what they have read: it is asked anew, with old and new side by side. */
export function mustBeAsRead(context: ViewContext, read: Agreement | undefined, now: Agreement): void {
  if (!read) return;
  const changes = harsher(read, now, (minor) => moneyWords(minor, context.business.currency));
  if (changes.length) throw new Refusal("terms-changed", { details: { changes } });
}
