import { Refusal } from "@/core/problems";
import { DateText, Id, input, OneOf, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { saveRow } from "@/kernel/rows";
import { Type } from "@sinclair/typebox";

const SaveCoupon = input({
  id: OrNull(Id),
  code: Type.String({
    pattern: "^[A-Za-z0-9-]{3,30}$",
    patternSentence: "Three letters or figures at least, such as SPRING10.",
  }),
  kind: OneOf(["percent", "fixed"]),
  value: Type.Integer({ minimum: 1, maximum: 100_000_000 }),
  /** Empty: all. */
  services: Type.Array(Id, { maxItems: 1000, uniqueItems: true }),
  first: OrNull(DateText),
  last: OrNull(DateText),
  most: OrNull(Type.Integer({ minimum: 1, maximum: 1_000_000 })),
  active: Type.Boolean(),
});

/** A coupon for new bookings. What was booked with it keeps its price. */
export const saveCoupon = defineOperation({
  name: "save-coupon",
  access: "setup.change",
  input: SaveCoupon,
  run(context, { id, code, kind, value, services, first, last, most, active }) {
    const fields: Record<string, string> = {};
    if (kind === "percent" && value > 10_000) fields["/value"] = "Enter at most 100%.";
    if (first && last && last < first) fields["/last"] = "The last day is not before the first.";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
    return {
      id: saveRow(context, "coupons", id, {
        code: code.toUpperCase(),
        kind,
        value,
        services: JSON.stringify(services),
        first_date: first,
        last_date: last,
        most,
        active: active ? 1 : 0,
      }),
    };
  },
});
