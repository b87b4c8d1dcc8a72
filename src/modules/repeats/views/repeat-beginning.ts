import { Refusal } from "@/core/problems";
import type { Comes } from "@/core/repeats/flexible";
import { addDays } from "@/core/time/dates";
import { Id, input } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { itemsByPattern, openPatterns } from "@/modules/catalogue/job-patterns";

/** What a repeat with a customer is agreed from: their sites, the services that can come back, and who could come. */
export const repeatBeginning = defineView({
  name: "repeat-beginning",
  access: "board.change",
  about: { customerId: "customer" },
  input: input({ customerId: Id }),
  read(context, { customerId }) {
    const { sql, today } = context;
    const sites = sql<{ id: number; line: string }>(
      "SELECT id, line FROM sites WHERE customer_id = ? AND archived_at IS NULL ORDER BY id",
    ).all(customerId);
    if (sites.length === 0) throw new Refusal("not-found", { sentence: "Give this customer a site first." });
    return {
      tomorrow: addDays(today, 1),
      sites,
      services: sql<{ id: number; name: string; comes: Comes }>(
        "SELECT id, name, comes FROM services WHERE active = 1 AND seats = 0 AND days = 1 ORDER BY category, position, name",
      ).all(),
      patterns: openPatterns(context).map((pattern) => ({
        id: pattern.id,
        name: pattern.name,
        items: itemsByPattern(pattern),
      })),
      technicians: sql<{ id: number; name: string }>(
        "SELECT id, name FROM technicians WHERE active = 1 ORDER BY position, id",
      ).all(),
    };
  },
});
