import { Refusal } from "@/core/problems";
import type { OperationContext } from "@/kernel/operation";
import { saveLimits } from "@/kernel/rows";
import type { SaveBookingRules } from "@/modules/catalogue/inputs";
import { businessPattern, refuseOddWindows, savePattern } from "@/modules/catalogue/window-patterns";
import { saveSettings } from "@/kernel/settings";

/** The business's windows, notice, horizon and limits from now on. */
export function changeBookingRules(context: OperationContext, rules: SaveBookingRules): void {
  refuseOddWindows(rules.windows);
  if (rules.capacity === "count" && rules.limits && rules.limits.window === null)
    throw new Refusal("invalid-input", {
      fields: { "/limits/window": "Capacity by count needs a number of visits per window." },
    });
  savePattern(context, businessPattern, rules.windows);
  saveSettings(context, {
    notice_minutes: rules.noticeMinutes,
    horizon_days: rules.horizonDays,
    hold_minutes: rules.holdMinutes,
    capacity: rules.capacity,
    forecast_room: rules.forecastRoom,
    outside: rules.outside,
    move_hours: rules.moveHours,
    cancel_hours: rules.cancelHours,
    late_moves: rules.lateMoves,
    on_our_way_bp: rules.onOurWayBp,
    repeat_months: rules.repeatMonths,
    promise_days: rules.promiseDays,
    ask_days: rules.askDays,
    ask_again_days: rules.askAgainDays,
  });
  if (rules.limits) saveLimits(context, "business", 0, rules.limits);
}
