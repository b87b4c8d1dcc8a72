import AxeBuilder from "@axe-core/playwright";
import type { Page } from "playwright-core";

/** What axe finds against WCAG 2.2 AA on a page, or within a part of it: the rule, and where. */
export async function findings(page: Page, within = "body"): Promise<string[]> {
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
