import { Refusal } from "@/core/problems";
import type { PatternPart } from "@/core/windows/patterns";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import type { SaveBookingRules } from "./inputs";

/** The pattern of every service that has none of its own. */
export const businessPattern = 1;

export function refuseOddWindows(parts: SaveBookingRules["windows"]): void {
  const fields: Record<string, string> = {};
  for (const [i, part] of parts.entries()) {
    // An exact time may be the only one of its day.
    if (part.to < part.from || (part.to === part.from && part.kind !== "exact"))
      fields[`/windows/${i}`] = "A window ends after it begins.";
    else if (part.to > part.from + 1440) fields[`/windows/${i}`] = "A window is a day long at the most.";
    else if (part.kind === "stepping" && part.length > part.to - part.from)
      fields[`/windows/${i}`] = "Not even one window of that length fits in here.";
    const twice = parts.some(
      (o, k) =>
        k < i && o.kind === part.kind && o.from === part.from && o.to === part.to && (o.weekdays & part.weekdays) !== 0,
    );
    if (twice) fields[`/windows/${i}`] = "This window is there twice.";
  }
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
}

export function savePattern({ sql }: OperationContext, id: number, parts: SaveBookingRules["windows"]): void {
  sql("DELETE FROM pattern_parts WHERE pattern_id = ?").run(id);
  for (const [i, part] of parts.entries())
    insertRow(sql, "pattern_parts", {
      pattern_id: id,
      position: i,
      kind: part.kind,
      weekdays: part.weekdays,
      from_minute: part.from,
      to_minute: part.to,
      length: "length" in part ? part.length : null,
      step: "step" in part ? part.step : null,
    });
}

/** A service's own windows; null goes back to those of the business. */
export function saveOwnWindows(
  context: OperationContext,
  serviceId: number,
  name: string,
  parts: SaveBookingRules["windows"] | null,
): void {
  const { sql } = context;
  const own = sql<{ pattern_id: number | null }>("SELECT pattern_id FROM services WHERE id = ?").get(
    serviceId,
  )!.pattern_id;
  if (parts) {
    const id = own ?? insertRow(sql, "patterns", { name: `Windows of ${name} (${serviceId})` });
    savePattern(context, id, parts);
    sql("UPDATE services SET pattern_id = ? WHERE id = ?").run(id, serviceId);
  } else if (own !== null) {
    sql("UPDATE services SET pattern_id = NULL WHERE id = ?").run(serviceId);
    sql("DELETE FROM patterns WHERE id = ?").run(own);
  }
}

/** The window pattern of services: that of the first which has its own, or the business's. */
export function readPattern({ sql }: ViewContext, serviceIds: readonly number[] = []): PatternPart[] {
  const own = serviceIds
    .map((id) => sql<{ pattern_id: number | null }>("SELECT pattern_id FROM services WHERE id = ?").get(id)?.pattern_id)
    .find((id) => id != null);
  return sql<{
    kind: PatternPart["kind"];
    weekdays: number;
    from: number;
    to: number;
    length: number | null;
    step: number | null;
  }>(
    `SELECT kind, weekdays, from_minute AS "from", to_minute AS "to", length, step FROM pattern_parts
     WHERE pattern_id = ? ORDER BY position`,
  )
    .all(own ?? 1)
    .map(
      ({ length, step, ...part }) =>
        ({ ...part, ...(length !== null && { length }), ...(step !== null && { step }) }) as PatternPart,
    );
}
