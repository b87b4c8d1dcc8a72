/** What is ticked off on site. */
export interface ChecklistItem {
  id: string;
  words: string;
  /** Must be ticked before the visit is done. */
  required: boolean;
}

/** A visit's own list, as it was when it was agreed, with what of it is done. */
export type TickedItem = ChecklistItem & { done: boolean };

/** The list with these items ticked, and no others. */
export const tick = (list: readonly TickedItem[], done: readonly string[]): TickedItem[] =>
  list.map((item) => ({ ...item, done: done.includes(item.id) }));

/** What must still be ticked before the visit can be done. */
export const missing = (list: readonly TickedItem[]): TickedItem[] =>
  list.filter((item) => item.required && !item.done);
