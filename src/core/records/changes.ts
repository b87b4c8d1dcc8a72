import { moneyWords } from "../money/amounts";
import { localDate, localOf } from "../time/local";
import { clock, dateWords } from "../time/words";

/** A row before and after a change, as the audit keeps it: null where it was not there. */
export interface RowChange {
  entity: string;
  key: string;
  before: Record<string, unknown> | null;
  after: Record<string, unknown> | null;
}

/** One field of one row, in words. */
export interface FieldChange {
  /** What it belongs to: "visit 12". */
  of: string;
  field: string;
  before: string;
  after: string;
}

export interface Reading {
  currency: string;
  timeZone: string;
}

/** Tables whose rows are called otherwise than the table without its last letter. */
const singular: Record<string, string> = {
  business: "business",
  people: "person",
  time_off: "time off",
  day_hours: "hours of a day",
  opening_hours: "opening hours",
  possible_duplicates: "possible duplicate",
  replies: "reply",
  categories: "category",
  front_door: "front door",
  journal: "journal entry",
};
const entityWords = (entity: string): string => singular[entity] ?? entity.replace(/s$/, "").replaceAll("_", " ");

const moments = /_at$|_until$/;
const minutes = /^(window_from|window_to|arrives|leaves|drive_from|begins|ends|meet_at)$/;

/** A column in words: "window from", "total". */
const fieldWords = (column: string): string =>
  column
    .replace(/_minor$/, "")
    .replace(/_at$/, "")
    .replace(/_id$/, "")
    .replaceAll("_", " ");

/** A value as somebody reads it: money with its currency, moments in the business's time, nothing as a dash. */
function valueWords(column: string, value: unknown, { currency, timeZone }: Reading): string {
  if (value === null || value === undefined || value === "") return "–";
  if (typeof value === "number") {
    if (column.endsWith("_minor")) return moneyWords(value, currency);
    if (moments.test(column) && value > 1e11) return momentWords(Math.floor(value / 60_000), timeZone);
    if (minutes.test(column) && value > 1e6) return momentWords(value, timeZone);
  }
  return typeof value === "object" ? JSON.stringify(value) : String(value);
}

const momentWords = (minute: number, timeZone: string): string =>
  `${dateWords(localDate(minute, timeZone))}, ${clock(localOf(minute, timeZone).minute)}`;

/** What has changed, field by field: of a row that is new or gone, all that it holds. */
export function fieldChanges({ entity, key, before, after }: RowChange, reading: Reading): FieldChange[] {
  const of = `${entityWords(entity)} ${key}`;
  const columns = Object.keys(after ?? before ?? {}).filter((column) => column !== "id");
  return columns
    .filter((column) => JSON.stringify(before?.[column] ?? null) !== JSON.stringify(after?.[column] ?? null))
    .map((column) => ({
      of,
      field: fieldWords(column),
      before: valueWords(column, before?.[column], reading),
      after: valueWords(column, after?.[column], reading),
    }));
}

/** "move-visit" is "Move visit". */
export const operationWords = (name: string): string => {
  const words = name.replaceAll("-", " ");
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** "person 3 Tomas Arden" is "Tomas Arden"; a customer by their link is told as such. */
export const actorInWords = (actor: string): string =>
  actor
    .replace(/^person \d+ /, "")
    .replace(/^customer (\d+) by link (\d+)$/, "Customer $1, by link $2")
    .replace(/^system /, "By itself: ");
