import { quoteStates } from "@/core/catalogue/quote-states";
import { type Contact, matchOf } from "@/core/people/matching";
import type { ViewContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";

export interface Known {
  id: number;
  name: string;
  mail: string;
  phone: string;
  bill_name: string;
  bill_mail: string;
}

/** Ids of everything that is theirs, by table. */
export type Scope = Record<(typeof scoped)[number], string>;
export const scoped = [
  "customers",
  "sites",
  "customer_tags",
  "jobs",
  "visits",
  "repeats",
  "invoices",
  "payments",
  "bank_lines",
  "refunds",
  "messages",
  "replies",
  "threads",
  "consents",
  "cards",
  "links",
  "additions",
  "requests",
  "quotes",
  "money_calls",
  "points",
  "reviews",
  "campaign_invites",
  "notes",
  "repeat_asks",
  "credit_notes",
  "ledger_events",
] as const;

export function scopeOf({ sql, business }: ViewContext, known: readonly Known[]): Scope {
  const customers = idsColumn.write(known.map(({ id }) => id));
  const ids = (query: string, list: string) =>
    idsColumn.write(
      sql<{ id: number }>(query)
        .all(list)
        .map((row) => row.id),
    );
  const of = (table: string) =>
    ids(`SELECT id FROM ${table} WHERE customer_id IN (SELECT value FROM json_each(?))`, customers);
  const jobs = of("jobs");
  const ofJobs = (table: string) =>
    ids(`SELECT id FROM ${table} WHERE job_id IN (SELECT value FROM json_each(?))`, jobs);
  // What came in before they were customers is theirs where it is certainly they: a household shares a phone and an email.
  const asked = (table: "requests" | "quotes") =>
    idsColumn.write(
      sql<Contact & { id: number; job_id: number | null }>(
        `SELECT id, job_id, name, mail, phone
          FROM ${table} WHERE job_id IN (SELECT value FROM json_each(@jobs)) OR lower(mail) IN (SELECT value FROM json_each(@mails))
            OR phone IN (SELECT value FROM json_each(@phones))`,
      )
        .all({
          jobs,
          mails: JSON.stringify(known.map(({ mail }) => mail.toLowerCase()).filter(Boolean)),
          phones: JSON.stringify(known.map(({ phone }) => phone).filter(Boolean)),
        })
        .filter(
          (row) =>
            idsColumn.read(jobs).includes(row.job_id ?? 0) ||
            known.some((person) => matchOf(person, row, business.phone) === "certain"),
        )
        .map((row) => row.id),
    );
  return {
    customers,
    jobs,
    sites: of("sites"),
    customer_tags: of("customer_tags"),
    repeats: of("repeats"),
    invoices: of("invoices"),
    messages: of("messages"),
    replies: of("replies"),
    threads: of("threads"),
    consents: of("consents"),
    cards: of("cards"),
    points: of("points"),
    reviews: of("reviews"),
    campaign_invites: of("campaign_invites"),
    notes: ids(
      `WITH them AS (SELECT value AS id FROM json_each(?))
        SELECT n.id FROM notes n JOIN threads t ON t.id = n.thread_id WHERE t.customer_id IN them
        UNION SELECT n.id FROM notes n JOIN visits v ON v.id = n.visit_id JOIN jobs j ON j.id = v.job_id WHERE j.customer_id IN them`,
      customers,
    ),
    visits: ofJobs("visits"),
    links: ofJobs("links"),
    additions: ofJobs("additions"),
    payments: of("payments"),
    bank_lines: ids(
      `SELECT l.id FROM bank_lines l LEFT JOIN refunds r ON r.id = l.refund_id
        JOIN payments p ON p.id = coalesce(l.payment_id, r.payment_id) WHERE p.customer_id IN (SELECT value FROM json_each(?))`,
      customers,
    ),
    refunds: ids(
      "SELECT r.id FROM refunds r JOIN payments p ON p.id = r.payment_id WHERE p.customer_id IN (SELECT value FROM json_each(?))",
      customers,
    ),
    repeat_asks: ids(
      "SELECT a.id FROM repeat_asks a JOIN repeats r ON r.id = a.repeat_id WHERE r.customer_id IN (SELECT value FROM json_each(?))",
      customers,
    ),
    credit_notes: of("credit_notes"),
    ledger_events: ids(
      `WITH them AS (SELECT value AS id FROM json_each(?))
        SELECT DISTINCT e.event_id AS id FROM payments p JOIN ledger_entries e ON e.payment_id = p.id WHERE p.customer_id IN them
        UNION SELECT e.event_id FROM invoices i JOIN ledger_entries e ON e.invoice_id = i.id WHERE i.customer_id IN them`,
      customers,
    ),
    requests: asked("requests"),
    quotes: asked("quotes"),
    money_calls: ids(
      "SELECT id FROM money_calls WHERE invoice_id IN (SELECT id FROM invoices WHERE customer_id IN (SELECT value FROM json_each(?)))",
      customers,
    ),
  };
}

/** What stands in place of a name and an address that were erased. */
const erasedName = "Erased customer";
const erasedPlace = "erased";
/** In place of words without which a row cannot be. */
const erasedWords = "erased";

/** Services of an order without what was answered: which work it was stays. */
const itemsAlone =
  "(SELECT coalesce(json_group_array(json_set(value, '$.answers', json('{}'))), '[]') FROM json_each(items))";
const anew = "lower(hex(randomblob(16)))";

/**
 * Which columns of each table are about a person, with what stands there once they are erased (SQL; `@lng`, `@lat`: where
 * the business is); `goes` where the row itself does, since nothing of money hangs on it. Erasing and what is handed out on
 * request read this list. `settle`: what else of the row ends with it.
 */
export const personal: Record<
  (typeof scoped)[number],
  { columns: Record<string, string>; settle?: string; goes?: boolean }
> = {
  customers: {
    columns: {
      name: `'${erasedName}'`,
      mail: "''",
      phone: "''",
      source: "''",
      technician_note: "''",
      inside_note: "''",
      contacts: "'[]'",
      bill_name: "''",
      bill_mail: "''",
      bill_address: "''",
      tax_number: "''",
    },
    settle:
      "reached_by = 'any', reminders = 0, offers = 0, erased_at = @now, archived_at = coalesce(archived_at, @now)",
  },
  sites: {
    columns: {
      line: `'${erasedPlace}'`,
      postcode: "''",
      name: "''",
      access: "''",
      parking: "''",
      lng: "@lng",
      lat: "@lat",
    },
  },
  customer_tags: { columns: { tag: "" }, goes: true },
  jobs: {
    columns: {
      note: "''",
      fields: "'[]'",
      photos: "'[]'",
      name: "''",
      mail: "''",
      phone: "''",
      from_address: "NULL",
      from_browser: "NULL",
    },
  },
  visits: { columns: { lng: "@lng", lat: "@lat", from_address: "NULL", from_browser: "NULL" } },
  repeats: { columns: { items: itemsAlone, end_reason: "''" } },
  repeat_asks: { columns: { answer: "''" } },
  invoices: {
    columns: {
      bill_name: "''",
      bill_mail: "''",
      bill_address: "''",
      buyer_name: "''",
      buyer_address: "''",
      buyer_tax_number: "''",
      before_text: "''",
      after_text: "''",
      objection: "''",
    },
    settle: `objected_at = NULL, remind_on = NULL, nonce = ${anew}`,
  },
  credit_notes: { columns: { reason: `'${erasedWords}'`, after_text: "''" } },
  ledger_events: { columns: { reason: "''" } },
  payments: { columns: { note: "''" } },
  bank_lines: { columns: { name: "''", words: "''" } },
  refunds: { columns: { reason: "''" } },
  // How many were content, and what was booked upon an offer, stays; what they wrote and their links do not.
  reviews: { columns: { praise: "''", trouble: "''", reply: "''" }, settle: `went_to = '[]', nonce = ${anew}` },
  campaign_invites: { columns: {}, settle: `nonce = ${anew}` },
  points: { columns: { words: "''" } },
  links: { columns: {}, settle: "revoked_at = coalesce(revoked_at, @now)" },
  requests: {
    columns: {
      name: "''",
      mail: "''",
      phone: "''",
      address: `'${erasedPlace}'`,
      wishes: "''",
      items: itemsAlone,
      photos: "'[]'",
      lng: "NULL",
      lat: "NULL",
    },
    settle: "address_id = NULL, outcome = iif(outcome = 'open', 'withdrawn', outcome)",
  },
  quotes: {
    columns: {
      name: "''",
      mail: "''",
      phone: "''",
      line: `'${erasedPlace}'`,
      postcode: "''",
      lng: "@lng",
      lat: "@lat",
      items: itemsAlone,
      note: "''",
      photos: "'[]'",
      words: "''",
      answer: "''",
      options: "'[]'",
      signed_by: "''",
      signature: "NULL",
    },
    settle: `follow_up_on = NULL, state = iif(state IN ${quoteStates.sql("open")}, 'withdrawn', state)`,
  },
  messages: { columns: { recipient: "", subject: "", body: "", fields: "" }, goes: true },
  replies: { columns: { sender: "", body: "", subject: "" }, goes: true },
  consents: { columns: { kind: "", given: "", words: "" }, goes: true },
  cards: { columns: { label: "", expires: "", agreed_words: "" }, goes: true },
  additions: { columns: { words: "", photos: "" }, goes: true },
  money_calls: { columns: { words: "" }, goes: true },
  notes: { columns: { words: "" }, goes: true },
  threads: { columns: { name: "", mail: "", phone: "", last_words: "" }, goes: true },
};

/** Those of a customer, and of whoever was merged into them, with how they were known. */
export const knownAs = ({ sql }: ViewContext, customerId: number): Known[] =>
  sql<Known>(
    `WITH RECURSIVE them (id) AS (SELECT @customerId UNION SELECT c.id FROM customers c JOIN them ON c.merged_into = them.id)
      SELECT c.id, c.name, c.mail, c.phone, c.bill_name, c.bill_mail FROM customers c JOIN them USING (id)`,
  ).all({ customerId });
