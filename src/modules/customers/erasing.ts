import { quoteStates } from "@/core/catalogue/quote-states";
import { type Contact, matchOf } from "@/core/people/matching";
import { Refusal } from "@/core/problems";
import type { OperationContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";
import { openBusinessWith } from "./open-business";

/** What stands in place of a name and an address that were erased. */
const erasedName = "Erased customer";
const erasedPlace = "erased";
/** In place of words without which a row cannot be. */
const erasedWords = "erased";

/**
 * Takes away all that says who a customer was: names, contacts, places, notes, words, pictures, cards and links; of those
 * too who were merged into them, and from the record of changes. Invoices, payments and the journal stay with their
 * numbers and sums, and jobs and visits with what was done and when. Refused while something is still going on.
 */
export function eraseCustomer(context: OperationContext, customerId: number): void {
  const { coming, money } = openBusinessWith(context, customerId);
  const left = [...coming, ...money];
  if (left.length)
    throw new Refusal("in-use", {
      sentence: `There ${/^1 /.test(left[0]!) ? "is" : "are"} still ${left.join(", ")}. Cancel or settle them first.`,
    });
  const { sql } = context;
  const customers = sql<Known>(
    `WITH RECURSIVE them (id) AS (SELECT @customerId UNION SELECT c.id FROM customers c JOIN them ON c.merged_into = them.id)
      SELECT c.id, c.name, c.mail, c.phone, c.bill_name, c.bill_mail FROM customers c JOIN them USING (id)`,
  ).all({ customerId });
  const scope = scopeOf(context, customers);
  // What the index lets go of is overwritten at once; it is slower, and else let go of when segments are merged.
  sql("INSERT INTO customer_search (customer_search, rank) VALUES ('secure-delete', 1)").run();
  forgetWords(context, scope);
  sql("INSERT INTO customer_search (customer_search, rank) VALUES ('secure-delete', 0)").run();
  forgetTraces(context, customers, scope);
  forgetChanges(context, scope);
  // What is overwritten in the file must not be left in the index's older segments, nor in the log beside it.
  context.later({
    kind: "forget traces",
    lane: "rest",
    key: `forget traces of ${customerId} at ${context.now}`,
    payload: {},
  });
}

interface Known {
  id: number;
  name: string;
  mail: string;
  phone: string;
  bill_name: string;
  bill_mail: string;
}

/** Ids of everything that is theirs, by table. */
type Scope = Record<(typeof scoped)[number], string>;
const scoped = [
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

function scopeOf({ sql, business }: OperationContext, known: readonly Known[]): Scope {
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

/** Services of an order without what was answered: which work it was stays. */
const itemsAlone =
  "(SELECT coalesce(json_group_array(json_set(value, '$.answers', json('{}'))), '[]') FROM json_each(items))";
const among = "IN (SELECT value FROM json_each(@ids))";

/** What was written about them is overwritten, or goes with its row where nothing of money hangs on it. */
function forgetWords({ sql, now, business }: OperationContext, scope: Scope): void {
  const forget = (table: keyof Scope, set: string, more = {}) =>
    sql(`UPDATE ${table} SET ${set} WHERE id ${among}`).run({ ids: scope[table], ...more });
  // Pictures first, while it is still known which they are.
  sql(
    `DELETE FROM images WHERE purpose = 'answer' AND token IN (
      SELECT p.value FROM additions a, json_each(a.photos) p WHERE a.id IN (SELECT value FROM json_each(@additions))
      UNION SELECT p.value FROM jobs j, json_each(j.photos) p WHERE j.id IN (SELECT value FROM json_each(@jobs))
      UNION SELECT p.value FROM job_items i, json_each(i.answers) a, json_each(a.value, '$.photos') p WHERE i.job_id IN (SELECT value FROM json_each(@jobs))
      UNION SELECT p.value FROM requests r, json_each(r.photos) p WHERE r.id IN (SELECT value FROM json_each(@requests))
      UNION SELECT p.value FROM quotes q, json_each(q.photos) p WHERE q.id IN (SELECT value FROM json_each(@quotes))
      UNION SELECT p.value FROM replies y, json_each(y.photos) p WHERE y.id IN (SELECT value FROM json_each(@replies))
    )`,
  ).run({
    additions: scope.additions,
    jobs: scope.jobs,
    requests: scope.requests,
    quotes: scope.quotes,
    replies: scope.replies,
  });
  sql(
    `DELETE FROM recordings WHERE token IN (SELECT recording FROM replies WHERE id ${among} AND recording IS NOT NULL)`,
  ).run({ ids: scope.replies });
  sql(
    `DELETE FROM documents WHERE token IN (SELECT p.value FROM messages m, json_each(m.photos) p WHERE m.id ${among})`,
  ).run({ ids: scope.messages });
  // What they were told of charges names their cards.
  sql("DELETE FROM collection_notices WHERE invoice_id IN (SELECT value FROM json_each(?))").run(scope.invoices);
  for (const table of [
    "messages",
    "replies",
    "consents",
    "cards",
    "additions",
    "customer_tags",
    "money_calls",
    "notes",
  ] as const)
    sql(`DELETE FROM ${table} WHERE id ${among}`).run({ ids: scope[table] });
  // How many were content, and what was booked upon an offer, stays; what they wrote and their links do not.
  forget("reviews", "praise = '', trouble = '', reply = '', went_to = '[]', nonce = lower(hex(randomblob(16)))");
  forget("campaign_invites", "nonce = lower(hex(randomblob(16)))");
  forget("points", "words = ''");
  // A short link leads to whatever its row is sealed with now: it goes itself.
  for (const [kind, ids] of [
    ["offer", scope.campaign_invites],
    ["review", scope.reviews],
    ["invoice", scope.invoices],
    ["quote", scope.quotes],
  ] as const)
    sql(`DELETE FROM short_links WHERE kind = @kind AND opens_id ${among}`).run({ kind, ids });
  sql(`DELETE FROM account_links WHERE id ${among}`).run({ ids: scope.customers });
  sql(`DELETE FROM withheld WHERE customer_id ${among}`).run({ ids: scope.customers });
  sql(`DELETE FROM threads WHERE id ${among}`).run({ ids: scope.threads });
  const here = { lng: business.lng, lat: business.lat };
  forget(
    "customers",
    `name = '${erasedName}', mail = '', phone = '', source = '', reached_by = 'any', technician_note = '', inside_note = '',
      bill_name = '', bill_mail = '', bill_address = '', tax_number = '', reminders = 0, offers = 0, erased_at = @now,
      archived_at = coalesce(archived_at, @now)`,
    { now },
  );
  forget(
    "sites",
    `line = '${erasedPlace}', postcode = '', name = '', access = '', parking = '', lng = @lng, lat = @lat`,
    here,
  );
  forget(
    "jobs",
    "note = '', fields = '[]', photos = '[]', name = '', mail = '', phone = '', from_address = NULL, from_browser = NULL",
  );
  sql("UPDATE job_items SET answers = '[]' WHERE job_id IN (SELECT value FROM json_each(?))").run(scope.jobs);
  forget("visits", "lng = @lng, lat = @lat, from_address = NULL, from_browser = NULL", here);
  forget("repeats", `items = ${itemsAlone}, end_reason = ''`);
  forget("repeat_asks", "answer = ''");
  forget(
    "invoices",
    "bill_name = '', bill_mail = '', bill_address = '', buyer_name = '', buyer_address = '', buyer_tax_number = '', before_text = '', after_text = '', objected_at = NULL, objection = '', remind_on = NULL, nonce = lower(hex(randomblob(16)))",
  );
  forget("credit_notes", `reason = '${erasedWords}', after_text = ''`);
  sql(`UPDATE ledger_events SET reason = '' WHERE id ${among} AND reason <> ''`).run({ ids: scope.ledger_events });
  forget("payments", "note = ''");
  forget("bank_lines", "name = '', words = ''");
  forget("refunds", "reason = ''");
  forget("links", "revoked_at = coalesce(revoked_at, @now)", { now });
  forget(
    "requests",
    `name = '', mail = '', phone = '', address = '${erasedPlace}', address_id = NULL, lng = NULL, lat = NULL, wishes = '',
      items = ${itemsAlone}, photos = '[]', outcome = iif(outcome = 'open', 'withdrawn', outcome)`,
  );
  forget(
    "quotes",
    `name = '', mail = '', phone = '', line = '${erasedPlace}', postcode = '', lng = @lng, lat = @lat, items = ${itemsAlone}, note = '',
      photos = '[]', words = '', answer = '', options = '[]', signed_by = '', signature = NULL, follow_up_on = NULL,
      state = iif(state IN ${quoteStates.sql("open")}, 'withdrawn', state)`,
    here,
  );
}

/** Where their name or how they are reached stands in what is kept for a while: what was sent to the office, what failed, what was imported. */
function forgetTraces({ sql }: OperationContext, known: readonly Known[], scope: Scope): void {
  const reached = new Set(known.flatMap(({ mail, phone, bill_mail }) => [mail, phone, bill_mail]).filter(Boolean));
  const names = new Set(known.flatMap(({ name, bill_name }) => [name, bill_name]).filter(Boolean));
  const inJson = (word: string) => JSON.stringify(word).slice(1, -1);
  for (const word of reached) {
    sql("DELETE FROM outbox WHERE kind = 'tell' AND instr(payload, ?) > 0").run(inJson(word));
    sql("DELETE FROM import_rows WHERE instr(cells, ?) > 0").run(inJson(word));
    // Whoever shares the address keeps what was said of it.
    sql(
      `DELETE FROM stops WHERE address = @word
        AND NOT EXISTS (SELECT 1 FROM customers WHERE (mail = @word OR phone = @word) AND erased_at IS NULL)`,
    ).run({ word });
  }
  for (const word of names) sql("DELETE FROM import_rows WHERE instr(cells, ?) > 0").run(JSON.stringify(word));
  // What we have told each other of them: our own messages name whoever they are about.
  for (const word of [...reached, ...names]) {
    const ours = sql<{ id: number }>(
      `SELECT id FROM messages WHERE customer_id IS NULL AND thread_id IS NULL
        AND (instr(body, @word) > 0 OR instr(subject, @word) > 0 OR instr(coalesce(fields, ''), @json) > 0)`,
    )
      .all({ word, json: inJson(word) })
      .map(({ id }) => id);
    const ids = idsColumn.write(ours);
    sql(`DELETE FROM messages WHERE id ${among}`).run({ ids });
    sql(
      `UPDATE audit_changes SET before = NULL, after = NULL
        WHERE entity = 'messages' AND row_key IN (SELECT CAST(value AS TEXT) FROM json_each(?))`,
    ).run(ids);
    sql(
      `UPDATE audit_changes SET row_key = '(erased)', before = NULL, after = NULL
        WHERE entity = 'stops' AND instr(row_key, @word) > 0`,
    ).run({ word });
  }
  // A name may be another one's too: what is still to be sent is left.
  for (const word of names)
    sql("DELETE FROM outbox WHERE kind = 'tell' AND ended_at IS NOT NULL AND instr(payload, ?) > 0").run(inJson(word));
  for (const word of [...reached, ...names]) {
    sql("DELETE FROM failed_work WHERE instr(words, ?) > 0").run(word);
    sql(
      `UPDATE security_events SET who = replace(who, @word, '(erased)'), words = replace(words, @word, '(erased)')
        WHERE instr(who || words, @word) > 0`,
    ).run({ word });
  }
  sql(
    "DELETE FROM outbox WHERE kind = 'message' AND json_extract(payload, '$.messageId') IN (SELECT value FROM json_each(?))",
  ).run(scope.messages);
  sql(
    `DELETE FROM import_rows WHERE import_id IN (SELECT id FROM imports WHERE kind = 'customers')
      AND (same_id IN (SELECT value FROM json_each(@customers)) OR json_extract(done, '$.id') IN (SELECT value FROM json_each(@customers)))`,
  ).run({ customers: scope.customers });
  sql(
    `DELETE FROM import_rows WHERE import_id IN (SELECT id FROM imports WHERE kind = 'bank lines')
      AND (same_id IN (SELECT value FROM json_each(@lines)) OR json_extract(done, '$.id') IN (SELECT value FROM json_each(@lines)))`,
  ).run({ lines: scope.bank_lines });
  sql(
    `DELETE FROM import_keys
      WHERE NOT EXISTS (SELECT 1 FROM import_rows r WHERE r.import_id = import_keys.import_id AND r.number = import_keys.number)`,
  ).run();
  // Nobody asks any more whether they are somebody else; what was agreed with them stands there too.
  sql(
    `UPDATE audit_changes SET before = NULL, after = NULL
      WHERE entity = 'possible_duplicates' AND row_key IN (
        SELECT CAST(id AS TEXT) FROM possible_duplicates
          WHERE one_id IN (SELECT value FROM json_each(@customers)) OR other_id IN (SELECT value FROM json_each(@customers)))`,
  ).run({ customers: scope.customers });
  sql(
    `DELETE FROM possible_duplicates
      WHERE one_id IN (SELECT value FROM json_each(@customers)) OR other_id IN (SELECT value FROM json_each(@customers))`,
  ).run({ customers: scope.customers });
}

/** The record keeps who did what and when; what stood there before and after goes, of this erasing too. */
function forgetChanges({ sql }: OperationContext, scope: Scope): void {
  const forget = sql(
    `UPDATE audit_changes SET before = NULL, after = NULL
      WHERE entity = @entity AND row_key IN (SELECT CAST(value AS TEXT) FROM json_each(@ids))`,
  );
  for (const entity of scoped) forget.run({ entity, ids: scope[entity] });
  sql(
    `UPDATE audit_changes SET before = NULL, after = NULL
      WHERE entity = 'job_items' AND row_key IN (
        SELECT job_id || ' ' || position FROM job_items WHERE job_id IN (SELECT value FROM json_each(?)))`,
  ).run(scope.jobs);
}
