import type { Item } from "@/core/catalogue/items";
import type { ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";

/** What the owner has said to be printed on papers of a kind, above or below the lines: with all of them, then by service. */
export const wordsOf = (
  { sql }: ViewContext,
  paper: Rows["text_blocks"]["paper"],
  place: Rows["text_blocks"]["place"],
  serviceIds: readonly number[] = [],
): string[] =>
  sql<Pick<Rows["text_blocks"], "words">>(
    `SELECT words FROM text_blocks
      WHERE paper = @paper AND place = @place
        AND (service_id IS NULL OR service_id IN (SELECT value FROM json_each(@serviceIds)))
      ORDER BY service_id IS NOT NULL, id`,
  )
    .all({ paper, place, serviceIds: JSON.stringify(serviceIds) })
    .map(({ words }) => words);

export const serviceIdsOf = (items: readonly Pick<Item, "serviceId">[]): number[] => [
  ...new Set(items.map(({ serviceId }) => serviceId)),
];
