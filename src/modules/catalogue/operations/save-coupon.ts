import { Refusal } from "@/core/problems";
import { SaveCoupon } from "@/schemas/setup";
import { defineOperation } from "../door";
import { saveRow } from "./rows";

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
