import { type Item, justOne } from "@/core/catalogue/items";
import { type RepeatDraft, repeatDetails, repeatOf } from "@/core/imports/repeat-row";
import type { Columns } from "@/core/imports/match-columns";
import { phoneKey } from "@/core/people/phones";
import { Refusal } from "@/core/problems";
import { dateWords } from "@/core/time/words";
import type { ViewContext } from "@/kernel/operation";
import { openPatterns, itemsByPattern } from "@/modules/catalogue/job-patterns";
import { storeRepeat } from "@/modules/repeats/storing";
import type { RowProblem } from "@/core/imports/customer-row";
import type { KindOfImport } from "./kind";
import { removeRepeat } from "@/modules/repeats/repeats";

type Values = Record<string, string>;

/** Nine to eleven, where a file says no window and the business has none of that day. */
const usualWindow = { from: 540, to: 660 };

const read = ({ business, today }: ViewContext, values: Values, { dates }: Columns) =>
  repeatOf(values, { dates, currency: business.currency, today });

/** Repeats of customers that are known: found by email, phone or name, at one of their sites. */
export const repeatsKind: KindOfImport = {
  check(context, values, columns) {
    const { draft, problems } = read(context, values, columns);
    const { found, wrong } = find(context, draft);
    return {
      problems: [...problems, ...wrong],
      same: found && (alike(context, found) ?? null),
    };
  },
  keys(context, values, columns) {
    const { draft } = read(context, values, columns);
    const whose = draft.mail || draft.phone || draft.customer;
    const key = [whose, draft.site, draft.service].map((part) => part.toLowerCase()).join(" | ");
    return { certain: [key], likely: [] };
  },
  take(context, values, columns, joined) {
    // It is there already, and stays as it was agreed.
    if (joined !== null) return { id: joined, made: false, before: {}, after: {} };
    const { draft } = read(context, values, columns);
    const { found } = find(context, draft);
    if (!found || !draft.rule || !draft.start) throw new Refusal("not-found");
    const window = draft.window ?? usualWindow;
    const id = storeRepeat(context, {
      customerId: found.customerId,
      siteId: found.siteId,
      items: found.items,
      rule: draft.rule,
      start: draft.start,
      fromMinute: window.from,
      toMinute: window.to,
      technicianId: found.technicianId,
      comes: found.comes,
      visitMinor: draft.priceMinor,
    });
    // Its dates are laid out by the worker, repeat by repeat.
    return { id, made: true };
  },
  undo(context, done) {
    const { sql } = context;
    if (!done.made) return true;
    const used = sql("SELECT 1 FROM visits WHERE repeat_id = ? AND state <> 'forecast'").get(done.id);
    const changed = sql("SELECT 1 FROM repeat_terms WHERE repeat_id = ?").get(done.id);
    if (used || changed) return false;
    removeRepeat(context, done.id);
    return true;
  },
  words(context, values, columns) {
    const { draft } = read(context, values, columns);
    return {
      name: draft.customer || draft.mail || draft.phone,
      details: repeatDetails(draft, context.business.currency),
    };
  },
  known({ sql }, id) {
    const known = sql<{ name: string; service: string; line: string; rule: string; start_date: string }>(
      `SELECT c.name, s.name AS service, t.line, r.rule, r.start_date
        FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN services s ON s.id = r.service_id
          JOIN sites t ON t.id = r.site_id
        WHERE r.id = ?`,
    ).get(id);
    return known
      ? { name: known.name, details: [known.service, known.line, `since ${dateWords(known.start_date)}`] }
      : null;
  },
};

interface Found {
  customerId: number;
  siteId: number;
  /** A service, or what a job pattern of that name does. */
  items: readonly Item[];
  comes: "set" | "flexible" | "ask";
  technicianId: number | null;
}

/** Whose and what a row is about, of what we know; a sentence for each cell that names nobody or nothing known. */
function find(context: ViewContext, draft: RepeatDraft): { found: Found | null; wrong: RowProblem[] } {
  const { sql } = context;
  const wrong: RowProblem[] = [];
  const customerId = customerOf(context, draft);
  if (customerId === null && (draft.customer || draft.mail || draft.phone))
    wrong.push({
      field: draft.customer ? "name" : draft.mail ? "mail" : "phone",
      sentence: "There is no such customer, or more than one of that name: import customers first, or add an email.",
    });
  const sites = sql<{ id: number; line: string }>(
    "SELECT id, line FROM sites WHERE customer_id = ? AND archived_at IS NULL ORDER BY id",
  ).all(customerId);
  const site = draft.site
    ? sites.find(({ line }) => line.toLowerCase().startsWith(draft.site.split(",")[0]!.trim().toLowerCase()))
    : sites.length === 1
      ? sites[0]
      : undefined;
  if (customerId !== null && !site)
    wrong.push({
      field: "site",
      sentence: draft.site
        ? "This customer has no such site."
        : sites.length
          ? "They have several sites: say which."
          : "This customer has no site yet.",
    });
  const items = workNamed(context, draft.service);
  const service = sql<{ comes: Found["comes"] }>("SELECT comes FROM services WHERE id = ?").get(items?.[0]!.serviceId);
  if (draft.service && !service)
    wrong.push({
      field: "service",
      sentence: `No service that can come back, and no job pattern, is called “${draft.service.slice(0, 60)}”.`,
    });
  const technician = draft.technician
    ? sql<{ id: number }>(
        "SELECT id FROM technicians WHERE active = 1 AND (name = @who COLLATE NOCASE OR name LIKE @who || ' %') ORDER BY id",
      ).all({ who: draft.technician })
    : [];
  if (draft.technician && technician.length !== 1)
    wrong.push({
      field: "technician",
      sentence: `Nobody, or more than one, is called “${draft.technician.slice(0, 60)}”.`,
    });
  return {
    found:
      customerId !== null && site && service && wrong.length === 0
        ? {
            customerId,
            siteId: site.id,
            items: items!,
            comes: service.comes,
            technicianId: technician[0]?.id ?? null,
          }
        : null,
    wrong,
  };
}

/** The service of that name or code, or the work of the job pattern of that name. */
function workNamed(context: ViewContext, name: string): readonly Item[] | null {
  const service = context
    .sql<{ id: number }>(
      `SELECT id FROM services
        WHERE active = 1 AND seats = 0 AND days = 1 AND (name = ? COLLATE NOCASE OR code = ? COLLATE NOCASE)`,
    )
    .get(name, name);
  if (service) return [justOne(service.id)];
  const pattern = openPatterns(context).find((one) => one.name.toLowerCase() === name.toLowerCase());
  return pattern ? itemsByPattern(pattern) : null;
}

/** By email, then by phone, then by a name that only one has. */
function customerOf({ sql, business }: ViewContext, { mail, phone, customer }: RepeatDraft): number | null {
  const known = "merged_into IS NULL AND erased_at IS NULL";
  const only = (rows: { id: number }[]) => (rows.length === 1 ? rows[0]!.id : null);
  const byMail = mail
    ? only(sql<{ id: number }>(`SELECT id FROM customers WHERE mail = ? COLLATE NOCASE AND ${known}`).all(mail))
    : null;
  const key = phone && phoneKey(phone, business.phone);
  const byPhone = key
    ? only(
        sql<{ id: number; phone: string }>(`SELECT id, phone FROM customers WHERE phone <> '' AND ${known}`)
          .all()
          .filter((row) => phoneKey(row.phone, business.phone) === key),
      )
    : null;
  return (
    byMail ??
    byPhone ??
    (customer
      ? only(sql<{ id: number }>(`SELECT id FROM customers WHERE name = ? COLLATE NOCASE AND ${known}`).all(customer))
      : null)
  );
}

const alike = ({ sql }: ViewContext, { customerId, siteId, items }: Found) => {
  const known = sql<{ id: number }>(
    "SELECT id FROM repeats WHERE customer_id = ? AND site_id = ? AND service_id = ? AND state = 'active'",
  ).get(customerId, siteId, items[0]!.serviceId);
  return known && { id: known.id, certain: true };
};
