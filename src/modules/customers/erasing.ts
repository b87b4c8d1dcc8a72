import { Refusal } from "@/core/problems";
import type { OperationContext } from "@/kernel/operation";
import { idsColumn } from "@/store/columns";
import { openBusinessWith } from "./open-business";
import { type Known, knownAs, personal, type Scope, scoped, scopeOf } from "./personal";

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
  const customers = knownAs(context, customerId);
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

const among = "IN (SELECT value FROM json_each(@ids))";

/** What was written about them is overwritten, or goes with its row where nothing of money hangs on it. */
function forgetWords(context: OperationContext, scope: Scope): void {
  const { sql } = context;
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
  sql("UPDATE job_items SET answers = '[]' WHERE job_id IN (SELECT value FROM json_each(?))").run(scope.jobs);
  // What hangs on a conversation goes before it.
  const tables = [...scoped].sort((a, b) => Number(a === "threads") - Number(b === "threads"));
  for (const table of tables) forgetIn(context, table, scope[table]);
}

function forgetIn({ sql, now, business }: OperationContext, table: (typeof scoped)[number], ids: string): void {
  const { columns, settle, goes } = personal[table];
  if (goes) return void sql(`DELETE FROM ${table} WHERE id ${among}`).run({ ids });
  const sets = [...Object.entries(columns).map(([column, erased]) => `${column} = ${erased}`), settle].filter(Boolean);
  sql(`UPDATE ${table} SET ${sets.join(", ")} WHERE id ${among}`).run({
    ids,
    now,
    lng: business.lng,
    lat: business.lat,
  });
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
