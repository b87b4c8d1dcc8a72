import { type Language, type Said, say } from "./languages";

/** What stands for a merge field: a value, or a list of entries with fields of their own. */
export type FieldValue = string | Said;
export type MergeFields = Record<string, FieldValue | readonly Record<string, FieldValue>[]>;

interface Field {
  /** As the legend names it. */
  about: string;
  /** It may be missing: a text names it only inside a condition, `{{#field}}…{{/field}}`. */
  mayMiss?: true;
  /** A list: the fields of each entry. */
  of?: readonly string[];
}

/** Every merge field, as the legend says it. */
const fieldsKnown = {
  customer: { about: "The customer’s full name" },
  customer_first: { about: "Their first name" },
  business: { about: "The name of your business" },
  phone: { about: "Your phone number" },
  my_link: { about: "The link to their own page" },
  service: { about: "The service" },
  site: { about: "The address of the visit" },
  day: { about: "The day of the visit" },
  window: { about: "The window, short: 9–11" },
  arrival: { about: "The window in words: between 09:00 and 11:00" },
  from: { about: "When the window opens" },
  to: { about: "When the window closes" },
  promise: { about: "“we will be at your door”, as the service is done" },
  comes: { about: "“we are coming”, as the service is done" },
  missed: { about: "“we were at your door and nobody could let us in”, as the service is done" },
  where: { about: "“at 12 Beacon Street”, as the service is done" },
  technician: { about: "Who comes, full name", mayMiss: true },
  technician_first: { about: "Who comes, first name", mayMiss: true },
  technician_initials: { about: "Who comes, initials", mayMiss: true },
  visits: { about: "Every visit that is meant, one after the other", of: ["day", "window", "arrival", "service"] },
  expected: { about: "When we are expected to arrive", mayMiss: true },
  minutes: { about: "By how many minutes we are late" },
  old: { about: "What it was before" },
  reason: { about: "The reason, as you have written it" },
  done: { about: "What was done, from the checklist", mayMiss: true },
  note: { about: "What the technician has noted", mayMiss: true },
  price: { about: "The price" },
  off: { about: "What the coupon takes off, such as 10%", mayMiss: true },
  last_time: { about: "The month in which they had it last", mayMiss: true },
  stop_link: { about: "The link by which they end such messages" },
  invoice: { about: "The invoice’s number" },
  total: { about: "What the invoice comes to" },
  open: { about: "What is open" },
  due: { about: "The due date" },
  others: { about: "Whatever else they owe, in a sentence", mayMiss: true },
  amount: { about: "The amount" },
  card: { about: "The card, such as: card ending 4242" },
  month: { about: "The month in which it expires" },
  sum: { about: "What the quote comes to" },
  instead: { about: "That it takes the place of a booking", mayMiss: true },
  until: { about: "Until when it stands" },
  sent: { about: "When it was sent" },
  words: { about: "What was said with it", mayMiss: true },
  reply: { about: "What one of you has answered" },
  what: { about: "What has happened" },
  who: { about: "Who and where" },
  more: { about: "What else there is to know of it", mayMiss: true },
  stops: { about: "The stops of the day", of: ["window", "service", "site", "who"] },
  left_over: { about: "What is left from yesterday", of: ["service", "site", "who"] },
  figures: { about: "The figures", of: ["name", "value"] },
  needs: { about: "What needs a person", of: ["what"] },
} as const satisfies Record<string, Field>;

export type FieldName = keyof typeof fieldsKnown;
export const fieldOf = (name: string): Field | undefined =>
  Object.hasOwn(fieldsKnown, name) ? fieldsKnown[name as FieldName] : undefined;

/** All values as a template takes them: said in the reader's language, with the forms that names have. */
export function saidFields(fields: MergeFields, language: Language): Record<string, unknown> {
  const said = (value: FieldValue) => say(value, language);
  const entries = Object.entries(fields).map(([name, value]): [string, unknown] => [
    name,
    Array.isArray(value)
      ? (value as readonly Record<string, FieldValue>[]).map((one) =>
          Object.fromEntries(Object.entries(one).map(([key, part]) => [key, said(part)])),
        )
      : said(value as FieldValue),
  ]);
  const values = Object.fromEntries(entries);
  for (const name of ["customer", "technician"])
    if (typeof values[name] === "string") {
      values[`${name}_first`] ??= firstName(values[name]);
      values[`${name}_initials`] ??= initialsOf(values[name]);
    }
  return values;
}

const words = (name: string): string[] => name.trim().split(/\s+/).filter(Boolean);
const firstName = (name: string): string => words(name)[0] ?? "";
const initialsOf = (name: string): string =>
  words(name)
    .map((word) => [...word][0]!.toUpperCase())
    .join("");
