import { type CustomerFilter, everybody } from "@/core/customers/filter";
import { Refusal } from "@/core/problems";
import { input, Nothing } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { type Page, type PageAsked, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { filterColumn } from "@/store/columns";
import { Type } from "@sinclair/typebox";
import { filterCondition, lastVisit, nextVisit, openOf } from "../filtered";
import { Filter } from "../inputs";
import { searchCondition } from "../search";
import { type CustomerRights, rightsOn, seenCustomers } from "@/kernel/seen";

export const customerSorts = ["name", "phone", "mail", "lastVisit", "nextVisit", "openMinor"] as const;

/** One page of the customers: those of a filter; looked for by any part of name, phone, email, place, tag and note. */
export const customers = defineView({
  name: "customers",
  access: "customers.see",
  about: { "filter.zoneId": "shared" },
  input: input({ ...pageInput(customerSorts), filter: Type.Optional(Filter) }),
  read(context, { filter = everybody, ...asked }) {
    const rights = rightsOn(context.actor);
    const { rows: ids, count } = pageOf(context, asked, filter, rights);
    return { currency: context.business.currency, count, rows: ids.map(customerRow(context, rights)) };
  },
});

/** The ids of a page of customers, as far as somebody may ask for it. */
export function pageOf(
  context: ViewContext,
  asked: PageAsked,
  filter: CustomerFilter,
  rights: CustomerRights,
): Page<number> {
  const needsMoney = asked.sort === "openMinor" || filter.openMoney;
  const needsContacts = asked.sort === "phone" || asked.sort === "mail";
  if ((needsMoney && !rights.money) || (needsContacts && !rights.contacts)) throw new Refusal("not-allowed");
  const searched = searchCondition(asked.search, rights);
  const filtered = filterCondition(context, filter);
  return readPage(context, asked, {
    from: "FROM customers c",
    where: `c.merged_into IS NULL AND c.erased_at IS NULL AND ${seenCustomers} AND ${searched.where} AND ${filtered.where}`,
    id: "c.id",
    order: {
      name: "c.name COLLATE NOCASE",
      phone: "c.phone",
      mail: "c.mail",
      lastVisit,
      nextVisit,
      openMinor: openOf,
    },
    params: { today: context.today, only: rights.only, ...searched.params, ...filtered.params },
  });
}

/** A customer as a row of the list, by id, as far as somebody may see. */
function customerRow({ sql, today }: ViewContext, rights: CustomerRights) {
  const row = sql<{
    id: number;
    name: string;
    mail: string;
    phone: string;
    sites: number;
    place: string | null;
    zone: string | null;
    lastVisit: string | null;
    nextVisit: string | null;
    openMinor: number;
    tags: string;
  }>(
    `SELECT c.id, c.name, c.mail, c.phone,
        (SELECT count(DISTINCT line || postcode) FROM sites WHERE customer_id = c.id AND archived_at IS NULL) AS sites,
        (SELECT s.line || ', ' || s.postcode FROM sites s WHERE s.customer_id = c.id AND s.archived_at IS NULL ORDER BY s.id LIMIT 1) AS place,
        (SELECT z.name FROM sites s JOIN zones z ON z.id = s.zone_id WHERE s.customer_id = c.id LIMIT 1) AS zone,
        ${lastVisit} AS lastVisit, ${nextVisit} AS nextVisit, ${openOf} AS openMinor,
        (SELECT json_group_array(tag) FROM (SELECT tag FROM customer_tags WHERE customer_id = c.id ORDER BY tag)) AS tags
      FROM customers c WHERE c.id = @id`,
  );
  return (id: number) => {
    const { mail, phone, openMinor, tags, ...customer } = row.get({ id, today })!;
    return {
      ...customer,
      tags: JSON.parse(tags) as string[],
      mail: rights.contacts ? mail : null,
      phone: rights.contacts ? phone : null,
      openMinor: rights.money ? openMinor : null,
    };
  };
}

/** What the list can be filtered by: zones, sources and tags that are in use, and the views somebody has saved. */
export const customerChoices = defineView({
  name: "customer-choices",
  access: "customers.see",
  input: Nothing,
  read: ({ sql }) => ({
    zones: sql<{ id: number; name: string }>("SELECT id, name FROM zones WHERE active = 1 ORDER BY name").all(),
    sources: sql<{ source: string; name: string }>(
      `SELECT s.source, coalesce(k.name, s.source) AS name
        FROM (SELECT source FROM customers WHERE source <> '' UNION SELECT source FROM jobs WHERE source <> '') s
          LEFT JOIN sources k ON k.slug = s.source ORDER BY 2 LIMIT 200`,
    ).all(),
    tags: sql<{ tag: string; n: number }>(
      "SELECT tag, count(*) AS n FROM customer_tags GROUP BY tag ORDER BY n DESC, tag LIMIT 200",
    ).all(),
    views: sql<{ id: number; name: string; filter: string }>("SELECT id, name, filter FROM saved_views ORDER BY name")
      .all()
      .map((view) => ({ ...view, filter: filterColumn.read(view.filter) })),
  }),
});
