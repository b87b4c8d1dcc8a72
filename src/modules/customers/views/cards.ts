import { languages } from "@/core/messages/languages";
import { contactsColumn } from "@/store/columns";
import type { CustomerCard } from "@/core/customers/cards";
import { everybody } from "@/core/customers/filter";
import { Refusal } from "@/core/problems";
import { localDate } from "@/core/time/local";
import { Id, input } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { pageInput } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { Filter } from "../inputs";
import { type CustomerRights, rightsOn } from "@/kernel/seen";
import { customerSorts, pageOf } from "./customers";

/** A page of the customers as they go into a file; or the one of this id. What somebody may not see is empty. */
export const customerCards = defineView({
  name: "customer-cards",
  access: "customers.see",
  about: { "filter.zoneId": "shared", id: "customer" },
  input: input({ ...pageInput(customerSorts), filter: Type.Optional(Filter), id: Type.Optional(Id) }),
  read(context, { filter = everybody, id, ...asked }) {
    const rights = rightsOn(context.actor);
    if (!rights.contacts) throw new Refusal("not-allowed");
    const { rows: ids, count } = id === undefined ? pageOf(context, asked, filter, rights) : { rows: [id], count: 1 };
    return { count, rows: ids.map((one) => cardOf(context, one, rights)) };
  },
});

function cardOf({ sql, business }: ViewContext, id: number, rights: CustomerRights): CustomerCard {
  const row = sql<Rows["customers"]>("SELECT * FROM customers WHERE id = ?").get(id);
  if (!row) throw new Refusal("not-found");
  return {
    name: row.name,
    phone: row.phone,
    mail: row.mail,
    reachedBy: row.reached_by,
    tags: sql<{ tag: string }>("SELECT tag FROM customer_tags WHERE customer_id = ? ORDER BY tag")
      .all(id)
      .map(({ tag }) => tag),
    source: row.source,
    paymentDays: row.payment_days,
    technicianNote: row.technician_note,
    insideNote: rights.notes ? row.inside_note : "",
    bill: row.bill_name ? { name: row.bill_name, mail: row.bill_mail, address: row.bill_address } : null,
    billing: row.billing,
    paymentFrom: row.payment_from,
    taxKind: row.tax_kind,
    taxNumber: row.tax_number,
    language: languages.find((one) => one === row.language) ?? null,
    contacts: contactsColumn.read(row.contacts),
    reminders: row.reminders === 1,
    offers: row.offers === 1,
    since: localDate(Math.floor(row.since_at / 60_000), business.time_zone),
    sites: sql<{ name: string; line: string; postcode: string; access: string; parking: string }>(
      "SELECT name, line, postcode, access, parking FROM sites WHERE customer_id = ? AND archived_at IS NULL ORDER BY id",
    ).all(id),
  };
}
