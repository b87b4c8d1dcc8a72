import AxeBuilder from "@axe-core/playwright";
import type { Page } from "playwright-core";

/** What axe finds against WCAG 2.2 AA on a page, or within a part of it: the rule, and where. */
export async function findings(page: Page, within = "body"): Promise<string[]> {
  await Promise.all(page.frames().map((frame) => frame.evaluate(untilAtRest).catch(() => {})));
  const { violations } = await new AxeBuilder({ page: page as never })
    // All in the page itself: the other way opens a page of its own for each look.
    .setLegacyMode(true)
    .include(within)
    .options({ resultTypes: ["violations"], runOnly: ["wcag2a", "wcag2aa", "wcag21aa", "wcag22aa"] })
    .analyze();
  return violations.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(" "))
        .slice(0, 3)
        .join(", ")}`,
  );
}

/** Colours on their way from one to another are nobody's: what has an end is waited for. */
async function untilAtRest(): Promise<void> {
  const ending = document.getAnimations().filter(({ effect }) => Number.isFinite(effect?.getComputedTiming().endTime));
  await Promise.allSettled(ending.map(({ finished }) => finished));
}
