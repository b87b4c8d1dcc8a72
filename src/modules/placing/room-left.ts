import type { LocalDate } from "@/core/time/dates";
import { fillUp } from "@/core/windows/filling";
import type { PromiseWindow } from "@/core/windows/promise-window";
import type { VisitToPlace } from "@/core/windows/visit-to-place";
import type { WindowsQuestion } from "@/core/windows/question";
import type { ViewContext } from "@/kernel/operation";
import { questionFor } from "./windows";

/** For which of these visits there is room on the dates, if all of them came: the window each would have, after those before it. */
export const roomLeft = (
  context: ViewContext,
  visits: readonly VisitToPlace[],
  dates: readonly LocalDate[],
): (PromiseWindow | null)[] => fillUp(asked(context, visits, dates));

function* asked(
  context: ViewContext,
  visits: readonly VisitToPlace[],
  dates: readonly LocalDate[],
): Generator<WindowsQuestion> {
  for (const visit of visits) yield questionFor(context, visit, dates);
}
