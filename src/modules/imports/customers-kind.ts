import { type CustomerDraft, customerOf } from "@/core/imports/customer-row";
import type { Columns } from "@/core/imports/match-columns";
import { phoneKey } from "@/core/people/phones";
import { dateWords } from "@/core/time/words";
import { epochMinute } from "@/core/time/local";
import { Refusal } from "@/core/problems";
import { tidy } from "@/core/words";
import type { Address } from "@/gateways/types";
import type { OperationContext, ViewContext } from "@/kernel/operation";
import { storeSite } from "@/modules/customers/customers";
import { addTag, storeCustomer } from "@/modules/customers/storing";
import { findSame } from "@/modules/customers/same-person";
import { addressAt } from "@/modules/place/addresses";
import { zoneOf } from "@/modules/place/zones";
import type { Rows } from "@/store/rows";
import { contactWords } from "@/core/people/contact-persons";
import { contactsColumn } from "@/store/columns";
import type { Done } from "@/store/columns";
import type { KindOfImport } from "./kind";
import { changeCustomer, removeTag, removeUnused, removeUnusedSite } from "@/modules/customers/customers";

type Values = Record<string, string>;
const read = ({ business }: ViewContext, values: Values, { dates }: Columns) =>
  customerOf(values, { dates, ownPhone: business.phone });

export const customersKind: KindOfImport = {
  check(context, values, columns) {
    const { draft, problems } = read(context, values, columns);
    const address = addressOfDraft(context, draft);
    if (draft.site && !address)
      problems.push({
        field: draft.site.postcode ? "postcode" : "line",
        sentence: `“${[draft.site.line, draft.site.postcode].filter(Boolean).join(", ")}” is not found on the map. Correct it, or empty it to import without a site.`,
      });
    const places = address ? [`${address.line}, ${address.postcode}`] : [];
    const { same, possible } = findSame(context, { ...draft, places });
    return {
      problems,
      same: same ? { id: same.id, certain: true } : possible[0] ? { id: possible[0], certain: false } : null,
    };
  },

  keys(context, values, columns) {
    const { draft } = read(context, values, columns);
    const name = draft.name.toLowerCase();
    const reached = [draft.mail.toLowerCase(), draft.phone && phoneKey(draft.phone, context.business.phone)].filter(
      Boolean,
    );
    return {
      // Whoever has neither email nor phone is told apart by the name alone.
      certain: reached.length ? reached.map((way) => `${name} = ${way}`) : [name],
      likely: reached,
    };
  },

  take(context, values, columns, joined) {
    const { draft } = read(context, values, columns);
    return joined === null ? make(context, draft) : join(context, draft, joined);
  },

  undo(context, done) {
    return done.made ? removeUnused(context, done.id) : unjoin(context, done);
  },

  words(context, values, columns) {
    const { draft } = read(context, values, columns);
    const address = addressOfDraft(context, draft);
    const alike = addressesAlike(context, draft);
    const zone = address ? (zoneOf(context, address)?.name ?? "outside our zones") : "";
    return {
      name: draft.name,
      details: [
        draft.phone,
        draft.mail,
        address ? `${address.line}, ${address.postcode} (${zone})` : "",
        alike.length ? `the look-up knows: ${alike.join("; ")}` : "",
        draft.tags.length ? `tags: ${draft.tags.join(", ")}` : "",
        draft.bill ? `bills to ${draft.bill.name}` : "",
        ...draft.contacts.map(contactWords),
        draft.since ? `since ${dateWords(draft.since)}` : "",
      ].filter(Boolean),
    };
  },

  known({ sql }, id) {
    const known = sql<{ name: string; phone: string; mail: string; place: string | null }>(
      `SELECT name, phone, mail,
          (SELECT group_concat(line || ', ' || postcode, ' · ') FROM sites WHERE customer_id = c.id) AS place
        FROM customers c WHERE id = ?`,
    ).get(id);
    return known ? { name: known.name, details: [known.phone, known.mail, known.place ?? ""].filter(Boolean) } : null;
  },
};

/** Where the site of a row lies: as the look-up knows exactly this address, or as exactly as can be said of what was written; null where it cannot. */
function addressOfDraft(context: ViewContext, { site }: CustomerDraft): Address | null {
  if (!site) return null;
  const line = lineOf(site);
  // A whole address in one column is found by all that stands there. Another number or street is another house.
  const exact = context.hogar.gateways.places
    .suggest(`${line} ${site.postcode}`, mostAlike)
    .filter((found) => isThisAddress(found, site));
  if (exact.length === 1) return exact[0]!;
  return site.postcode ? addressAt(context, { line, postcode: site.postcode }) : null;
}

const mostAlike = 12;
type DraftSite = NonNullable<CustomerDraft["site"]>;

const lineOf = ({ town, line }: DraftSite): string => (town && !line.includes(town) ? `${line}, ${town}` : line);

/** Whether an address of the look-up is the one that was written: every word of its line, and nothing more but its postcode and town. */
function isThisAddress(found: Address, site: DraftSite): boolean {
  const words = (text: string) => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  const [written, line] = [words(lineOf(site)), words(found.line)];
  const besides = new Set([
    ...words(found.postcode),
    ...words(found.postcode.replace(/\s/g, "")),
    ...words(found.town ?? ""),
  ]);
  const isPostcode = !site.postcode || words(site.postcode).join("") === words(found.postcode).join("");
  const isLine = written.slice(0, line.length).join(" ") === line.join(" ");
  return isPostcode && isLine && written.slice(line.length).every((word) => besides.has(word));
}

/** What the look-up has in place of an address that it does not know, for a person who compares. */
function addressesAlike(context: ViewContext, { site }: CustomerDraft): string[] {
  if (!site || addressOfDraft(context, { site } as CustomerDraft)?.line !== lineOf(site)) return [];
  const [number = "", ...rest] = lineOf(site).split(" ");
  const street = /^\d/.test(number) ? rest.join(" ") : lineOf(site);
  return context.hogar.gateways.places
    .suggest(`${street} ${site.postcode}`, 3)
    .filter((found) => !isThisAddress(found, site))
    .map(({ line, postcode }) => `${line}, ${postcode}`);
}

function make(context: OperationContext, draft: CustomerDraft): Done {
  const { name, mail, phone, reachedBy, tags, source, paymentDays, technicianNote, insideNote, bill } = draft;
  const { since, reminders, offers, billing, paymentFrom, taxKind, taxNumber, language, contacts } = draft;
  const id = storeCustomer(context, {
    ...{ name, mail, phone, reachedBy, tags, source, paymentDays, technicianNote, insideNote, bill, contacts },
    id: null,
    billing: { by: billing, paymentFrom: paymentFrom ?? "invoice", taxKind: taxKind ?? "standard", taxNumber },
    reminders: reminders ?? false,
    offers: offers ?? false,
  });
  changeCustomer(context, id, {
    ...(language && { language }),
    ...(since && { since_at: epochMinute(since, 0, context.business.time_zone) * 60_000 }),
  });
  addSite(context, id, draft);
  return { id, made: true };
}

function addSite(context: OperationContext, customerId: number, draft: CustomerDraft): number | null {
  const address = addressOfDraft(context, draft);
  if (!address || !draft.site) return null;
  const known = context
    .sql("SELECT 1 FROM sites WHERE customer_id = ? AND line = ? AND postcode = ?")
    .get(customerId, address.line, address.postcode);
  if (known) return null;
  return storeSite(context, customerId, address, { zoneId: zoneOf(context, address)?.id ?? null, ...draft.site });
}

/** Somebody we know keeps what we know; the row fills what is empty, and adds a site and tags. */
function join(context: OperationContext, draft: CustomerDraft, id: number): Done {
  const { sql } = context;
  const known = sql<Rows["customers"]>(
    "SELECT * FROM customers WHERE id = ? AND merged_into IS NULL AND erased_at IS NULL",
  ).get(id);
  if (!known) throw new Refusal("not-found", { sentence: "The customer this was to join is no longer there." });
  const offered = {
    mail: draft.mail,
    phone: draft.phone,
    source: draft.source,
    technician_note: draft.technicianNote,
    inside_note: draft.insideNote,
    ...(draft.contacts.length > 0 && { contacts: contactsColumn.write(draft.contacts) }),
    ...(draft.bill &&
      known.bill_name === "" && {
        bill_name: draft.bill.name,
        bill_mail: draft.bill.mail,
        bill_address: draft.bill.address,
      }),
  };
  const was = (column: string) => known[column as keyof typeof known] as string;
  const gaps = Object.entries(offered).filter(([column, value]) => value && ["", "[]"].includes(was(column)));
  const [before, after] = [gaps.map(([column]) => [column, was(column)]), gaps].map(
    (pairs) => Object.fromEntries(pairs) as Record<string, string>,
  );
  changeCustomer(context, id, after!);
  const site = addSite(context, id, draft);
  const tags = draft.tags.flatMap((tag) => addTag(context, id, tidy(tag)) ?? []);
  return { id, made: false, before, after, tags, sites: site === null ? [] : [site] };
}

/** What was filled goes where it still stands as it came, and the site where nobody has been since. */
function unjoin(context: OperationContext, { id, before = {}, after = {}, sites = [], tags = [] }: Done): boolean {
  const { sql } = context;
  const now = sql<Rows["customers"]>("SELECT * FROM customers WHERE id = ?").get(id);
  if (!now) return true;
  changeCustomer(
    context,
    id,
    Object.fromEntries(
      Object.entries(before).filter(([column]) => now[column as keyof typeof now] === after[column]),
    ) as Record<string, string>,
  );
  for (const tag of tags) removeTag(context, tag);
  return sites.map((site) => removeUnusedSite(context, site)).every(Boolean);
}
