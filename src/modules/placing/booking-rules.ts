import { Refusal } from "@/core/problems";
import type { OperationContext } from "@/kernel/operation";
import { saveLimits } from "@/kernel/rows";
import type { SaveBookingRules } from "@/modules/catalogue/inputs";
import { businessPattern, refuseOddWindows, savePattern } from "@/modules/catalogue/window-patterns";

/** The business's windows, notice, horizon and limits from now on. */
export function changeBookingRules(context: OperationContext, rules: SaveBookingRules): void {
  const { sql } = context;
  refuseOddWindows(rules.windows);
  if (rules.capacity === "count" && rules.limits && rules.limits.window === null)
    throw new Refusal("invalid-input", {
      fields: { "/limits/window": "Capacity by count needs a number of visits per window." },
    });
  savePattern(context, businessPattern, rules.windows);
  sql(
    `UPDATE business
      SET notice_minutes = ?, horizon_days = ?, hold_minutes = ?, capacity = coalesce(?, capacity),
        forecast_room = coalesce(?, forecast_room), outside = coalesce(?, outside),
        move_hours = coalesce(?, move_hours), cancel_hours = coalesce(?, cancel_hours),
        late_moves = coalesce(?, late_moves), on_our_way_bp = coalesce(?, on_our_way_bp),
        repeat_months = coalesce(?, repeat_months), promise_days = coalesce(?, promise_days),
        ask_days = coalesce(?, ask_days), ask_again_days = coalesce(?, ask_again_days)`,
  ).run(
    rules.noticeMinutes,
    rules.horizonDays,
    rules.holdMinutes,
    rules.capacity ?? null,
    rules.forecastRoom ?? null,
    rules.outside ?? null,
    rules.moveHours ?? null,
    rules.cancelHours ?? null,
    rules.lateMoves ?? null,
    rules.onOurWayBp ?? null,
    rules.repeatMonths ?? null,
    rules.promiseDays ?? null,
    rules.askDays ?? null,
    rules.askAgainDays ?? null,
  );
  if (rules.limits) saveLimits(context, "business", 0, rules.limits);
}
