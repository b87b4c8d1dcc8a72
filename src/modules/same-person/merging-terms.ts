import type { Channel } from "@/core/messages/purposes";
import { languageNames } from "@/core/messages/languages";
import type { OperationContext } from "@/kernel/operation";
import { type ContactPerson, contactWords } from "@/core/people/contact-persons";
import { contactsColumn, type MergedTerms, mergedTermsColumn } from "@/store/columns";
import { insertOnce } from "@/store/insert";
import type { Rows } from "@/store/rows";

type Customer = Rows["customers"];

/** What is agreed with a customer, in groups of columns that go together, each with what it is where nothing was agreed. */
const groups = {
  "who is billed": { bill_name: "", bill_mail: "", bill_address: "" },
  tax: { tax_kind: "standard", tax_number: "" },
  "days to pay": { payment_days: null, payment_from: "invoice" },
  "how often billed": { billing: null },
  language: { language: null, time_zone: null },
  "how they are reached": { reached_by: "any" },
} as const satisfies Record<string, Partial<Customer>>;

export type TermGroup = keyof typeof groups;
export const termGroups = Object.keys(groups) as TermGroup[];

type Column = { [G in TermGroup]: keyof (typeof groups)[G] }[TermGroup];
const columnsOf = (group: TermGroup) => Object.keys(groups[group]) as Column[];

const isAgreed = (group: TermGroup, customer: Customer): boolean =>
  columnsOf(group).some((column) => customer[column] !== (groups[group] as Partial<Customer>)[column]);

const isSame = (group: TermGroup, one: Customer, other: Customer): boolean =>
  columnsOf(group).every((column) => one[column] === other[column]);

/** What is agreed differently with two, side by side in words; nothing where only one of them has agreed anything. */
export const differingTerms = (one: Customer, other: Customer): { group: TermGroup; words: [string, string] }[] =>
  termGroups
    .filter((group) => isAgreed(group, one) && isAgreed(group, other) && !isSame(group, one, other))
    .map((group) => ({ group, words: [wordsOf[group](one), wordsOf[group](other)] }));

const listed = (...parts: (string | null | false)[]): string => parts.filter(Boolean).join(", ");
const wordsOf: Record<TermGroup, (customer: Customer) => string> = {
  "who is billed": (c) => listed(c.bill_name, c.bill_mail, c.bill_address),
  tax: (c) => listed(c.tax_kind, c.tax_number),
  "days to pay": (c) => listed(c.payment_days !== null && `${c.payment_days} days`, `from the ${c.payment_from}`),
  "how often billed": (c) => (c.billing === "job" ? "each job" : c.billing === "month" ? "by the month" : "by hand"),
  language: (c) => listed(c.language && languageNames[c.language], c.time_zone),
  "how they are reached": (c) => c.reached_by,
};

/**
 * Whoever is kept takes over what was agreed with the other alone, and of what was agreed with both what is named; what
 * one of them did not want, they do not want. Answers how it stood, for `termsBack`.
 */
export function takeTerms(
  { sql }: OperationContext,
  keepId: number,
  goneId: number,
  named: readonly TermGroup[],
): MergedTerms {
  const read = sql<Customer>("SELECT * FROM customers WHERE id = ?");
  const [keep, gone] = [read.get(keepId)!, read.get(goneId)!];
  const taken = termGroups.filter(
    (group) => isAgreed(group, gone) && (!isAgreed(group, keep) || named.includes(group)),
  );
  const set: Partial<Customer> = {
    ...Object.fromEntries(taken.flatMap(columnsOf).map((column) => [column, gone[column]])),
    contacts: contactsColumn.write(together(keep, gone)),
    reminders: Math.min(keep.reminders, gone.reminders) as 0 | 1,
    offers: Math.min(keep.offers, gone.offers) as 0 | 1,
    collect_never: Math.max(keep.collect_never, gone.collect_never) as 0 | 1,
  };
  const columns = (Object.keys(set) as (keyof Customer)[]).filter((column) => keep[column] !== set[column]);
  const write = (values: Partial<Customer>) => {
    for (const column of columns)
      sql(`UPDATE customers SET ${column} = @value WHERE id = @id`).run({ value: values[column], id: keepId });
  };
  write(set);
  const withheld = sql<{ purpose: "reminders" | "offers"; channel: Channel }>(
    "SELECT purpose, channel FROM withheld WHERE customer_id = ?",
  )
    .all(goneId)
    .filter((wish) => insertOnce(sql, "withheld", { customer_id: keepId, ...wish }) !== null);
  return {
    columns: Object.fromEntries(columns.map((column) => [column, [keep[column], set[column] ?? null]])),
    withheld,
  };
}

/** Those of both, each once. */
const together = (...of: Customer[]): ContactPerson[] => [
  ...new Map(of.flatMap((one) => contactsColumn.read(one.contacts)).map((one) => [contactWords(one), one])).values(),
];

/** Sets back what was taken over, where it has not been changed since. */
export function termsBack({ sql }: OperationContext, keepId: number, stored: string): void {
  const { columns, withheld } = mergedTermsColumn.read(stored);
  const known = new Set<string>([...termGroups.flatMap(columnsOf), "contacts", "reminders", "offers", "collect_never"]);
  for (const [column, [before, after]] of Object.entries(columns))
    if (known.has(column))
      sql(`UPDATE customers SET ${column} = @before WHERE id = @keepId AND ${column} IS @after`).run({
        before,
        after,
        keepId,
      });
  for (const { purpose, channel } of withheld)
    sql("DELETE FROM withheld WHERE customer_id = ? AND purpose = ? AND channel = ?").run(keepId, purpose, channel);
}
