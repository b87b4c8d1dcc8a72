import type { ChecklistItem } from "@/core/catalogue/checklist";
import type { Item } from "@/core/catalogue/items";
import { Refusal } from "@/core/problems";
import { Id, input, Name, OrNull } from "@/kernel/inputs";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { saveRow } from "@/kernel/rows";
import { checklistColumn, itemsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";
import { type Static, Type } from "@sinclair/typebox";
import { Checklist, Items, itemsOf } from "./inputs";

export type JobPatternRow = Rows["job_patterns"];

export function readJobPattern({ sql }: ViewContext, id: number): JobPatternRow {
  const pattern = sql<JobPatternRow>("SELECT * FROM job_patterns WHERE id = ?").get(id);
  if (!pattern) throw new Refusal("not-found", { sentence: "This job pattern is not there any more." });
  return pattern;
}

/** The services of a pattern with what is answered and added: an order by it. */
export function itemsByPattern(pattern: Pick<JobPatternRow, "id" | "items">): [Item, ...Item[]] {
  const [first, ...others] = itemsColumn.read(pattern.items) as [Item, ...Item[]];
  return [{ ...first, patternId: pattern.id }, ...others];
}

/** Those that can be chosen, by name. */
export const openPatterns = ({ sql }: ViewContext): JobPatternRow[] =>
  sql<JobPatternRow>("SELECT * FROM job_patterns WHERE active = 1 ORDER BY name").all();

/** A pattern as set-up shows it. */
export interface JobPattern {
  id: number;
  name: string;
  items: Item[];
  note: string;
  checklist: ChecklistItem[];
  minutes: number | null;
  crew: number | null;
  active: boolean;
}

export const jobPatterns = ({ sql }: ViewContext): JobPattern[] =>
  sql<JobPatternRow>("SELECT * FROM job_patterns ORDER BY active DESC, name")
    .all()
    .map(({ items, checklist, active, ...pattern }) => ({
      ...pattern,
      items: itemsColumn.read(items),
      checklist: checklistColumn.read(checklist),
      active: active === 1,
    }));

export const SaveJobPattern = input({
  id: OrNull(Id),
  name: Name,
  items: Items,
  note: Type.String({ maxLength: 2000 }),
  checklist: Checklist,
  /** Null: as its services have it. */
  minutes: OrNull(Type.Integer({ minimum: 5, maximum: 1440 })),
  crew: OrNull(Type.Integer({ minimum: 1, maximum: 9 })),
  active: Type.Boolean(),
});
export type SaveJobPattern = Static<typeof SaveJobPattern>;

/** Adds or changes a pattern. What was agreed by it stays; what is only forecast by it follows. */
export function storeJobPattern(context: OperationContext, { id, items, checklist, ...typed }: SaveJobPattern): number {
  refuseOdd(
    context,
    items.map(({ serviceId }) => serviceId),
  );
  return saveRow(context, "job_patterns", id, {
    name: typed.name.trim(),
    items: JSON.stringify(itemsOf(items)),
    note: typed.note.trim(),
    checklist: JSON.stringify(checklist),
    minutes: typed.minutes,
    crew: typed.crew,
    active: typed.active ? 1 : 0,
  });
}

/** A pattern is one visit at one place: no seats, no work of several days, no two places. */
function refuseOdd({ sql }: OperationContext, serviceIds: readonly number[]): void {
  const services = serviceIds.map((id) =>
    sql<Pick<Rows["services"], "name" | "seats" | "days" | "work_place">>(
      "SELECT name, seats, days, work_place FROM services WHERE id = ?",
    ).get(id),
  );
  const odd = services.flatMap((service, i): [string, string][] => {
    const wrong = !service
      ? "This service is not there any more."
      : service.seats > 0
        ? `${service.name} is booked seat by seat: it belongs to no pattern.`
        : service.days > 1
          ? `${service.name} takes several days: it belongs to no pattern.`
          : service.work_place !== services[0]?.work_place
            ? `${service.name} is done at another place than ${services[0]?.name}.`
            : null;
    return wrong ? [[`/items/${i}/serviceId`, wrong]] : [];
  });
  if (odd.length) throw new Refusal("invalid-input", { fields: Object.fromEntries(odd) });
}
