import { may, seesOnly } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { likePattern, pageInput, readPage } from "@/kernel/paging";
import { defineView } from "@/kernel/view";
import { Type } from "@sinclair/typebox";
import { seenCustomers } from "../seen";

const openOf = "(SELECT coalesce(sum(open_minor), 0) FROM invoice_balances b WHERE b.customer_id = c.id)";

const sorts = ["name", "phone", "mail", "lastVisit", "nextVisit", "openMinor"] as const;
const lastVisit =
  "(SELECT max(v.date) FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.customer_id = c.id AND v.state = 'done')";
const nextVisit =
  "(SELECT min(v.date) FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.customer_id = c.id AND v.state = 'promised' AND v.date >= @today)";

/** One page of the customers; looked for by any part of name, phone, email and street. */
export const customers = defineView({
  name: "customers",
  access: "customers.see",
  input: input(pageInput(sorts)),
  read(context, asked) {
    const { sql, today, business, actor } = context;
    if (asked.sort === "openMinor" && !may(actor, "money.see")) throw new Refusal("not-allowed");
    const params = { today, only: seesOnly(actor), search: likePattern(asked.search) };
    const { rows: ids, count } = readPage(context, asked, {
      from: "FROM customers c",
      where: `c.merged_into IS NULL AND ${seenCustomers} AND (@search IS NULL OR c.name LIKE @search ESCAPE '\\' OR c.phone LIKE @search ESCAPE '\\'
        OR c.mail LIKE @search ESCAPE '\\' OR EXISTS (SELECT 1 FROM sites WHERE customer_id = c.id AND line || ', ' || postcode LIKE @search ESCAPE '\\')) AND @today IS NOT NULL`,
      id: "c.id",
      order: {
        name: "c.name COLLATE NOCASE",
        phone: "c.phone",
        mail: "c.mail",
        lastVisit,
        nextVisit,
        openMinor: openOf,
      },
      params,
    });
    const row = sql<{
      id: number;
      name: string;
      mail: string;
      phone: string;
      sites: number;
      zone: string | null;
      lastVisit: string | null;
      nextVisit: string | null;
      openMinor: number;
    }>(
      `SELECT c.id, c.name, c.mail, c.phone,
          (SELECT count(DISTINCT line || postcode) FROM sites WHERE customer_id = c.id) AS sites,
          (SELECT z.name FROM sites s JOIN zones z ON z.id = s.zone_id WHERE s.customer_id = c.id LIMIT 1) AS zone,
          ${lastVisit} AS lastVisit, ${nextVisit} AS nextVisit, ${openOf} AS openMinor
        FROM customers c WHERE c.id = @id`,
    );
    const seesMoney = may(actor, "money.see");
    return {
      currency: business.currency,
      count,
      rows: ids.map((id) => {
        const { openMinor, ...customer } = row.get({ id, today })!;
        return { ...customer, openMinor: seesMoney ? openMinor : null };
      }),
    };
  },
});

const HowMany = Type.Integer({ minimum: 0, maximum: 5_000 });

/** One customer, with the latest of their visits and messages, as many as asked. */
export const customer = defineView({
  name: "customer",
  access: "customers.see",
  about: { id: "customer" },
  input: input({ id: Id, visits: HowMany, messages: HowMany }),
  read({ sql, business, actor }, { id, visits, messages }) {
    const row = sql<{
      id: number;
      name: string;
      mail: string;
      phone: string;
      reminders: number;
      offers: number;
      since_at: number;
      openMinor: number;
      visitCount: number;
      messageCount: number;
    }>(`SELECT c.id, c.name, c.mail, c.phone, c.reminders, c.offers, c.since_at, ${openOf} AS openMinor,
        (SELECT count(*) FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = c.id) AS visitCount,
        (SELECT count(*) FROM messages WHERE customer_id = c.id) AS messageCount
      FROM customers c WHERE id = @id AND ${seenCustomers}`).get({
      id,
      only: seesOnly(actor),
    });
    if (!row) throw new Refusal("not-found");
    return {
      ...row,
      openMinor: may(actor, "money.see") ? row.openMinor : null,
      currency: business.currency,
      timeZone: business.time_zone,
      card:
        sql<{ label: string }>(
          "SELECT label FROM cards WHERE customer_id = ? AND removed_at IS NULL ORDER BY id DESC LIMIT 1",
        ).get(id)?.label ?? null,
      consents: sql<{ id: number; kind: string; given: number; words: string; at: number }>(
        "SELECT id, kind, given, words, at FROM consents WHERE customer_id = ? ORDER BY id DESC",
      ).all(id),
      // Two that were merged may have had the same one.
      sites: sql<{ id: number; line: string; postcode: string; zone: string | null }>(
        `SELECT min(s.id) AS id, s.line, s.postcode, z.name AS zone
          FROM sites s LEFT JOIN zones z ON z.id = s.zone_id WHERE customer_id = ? GROUP BY s.line, s.postcode`,
      ).all(id),
      visits: sql<{
        id: number;
        date: string;
        state: string;
        service: string;
        code: string;
        hue: number;
        totalMinor: number;
      }>(
        `SELECT v.id, v.date, v.state, v.title AS service, s.code, s.hue, j.total_minor AS totalMinor
          FROM visits v JOIN jobs j ON j.id = v.job_id JOIN services s ON s.id = v.service_id
          WHERE j.customer_id = ? ORDER BY v.window_from DESC LIMIT ?`,
      ).all(id, visits),
      messages: sql<{ id: number; channel: string; subject: string; body: string; state: string; written_at: number }>(
        `SELECT id, channel, subject, body, state, written_at
          FROM messages WHERE customer_id = ? ORDER BY id DESC LIMIT ?`,
      ).all(id, messages),
    };
  },
});
