import { contactsColumn } from "@/store/columns";
import { withheldOf } from "@/modules/customers/consents";
import { quoteStates } from "@/core/catalogue/quote-states";
import { invoiceState } from "@/core/money/applying";
import { Refusal } from "@/core/problems";
import { repeatWords } from "@/core/repeats/rule-words";
import { localDate } from "@/core/time/local";
import { visitStates } from "@/core/visits/states";
import { Id, input } from "@/kernel/inputs";
import type { ViewContext } from "@/kernel/operation";
import { defineView } from "@/kernel/view";
import { addressAt } from "@/modules/place/addresses";
import type { Rows } from "@/store/rows";
import { Type } from "@sinclair/typebox";
import { openBusinessWith } from "../open-business";
import { rightsOn, seenCustomers } from "@/kernel/seen";
import { openOf } from "../filtered";

const HowMany = Type.Integer({ minimum: 0, maximum: 5_000 });

/** Everything about one customer, with the latest of their visits and messages, as many as asked. */
export const customer = defineView({
  name: "customer",
  access: "customers.see",
  about: { id: "customer" },
  input: input({ id: Id, visits: HowMany, messages: HowMany }),
  read(context, { id, visits, messages }) {
    const { sql, business, actor, today } = context;
    const rights = rightsOn(actor);
    const row = sql<Rows["customers"]>(`SELECT * FROM customers c WHERE id = @id AND ${seenCustomers}`).get({
      id,
      only: rights.only,
      today,
    });
    if (!row) throw new Refusal("not-found");
    const open = openBusinessWith(context, id);
    return {
      id,
      name: row.name,
      mail: rights.contacts ? row.mail : null,
      phone: rights.contacts ? row.phone : null,
      reachedBy: row.reached_by,
      source: row.source,
      paymentDays: row.payment_days,
      businessDays: business.payment_days,
      billing: {
        by: row.billing,
        paymentFrom: row.payment_from,
        taxKind: row.tax_kind,
        taxNumber: row.tax_number,
      },
      businessBilling: business.billing,
      technicianNote: row.technician_note,
      insideNote: rights.notes ? row.inside_note : null,
      bill:
        row.bill_name && rights.contacts
          ? { name: row.bill_name, mail: row.bill_mail, address: row.bill_address }
          : null,
      contacts: rights.contacts ? contactsColumn.read(row.contacts) : null,
      reminders: row.reminders === 1,
      offers: row.offers === 1,
      since: localDate(Math.floor(row.since_at / 60_000), business.time_zone),
      archived: row.archived_at !== null,
      erased: row.erased_at === null ? null : localDate(Math.floor(row.erased_at / 60_000), business.time_zone),
      mergedInto: row.merged_into,
      /** What stands in the way of archiving, and of erasing. */
      coming: open.coming,
      inTheWay: [...open.coming, ...open.money],
      today,
      currency: business.currency,
      timeZone: business.time_zone,
      tags: sql<{ tag: string }>("SELECT tag FROM customer_tags WHERE customer_id = ? ORDER BY tag")
        .all(id)
        .map(({ tag }) => tag),
      sites: sitesOf(context, id),
      visits: visitsOf(context, id, visits, rights.only),
      repeats: repeatsOf(context, id),
      quotes: quotesOf(context, row),
      invoices: rights.money ? invoicesOf(context, id) : null,
      openMinor: rights.money
        ? sql<{ minor: number }>(`SELECT ${openOf} AS minor FROM customers c WHERE c.id = ?`).get(id)!.minor
        : null,
      cards: sql<{ id: number; label: string; kept_at: number }>(
        "SELECT id, label, kept_at FROM cards WHERE customer_id = ? AND removed_at IS NULL ORDER BY id DESC",
      ).all(id),
      consents: sql<{ id: number; kind: string; given: number; words: string; at: number }>(
        "SELECT id, kind, given, words, at FROM consents WHERE customer_id = ? ORDER BY id DESC",
      ).all(id),
      language: row.language,
      ownTimeZone: row.time_zone,
      withheld: withheldOf(context, id),
      stopped: rights.contacts
        ? sql<{ channel: "mail" | "text" | "voice"; how: string }>(
            "SELECT channel, how FROM stops WHERE address <> '' AND address IN (?, ?)",
          ).all(row.mail, row.phone)
        : [],
      messages: messagesOf(context, id, rights.contacts ? messages : 0),
      messageCount: rights.contacts
        ? sql<{ n: number }>("SELECT count(*) AS n FROM messages WHERE customer_id = ?").get(id)!.n
        : 0,
    };
  },
});

const sitesOf = (context: ViewContext, id: number) =>
  context
    .sql<{
      id: number;
      name: string;
      line: string;
      postcode: string;
      lng: number;
      lat: number;
      zone: string | null;
      access: string;
      parking: string;
      archived_at: number | null;
      visits: number;
    }>(
      `SELECT s.id, s.name, s.line, s.postcode, s.lng, s.lat, z.name AS zone, s.access, s.parking, s.archived_at,
        (SELECT count(*) FROM jobs j JOIN visits v ON v.job_id = j.id WHERE j.site_id = s.id AND v.state <> 'cancelled') AS visits
      FROM sites s LEFT JOIN zones z ON z.id = s.zone_id WHERE s.customer_id = ? ORDER BY s.archived_at IS NOT NULL, s.id`,
    )
    .all(id)
    .map((site) => ({
      ...site,
      /** To ask for windows there; null where the look-up no longer finds it. */
      addressId: site.archived_at === null ? (addressAt(context, site)?.id ?? null) : null,
    }));

/** Visits to come, all of them, soonest first; and the latest of those that were. Of somebody limited to own visits, these. */
function visitsOf({ sql, today }: ViewContext, id: number, latest: number, only: number | null) {
  const rows = (where: string, order: string, limit: number) =>
    sql<{
      id: number;
      date: string;
      state: string;
      service: string;
      code: string;
      hue: number;
      site: string;
      totalMinor: number;
      technicians: string | null;
    }>(
      `SELECT v.id, v.date, v.state, v.title AS service, s.code, s.hue, t.line AS site, j.total_minor AS totalMinor,
          (SELECT group_concat(te.name, ', ') FROM placements p JOIN technicians te ON te.id = p.technician_id WHERE p.visit_id = v.id) AS technicians
        FROM visits v JOIN jobs j ON j.id = v.job_id JOIN services s ON s.id = v.service_id JOIN sites t ON t.id = j.site_id
        WHERE j.customer_id = @id AND ${where} AND ${ownVisits} ORDER BY v.window_from ${order} LIMIT @limit`,
    ).all({ id, today, only, limit });
  const isComing = `v.state IN ${visitStates.sql("expect")}`;
  return {
    coming: rows(isComing, "ASC", 200),
    past: rows(`NOT ${isComing}`, "DESC", latest),
    pastCount: sql<{ n: number }>(
      `SELECT count(*) AS n FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = @id AND NOT ${isComing} AND ${ownVisits}`,
    ).get({ id, only })!.n,
  };
}
const ownVisits =
  "(@only IS NULL OR EXISTS (SELECT 1 FROM placements op WHERE op.visit_id = v.id AND op.technician_id = @only))";

const repeatsOf = ({ sql, today }: ViewContext, id: number) =>
  sql<{
    id: number;
    service: string;
    site: string;
    rule: string;
    start_date: string;
    state: string;
    next: string | null;
  }>(
    `SELECT r.id, s.name AS service, t.line AS site, r.rule, r.start_date, r.state,
        (SELECT min(v.date) FROM visits v WHERE v.repeat_id = r.id AND v.date >= @today AND v.state IN ${visitStates.sql("move")}) AS next
      FROM repeats r JOIN services s ON s.id = r.service_id JOIN sites t ON t.id = r.site_id
      WHERE r.customer_id = @id ORDER BY r.state, r.id`,
  )
    .all({ id, today })
    .map((repeat) => ({ ...repeat, words: repeatWords(repeat) }));

/** Quotes that became a job of theirs, or went to the email they have. */
const quotesOf = ({ sql, business }: ViewContext, { id, mail }: Rows["customers"]) =>
  sql<{
    id: number;
    made_at: number;
    state: Rows["quotes"]["state"];
    total_minor: number;
    line: string;
    valid_until: string;
    visitId: number | null;
    visitDate: string | null;
  }>(
    `SELECT q.id, q.made_at, q.state, q.total_minor, q.line, q.valid_until,
        (SELECT v.id FROM visits v WHERE v.job_id = q.job_id ORDER BY v.window_from LIMIT 1) AS visitId,
        (SELECT v.date FROM visits v WHERE v.job_id = q.job_id ORDER BY v.window_from LIMIT 1) AS visitDate
      FROM quotes q WHERE q.job_id IN (SELECT id FROM jobs WHERE customer_id = @id) OR (@mail <> '' AND lower(q.mail) = @mail)
      ORDER BY q.id DESC LIMIT 50`,
  )
    .all({ id, mail: mail.toLowerCase() })
    .map(({ made_at, ...quote }) => ({
      ...quote,
      made: localDate(Math.floor(made_at / 60_000), business.time_zone),
      isOpen: quoteStates.allows("open", quote.state),
    }));

const invoicesOf = ({ sql, business, today }: ViewContext, id: number) =>
  sql<{
    id: number;
    label: string;
    issued_at: number;
    due_date: string;
    total_minor: number;
    applied_minor: number;
    open_minor: number;
    credited_minor: number;
    bill_name: string;
  }>(
    `SELECT i.id, i.label, i.issued_at, i.due_date, i.total_minor, i.bill_name, b.applied_minor, b.credited_minor, b.open_minor
      FROM invoices i JOIN invoice_balances b ON b.invoice_id = i.id WHERE i.customer_id = ? ORDER BY i.id DESC LIMIT 200`,
  )
    .all(id)
    .map((i) => ({
      id: i.id,
      number: i.label,
      issued: localDate(Math.floor(i.issued_at / 60_000), business.time_zone),
      dueDate: i.due_date,
      totalMinor: i.total_minor,
      openMinor: i.open_minor,
      billName: i.bill_name,
      state: invoiceState(
        {
          totalMinor: i.total_minor,
          openMinor: i.open_minor,
          appliedMinor: i.applied_minor,
          creditedMinor: i.credited_minor,
          dueDate: i.due_date,
        },
        today,
      ),
    }));

const messagesOf = ({ sql }: ViewContext, id: number, latest: number) =>
  sql<{ id: number; channel: string; subject: string; body: string; state: string; written_at: number }>(
    `SELECT id, channel, subject, body, state, written_at
      FROM messages WHERE customer_id = ? ORDER BY id DESC LIMIT ?`,
  ).all(id, latest);
