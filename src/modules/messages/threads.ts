import type { OperationContext, ViewContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import type { Rows } from "@/store/rows";
import { nanoid } from "nanoid";
import type { Reach } from "@/modules/customers/reach";

type ThreadRow = Rows["threads"];

const mostLetters = 140;

/** The conversation with a customer, begun where there is none yet. */
export function threadOfCustomer({ sql, now }: OperationContext, customerId: number): number {
  const known = sql<{ id: number }>("SELECT id FROM threads WHERE customer_id = ?").get(customerId);
  return (
    known?.id ??
    insertRow(sql, "threads", {
      customer_id: customerId,
      nonce: nanoid(24),
      last_at: now,
      last_words: "",
      last_by: "us",
    })
  );
}

/** The conversation with somebody who is no customer, by the address they write from. */
export function threadOfStranger({ sql, now }: OperationContext, { name, mail, phone }: Reach): number {
  const known = sql<{ id: number }>(
    `SELECT id FROM threads WHERE customer_id IS NULL AND ((phone <> '' AND phone = @phone) OR (mail <> '' AND mail = @mail))
      ORDER BY id DESC LIMIT 1`,
  ).get({ mail, phone });
  return (
    known?.id ??
    insertRow(sql, "threads", { name, mail, phone, nonce: nanoid(24), last_at: now, last_words: "", last_by: "them" })
  );
}

/** Something of theirs has come in: it is unread, and waits for a person where it has not been dealt with. */
export const noteTheirs = ({ sql, now }: OperationContext, threadId: number, words: string, waits: boolean): void =>
  void sql(
    `UPDATE threads SET last_at = @now, last_words = @words, last_by = 'them', unread = 1,
        waiting_since = iif(@waits, coalesce(waiting_since, @now), waiting_since), snoozed_until = NULL
      WHERE id = @threadId`,
  ).run({ threadId, now, words: words.slice(0, mostLetters), waits: waits ? 1 : 0 });

/** One of us has answered: nothing waits any more. */
export const noteOurs = ({ sql, now }: OperationContext, threadId: number, words: string): void =>
  void sql(
    `UPDATE threads SET last_at = ?, last_words = ?, last_by = 'us', unread = 0, waiting_since = NULL, snoozed_until = NULL
      WHERE id = ?`,
  ).run(now, words.slice(0, mostLetters), threadId);

/** What somebody of the office has written did not arrive: the conversation waits again. */
export const waitsAgain = ({ sql, now }: OperationContext, messageId: number): void =>
  void sql(
    `UPDATE threads SET waiting_since = coalesce(waiting_since, @now), unread = 1, snoozed_until = NULL
      WHERE id IN (SELECT coalesce(m.thread_id, (SELECT id FROM threads WHERE customer_id = m.customer_id))
        FROM messages m WHERE m.id = @messageId AND m.written_by IS NOT NULL)`,
  ).run({ messageId, now });

/** Takes down what somebody has written at the front door. */
export function addReply(
  context: OperationContext,
  threadId: number,
  { customerId, sender, body, waits }: { customerId: number; sender: string; body: string; waits: boolean },
): void {
  insertRow(context.sql, "replies", {
    thread_id: threadId,
    customer_id: customerId,
    channel: "front door",
    sender,
    body,
    received_at: context.now,
  });
  noteTheirs(context, threadId, body, waits);
}

/** Who is at the other end of a conversation, and how they are reached. */
export const whoIsIn = ({ sql }: ViewContext, threadId: number) =>
  sql<Reach & { customerId: number | null; language: string | null; reachedBy: "any" | "email" | "text" | "phone" }>(
    `SELECT t.customer_id AS customerId, coalesce(c.name, nullif(t.name, ''), nullif(t.phone, ''), t.mail) AS name,
        coalesce(c.mail, t.mail) AS mail, coalesce(c.phone, t.phone) AS phone, c.language, coalesce(c.reached_by, 'any') AS reachedBy
      FROM threads t LEFT JOIN customers c ON c.id = t.customer_id WHERE t.id = ?`,
  ).get(threadId);

/** Somebody who wrote turns out to be a customer: all of it stands with them from now on. */
export function joinThread(context: OperationContext, threadId: number, customerId: number): number {
  const { sql } = context;
  const own = threadOfCustomer(context, customerId);
  sql("UPDATE replies SET thread_id = ?, customer_id = ? WHERE thread_id = ?").run(own, customerId, threadId);
  sql("UPDATE messages SET thread_id = NULL, customer_id = ? WHERE thread_id = ?").run(customerId, threadId);
  sql("UPDATE notes SET thread_id = ? WHERE thread_id = ?").run(own, threadId);
  sql(
    `UPDATE threads SET last_at = max(threads.last_at, o.last_at), last_words = iif(o.last_at > threads.last_at OR threads.last_words = '', o.last_words, threads.last_words),
        last_by = iif(o.last_at > threads.last_at OR threads.last_words = '', o.last_by, threads.last_by), unread = max(threads.unread, o.unread),
        waiting_since = coalesce(min(threads.waiting_since, o.waiting_since), threads.waiting_since, o.waiting_since),
        handler_id = coalesce(threads.handler_id, o.handler_id)
      FROM (SELECT * FROM threads WHERE id = @threadId) o WHERE threads.id = @own`,
  ).run({ threadId, own });
  sql("DELETE FROM threads WHERE id = ?").run(threadId);
  return own;
}

/** Two customers are one: what waits in the conversation with the one that is gone waits with the other. Its own stays, for the day on which that is taken back. */
export function mergeThreads(context: OperationContext, keepId: number, goneId: number): void {
  const { sql } = context;
  const gone = sql<ThreadRow>("SELECT * FROM threads WHERE customer_id = ?").get(goneId);
  if (!gone) return;
  const own = threadOfCustomer(context, keepId);
  sql(
    `UPDATE threads SET last_words = iif(@at > last_at OR last_words = '', @words, last_words), last_by = iif(@at > last_at, @by, last_by),
        last_at = max(last_at, @at), unread = max(unread, @unread), waiting_since = coalesce(min(waiting_since, @waits), waiting_since, @waits)
      WHERE id = @own`,
  ).run({
    own,
    at: gone.last_at,
    words: gone.last_words,
    by: gone.last_by,
    unread: gone.unread,
    waits: gone.waiting_since,
  });
  sql("UPDATE threads SET waiting_since = NULL, unread = 0 WHERE id = ?").run(gone.id);
}
